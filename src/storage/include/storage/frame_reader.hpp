#pragma once

#include "storage/frame_file.hpp"
#include "text/error.hpp"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <optional>
#include <string>

/// Frames as cameras and raw converters leave them: JPEG (libjpeg), TIFF (libtiff), PNG (libpng) and raw files (LibRaw,
/// half size, developed plainly with the camera's white balance), a row at a time, as the file lies: its orientation is
/// told by exif_of_file.
namespace poquito::storage {

/// A row as a JPEG has it: luma, and colours of which one goes to 2^`shift` pixels; null: grey. 8 bits, as the format
/// has them (ITU-R BT.601, full range).
struct LumaRow {
    const std::uint8_t* luma = nullptr;
    const std::uint8_t *blue = nullptr, *red = nullptr;  // less luma, about 128
    int shift = 0;
};

struct RowSink {
    /// Pixels. False: no more is wanted.
    std::function<bool(int width, int height)> begin;
    /// Red, green, blue of 8 bits by the curve of sRGB, from the top. False: no more is wanted.
    std::function<bool(const std::uint8_t* rgb)> row;
    /// In the place of `row` for files that have it so: nothing is made of colours that nobody looks at. Empty: never.
    std::function<bool(const LumaRow&)> luma = {};
};

/// Empty: all rows were given, or no more wanted. Else what is wrong with the file; rows may have been given before
/// that was seen. Damaged and cut off files are wrong.
text::Expected<void> read_rows(const std::filesystem::path& path, const RowSink& sink);

/// What its EXIF says; numbers that it does not give are 0, texts empty.
FrameExif exif_of_file(const std::filesystem::path& path);

/// The JPEG that a raw file brings to be looked at, as it lies, not turned. Empty: it has none.
std::string embedded_preview(const std::filesystem::path& path);

/// Files that may be frames, by their names' ends.
bool may_be_frame(const std::filesystem::path& path);

}  // namespace poquito::storage
