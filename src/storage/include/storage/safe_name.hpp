#pragma once

#include <string>

namespace poquito::storage {

/// A name for a file or a folder that says `text` as far as letters, digits, hyphens and underlines can: no separator,
/// no beginning with a point or a hyphen, never empty, at most 80 bytes. What is longer ends in a check of all of it.
std::string safe_name(const std::string& text);

}  // namespace poquito::storage
