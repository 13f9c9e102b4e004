#include "desk/session/picture_file.hpp"

#include "desk/text/to_qt.hpp"
#include "storage/frame_reader.hpp"

#include <QCoreApplication>
#include <QFile>
#include <QImageReader>
#include <QTransform>

#include <fcntl.h>

#include <algorithm>
#include <optional>

namespace poquito::desk {
namespace {

/// Every so many pixels of a file that Qt does not read itself, rows as they are decoded.
PictureRead sampled(const std::filesystem::path& file, QSize within) {
    QImage image;
    int every = 1, row = 0;
    const auto read = storage::read_rows(
        file, {.begin =
                   [&](int across, int down) {
                       if (!within.isEmpty())
                           every = std::max(1, std::max(across / within.width(), down / within.height()));
                       image = QImage(across / every, down / every, QImage::Format_RGB888);
                       return !image.isNull();
                   },
               .row =
                   [&](const std::uint8_t* rgb) {
                       const int y = row++;
                       if (y % every != 0 || y / every >= image.height()) return true;
                       auto* to = image.scanLine(y / every);
                       for (int x = 0; x < image.width(); ++x, to += 3)
                           std::copy_n(rgb + 3 * static_cast<std::ptrdiff_t>(x) * every, 3, to);
                       return true;
                   }});
    if (!read) return {.image = {}, .problem = toQt(read.error().problem)};
    return {.image = image, .problem = {}};
}

/// By Qt's own readers, which are quick and whose memory is bounded. Empty: not a format of theirs.
std::optional<PictureRead> byQt(const std::filesystem::path& path, Turned turned, QSize within) {
    QFile file;
    const int descriptor = ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
    if (descriptor < 0 || !file.open(descriptor, QIODevice::ReadOnly, QFileDevice::AutoCloseHandle))
        return std::nullopt;
    QImageReader reader(&file);
    static const QList<QByteArray> formats = {"jpeg", "png", "bmp", "pbm", "pgm", "ppm"};
    if (!formats.contains(reader.format())) return std::nullopt;
    constexpr int most_memory = 512;  // MB: a hundred megapixels and some room
    QImageReader::setAllocationLimit(most_memory);
    reader.setAutoTransform(turned == Turned::upright);
    const QSize size = reader.size();
    const bool larger = size.width() > within.width() || size.height() > within.height();
    if (!within.isEmpty() && size.isValid() && larger)
        reader.setScaledSize(size.scaled(within, Qt::KeepAspectRatio).expandedTo({1, 1}));
    PictureRead read{.image = reader.read(), .problem = {}};
    if (read.image.isNull()) read.problem = reader.errorString();
    return read;
}

}  // namespace

PictureRead readPicture(const std::filesystem::path& file, Turned turned, QSize within) {
    std::error_code failed;
    if (!std::filesystem::is_regular_file(file, failed))
        return {.image = {}, .problem = QCoreApplication::translate("PictureFile", "no such file")};
    if (auto read = byQt(file, turned, within)) return *std::move(read);
    auto read = sampled(file, within);
    if (turned == Turned::upright && !read.image.isNull())
        read.image = turnedUp(read.image, storage::exif_of_file(file).orientation);
    return read;
}

QImage turnedUp(const QImage& image, int orientation) {
    const bool mirrored = orientation == 2 || orientation == 7, flipped = orientation == 4 || orientation == 5;
    const auto seen = mirrored || flipped ? image.mirrored(mirrored, flipped) : image;
    const int quarters = orientation == 3 ? 2 : orientation == 8 ? 3 : orientation >= 5 && orientation <= 7 ? 1 : 0;
    return quarters == 0 ? seen : seen.transformed(QTransform().rotate(90 * quarters));
}

}  // namespace poquito::desk
