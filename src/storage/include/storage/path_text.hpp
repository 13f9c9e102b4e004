#pragma once

#include <filesystem>
#include <string>

/// Names of files are bytes, texts of files are UTF-8. A name that is UTF-8 stands there as it is; any other as a file
/// URI (RFC 8089), byte by byte, so that it comes back whole.
namespace poquito::storage {

std::string path_text(const std::filesystem::path& path);
std::filesystem::path path_of(const std::string& text);

}  // namespace poquito::storage
