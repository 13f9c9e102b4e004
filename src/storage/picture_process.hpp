#pragma once

#include "storage/frame_reader.hpp"

#include <string>

/// What poquito-pictures reads of a file in a process of its own, which may use so much memory and time and no more,
/// and whose end is nobody else's. It is given the file opened, and no name. All throw WrongPicture with what went
/// wrong.
namespace poquito::storage {

enum class RowsOf { tiff, raw };
/// `file`: a descriptor of a regular file; its position is of no matter.
void rows_apart(int file, RowsOf format, const RowSink& sink);
FrameExif exif_apart(int file);
std::string preview_apart(int file);
std::string plan_apart(const std::string& bytes);

}  // namespace poquito::storage
