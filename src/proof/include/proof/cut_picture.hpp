#pragma once

#include "storage/frame_file.hpp"
#include "text/error.hpp"

#include <filesystem>
#include <optional>
#include <vector>

/// Pictures as they are delivered: cut from finished files, made smaller where they are too large, never larger.
namespace poquito::proof {

struct PicturePart {
    std::filesystem::path file;
    double left = 0, top = 0, width = 1, height = 1;  // shares of it
};

/// Parts beside one another from the left, all as high as the lowest of them; the whole with a long side of that many
/// px at most. Smaller pixels are means of what they cover, of light and not of its code values (IEC 61966-2-1). 8
/// bits, sRGB. An error names the file.
text::Expected<storage::FramePicture> cut_picture(const std::vector<PicturePart>& parts,
                                                  std::optional<double> most_long_px);

}  // namespace poquito::proof
