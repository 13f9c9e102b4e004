#pragma once

#include "shoot/change/subject_library.hpp"
#include "shoot/change/view_set.hpp"
#include "shoot/shoot.hpp"
#include "text/error.hpp"

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

/// The shoot file, format poquito-shoot version 1: JSON, UTF-8, extension .poquito. Keys and units:
/// docs/file-format.md. Members this version does not know are kept in the records they stand in and come back on save.
namespace poquito::storage {

inline constexpr int shoot_version = 1;

text::Expected<shoot::Shoot> read_shoot(std::string_view text);
std::string write_shoot(const shoot::Shoot& shoot);

/// The library of subjects, format poquito-subjects version 1.
text::Expected<std::vector<shoot::LibrarySubject>> read_subjects(std::string_view text);
std::string write_subjects(const std::vector<shoot::LibrarySubject>& subjects);

/// Sets of views, format poquito-view-sets version 1.
text::Expected<std::vector<shoot::ViewSet>> read_view_sets(std::string_view text);
std::string write_view_sets(const std::vector<shoot::ViewSet>& sets);

/// Things to put on a table, format poquito-props version 1.
text::Expected<std::vector<shoot::Staged>> read_props(std::string_view text);
std::string write_props(const std::vector<shoot::Staged>& props);

/// How far a person goes: a record of its own, format poquito-limits version 1.
text::Expected<shoot::Limits> load_limits(const std::filesystem::path& path);
text::Expected<void> save_limits(const shoot::Limits& limits, const std::filesystem::path& path);

/// What a person looks at, by class of subject: format poquito-checks version 1.
text::Expected<std::vector<shoot::KindCheck>> load_checks(const std::filesystem::path& path);
text::Expected<void> save_checks(const std::vector<shoot::KindCheck>& checks, const std::filesystem::path& path);

/// From and to disk. Saving is atomic: see atomic_file.hpp.
text::Expected<shoot::Shoot> load_shoot(const std::filesystem::path& path);
text::Expected<void> save_shoot(const shoot::Shoot& shoot, const std::filesystem::path& path);

}  // namespace poquito::storage
