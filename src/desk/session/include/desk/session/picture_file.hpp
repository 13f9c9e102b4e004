#pragma once

#include <QImage>
#include <QSize>
#include <QString>

#include <filesystem>

/// The desk's one door for pictures from files. From any thread.
namespace poquito::desk {

struct PictureRead {
    QImage image;     // null: it could not be read
    QString problem;  // then: why
};

/// As it lies, or turned the way up that its orientation says.
enum class Turned { asItLies, upright };

/// A regular file of this machine: JPEG, PNG and the plain bitmaps by Qt, within bounds of memory; all else by
/// storage::read_rows. `within`: no larger than it has to be to fill that; empty: all pixels.
PictureRead readPicture(const std::filesystem::path& file, Turned turned, QSize within = {});

/// By EXIF's orientation; turns by quarters and mirrors.
QImage turnedUp(const QImage& image, int orientation);

}  // namespace poquito::desk
