#pragma once

#include "storage/frame_file.hpp"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

/// How poquito-pictures answers on its standard output: parts, each a letter, its length in four bytes of the machine's
/// own order, and its bytes.
namespace poquito::storage::answer {

enum class Part : char {
    size = 'S',   // two std::int32_t: pixels across and down
    row = 'R',    // red, green, blue
    bytes = 'B',  // all that was asked for
    wrong = 'W',  // what is wrong with the file, in words; the last
    whole = 'E',  // the last
};
struct Head {
    char part = 0;
    std::uint32_t length = 0;
};

/// EXIF as text, and back; empty: not such a text.
std::string exif_text(const FrameExif& exif);
std::optional<FrameExif> exif_from_text(const std::string& text);

/// What its first argument is, for each thing that can be asked.
constexpr const char *of_tiff = "tiff", *of_raw = "raw", *of_exif = "exif", *of_preview = "preview", *of_plan = "plan";

/// Bytes of memory, and seconds of one processor, that it may take: pixels are many, what stands beside them is little.
struct Bounds {
    std::uint64_t memory;
    unsigned seconds;
};
constexpr Bounds bounds_of(std::string_view wanted) {
    constexpr Bounds pixels = {1'500'000'000, 20}, words = {500'000'000, 4};
    return wanted == of_tiff || wanted == of_raw ? pixels : words;
}

}  // namespace poquito::storage::answer
