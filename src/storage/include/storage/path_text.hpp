#pragma once

#include <filesystem>
#include <string>

/// Names of files are bytes, texts of files are UTF-8. A name that is UTF-8 stands there as it is; any other as a file
/// URI (RFC 8089), byte by byte, so that it comes back whole.
namespace poquito::storage {

std::string path_text(const std::filesystem::path& path);
std::filesystem::path path_of(const std::string& text);

/// A frame of a run: its folder as `path_text` has it, its file's own name.
std::filesystem::path frame_path(const std::string& folder, const std::string& file);

/// A name for a file or a folder that says `text` as far as letters, digits, hyphens and underlines can: no separator,
/// no beginning with a point or a hyphen, never empty, at most 80 bytes. What is longer ends in a check of all of it.
std::string safe_name(const std::string& text);

}  // namespace poquito::storage
