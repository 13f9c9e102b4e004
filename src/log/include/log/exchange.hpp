#pragma once

#include "log/entry.hpp"
#include "text/error.hpp"

#include <string>
#include <string_view>
#include <vector>

/// The log in open forms, to be kept, counted and brought elsewhere.
namespace poquito::log {

/// poquito-log version 1: every member, frames and plans too; pictures in base 64.
std::string write_json(const std::vector<Entry>& entries);
text::Expected<std::vector<Entry>> read_json(std::string_view text);

/// A line an entry, with a heading, without frames, plans and pictures. As storage/csv_rows.hpp has tables.
std::string write_csv(const std::vector<Entry>& entries);
text::Expected<std::vector<Entry>> read_csv(std::string_view text);

}  // namespace poquito::log
