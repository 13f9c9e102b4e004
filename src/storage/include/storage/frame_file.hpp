#pragma once

#include "text/error.hpp"

#include <string>
#include <vector>

/// Frames as cameras write them: JPEG with what the camera knows in EXIF.
namespace poquito::storage {

/// 8-bit sRGB, rows of red, green, blue from the top.
struct FramePicture {
    int width = 0;
    int height = 0;
    std::vector<unsigned char> rgb;
};

struct FrameExif {
    std::string camera;
    std::string lens;
    std::string time;            // local time, ISO 8601
    double f_number = 8;         // as the camera shows it
    double shutter = 1.0 / 125;  // s
    double iso = 100;
    double focal_length = 50;     // mm, as engraved
    bool flash = false;           // fired
    double subject_distance = 0;  // mm from the sensor; 0: not known
    std::string remark;           // as UserComment
    int orientation = 1;          // as EXIF has it, 0: not known
    bool known = true;            // false: the file says nothing
};

/// JPEG of ISO/IEC 10918 (libjpeg) with the tags of EXIF 2.3.
text::Expected<std::string> frame_file(const FramePicture& picture, const FrameExif& exif);

/// The picture alone, without anything of a camera.
text::Expected<std::string> picture_file(const FramePicture& picture);

/// What stands in the EXIF of a frame; the error says what is wrong with the bytes.
text::Expected<FrameExif> exif_of(const std::string& bytes);

}  // namespace poquito::storage
