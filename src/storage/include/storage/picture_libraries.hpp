#pragma once

#include "storage/frame_reader.hpp"

#include <cstdint>
#include <span>
#include <string>

/// What libtiff, LibRaw and Exiv2 read of a file that is in memory. None of the three can be kept within bounds of
/// memory and time, and each has ended a program over a damaged file: poquito-pictures calls these in a process of its
/// own, the fuzzers call them as they are, and nobody else does. All throw what is wrong, which need not be a
/// std::exception.
namespace poquito::storage {

using FileBytes = std::span<const std::uint8_t>;

/// A strip or a row of tiles in memory at a time.
void tiff_rows(FileBytes file, const RowSink& sink);
/// Developed plainly at half size, with the camera's white balance.
void raw_rows(FileBytes file, const RowSink& sink);
std::string raw_preview(FileBytes file);
/// Of any format that Exiv2 knows; throws where it knows none.
FrameExif library_exif(FileBytes file);
/// The shoot that the picture carries as XMP; empty: none.
std::string library_plan(FileBytes file);

}  // namespace poquito::storage
