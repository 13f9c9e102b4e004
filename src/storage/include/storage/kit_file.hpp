#pragma once

#include "gear/kit.hpp"
#include "text/error.hpp"

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

/// A bag of gear by itself: as JSON, format poquito-kit version 1, whose `kit` is that of a shoot, or as CSV. Both are
/// described in docs/file-format.md.
namespace poquito::storage {

inline constexpr int kit_version = 1;

text::Expected<gear::Kit> read_kit_json(std::string_view text);
std::string write_kit_json(const gear::Kit& kit);

/// One row a piece, one column a member, RFC 4180, UTF-8, decimal points. Places are "line 3, max_aperture".
text::Expected<gear::Kit> read_kit_csv(std::string_view text);
std::string write_kit_csv(const gear::Kit& kit);

/// By the file's suffix: .csv, else JSON. Saving is atomic.
text::Expected<gear::Kit> load_kit(const std::filesystem::path& path);
text::Expected<void> save_kit(const gear::Kit& kit, const std::filesystem::path& path);

}  // namespace poquito::storage
