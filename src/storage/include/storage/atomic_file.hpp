#pragma once

#include "storage/read_error.hpp"

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

namespace poquito::storage {

/// The whole file; the error's place is the file's name.
ReadResult<std::string> read_file(const std::filesystem::path& path);

/// Puts `content` in place of the file, or makes it. Whatever happens, a kill or a power cut included, the file is then
/// whole: the old one or the new one. Written beside the file, flushed to the disk, then renamed over it (POSIX rename
/// is atomic); a link is followed, permissions stay. Empty: it is done.
std::optional<ReadError> replace_file(const std::filesystem::path& path, std::string_view content);

/// What was made, renamed or removed in the folder reaches the disk, where its file system can do that.
void flush_folder(const std::filesystem::path& folder);

}  // namespace poquito::storage
