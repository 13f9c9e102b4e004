#pragma once

#include "log/diff.hpp"
#include "log/entry.hpp"
#include "shoot/shoot.hpp"
#include "text/error.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace poquito::log {

/// What was written by hand in the field.
struct FieldNotes {
    std::vector<Entry> entries;
    std::vector<text::Error> unplaced;  // by line: what it could not be made of
};
/// A line a thing: "9:40 bee on lavender 3/20 gusty", "10:15; lichen; 12 frames; keep; between showers", "lichen
/// combined 40 frames 7 min". A time, words of a shot's name, a count (3/20, 3 of 20), frames, a verdict (keep, redo),
/// and the rest as it stands, in any order and with any separators; without a time as the line before. A line with a
/// date alone begins another day; one with # says nothing. `day`: ISO, of what stands before the first date.
FieldNotes read_field_notes(std::string_view text, const shoot::Shoot& shoot, const std::string& day,
                            const ClassOf& class_of);

}  // namespace poquito::log
