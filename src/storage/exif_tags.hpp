#pragma once

#include "storage/frame_file.hpp"

#include <exiv2/exif.hpp>

namespace poquito::storage {

/// What we know of what stands there; `known` where anything does.
FrameExif exif_from(const Exiv2::ExifData& data);

/// Where nothing is known.
FrameExif no_exif();

}  // namespace poquito::storage
