#pragma once

#include "text/error.hpp"

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <string_view>
#include <system_error>

namespace poquito::storage {

/// The whole file, which is one on a disk of up to 1 GB: folders, devices and pipes are refused. The error's place is
/// the file's name.
text::Expected<std::string> read_file(const std::filesystem::path& path);

/// Puts `content` in place of the file, or makes it. Whatever happens, a kill or a power cut included, the file is then
/// whole: the old one or the new one. Written beside the file, flushed to the disk, then renamed over it (POSIX rename
/// is atomic); a link is followed, permissions stay. Empty: it is done. What programs that were killed left of earlier
/// attempts is taken away.
text::Expected<void> replace_file(const std::filesystem::path& path, std::string_view content);

/// Gives a file another name, never over a file that has it: then the error is std::errc::file_exists.
std::error_code rename_file(const std::filesystem::path& from, const std::filesystem::path& to);

/// What a file is known by from one look to the next: whatever program puts another in its place, or writes into it,
/// leaves another mark. Empty: there is none.
struct FileMark {
    std::uintmax_t inode = 0, size = 0;
    std::int64_t seconds = 0, nanoseconds = 0;  // of its last change
    bool operator==(const FileMark&) const = default;
};
std::optional<FileMark> mark_of(const std::filesystem::path& path);

/// Takes away what programs that were killed while they wrote the file left beside it.
void sweep_unfinished(const std::filesystem::path& path);

/// What was made, renamed or removed in the folder reaches the disk, where its file system can do that.
void flush_folder(const std::filesystem::path& folder);

}  // namespace poquito::storage
