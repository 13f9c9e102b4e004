#pragma once

#include "shoot/kit.hpp"
#include "storage/read_error.hpp"

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

/// A bag of gear by itself: as JSON, format poquito-kit version 1, whose `kit` is that of a shoot, or as CSV. Both are
/// described in docs/file-format.md.
namespace poquito::storage {

inline constexpr int kit_version = 1;

ReadResult<shoot::Kit> read_kit_json(std::string_view text);
std::string write_kit_json(const shoot::Kit& kit);

/// One row a piece, one column a member, RFC 4180, UTF-8, decimal points. Places are "line 3, max_aperture".
ReadResult<shoot::Kit> read_kit_csv(std::string_view text);
std::string write_kit_csv(const shoot::Kit& kit);

/// By the file's suffix: .csv, else JSON. Saving is atomic.
ReadResult<shoot::Kit> load_kit(const std::filesystem::path& path);
std::optional<ReadError> save_kit(const shoot::Kit& kit, const std::filesystem::path& path);

}  // namespace poquito::storage
