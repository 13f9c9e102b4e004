#include "desk/session/frame_pictures.hpp"

#include "desk/text/to_qt.hpp"
#include "storage/frame_reader.hpp"
#include "text/stored_path.hpp"

#include <QTransform>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr int thumbnail_width = 96, preview_width = 1600;
constexpr int most_kept = 320000;  // kB: forty previews, or the pixels of three large frames

/// Of a file of that size, px: takes a place of it to the picture the right way up. EXIF 2.32, table of Orientation.
QTransform upright(QSize size, int orientation) {
    const double w = size.width(), h = size.height();
    switch (orientation) {
        case 2:
            return {-1, 0, 0, 1, w, 0};
        case 3:
            return {-1, 0, 0, -1, w, h};
        case 4:
            return {1, 0, 0, -1, 0, h};
        case 5:
            return {0, 1, 1, 0, 0, 0};
        case 6:
            return {0, 1, -1, 0, h, 0};
        case 7:
            return {0, -1, -1, 0, h, w};
        case 8:
            return {0, -1, 1, 0, 0, w};
        default:
            return {};
    }
}

}  // namespace

QSize turnedUp(QSize size, int orientation) { return orientation >= 5 && orientation <= 8 ? size.transposed() : size; }

QRectF turnedUp(const QRectF& place, QSize size, int orientation) { return upright(size, orientation).mapRect(place); }

FramePictures::FramePictures(QObject* parent) : QObject(parent), kept_(most_kept) {}

QString FramePictures::keyOf(const std::filesystem::path& file, Kind kind) {
    return QString::number(static_cast<int>(kind)) + QLatin1Char(' ') + toQt(text::StoredPath(file).text());
}

QImage FramePictures::read(const std::filesystem::path& file, Kind kind) {
    const int width = kind == Kind::thumbnail ? thumbnail_width : kind == Kind::preview ? preview_width : 0;
    const QSize within = width > 0 ? QSize(width, 1 << 16) : QSize();
    // What a raw file brings to be looked at is there at once; its own pixels are developed.
    QImage image;
    if (width > 0) {
        const auto bytes = storage::embedded_preview(file);
        image = QImage::fromData(reinterpret_cast<const uchar*>(bytes.data()), static_cast<int>(bytes.size()), "JPG");
        if (image.width() > width) image = image.scaledToWidth(width, Qt::SmoothTransformation);
        // A thumbnail stands for a preview no better than nothing.
        if (image.width() < std::min(width, preview_width / 2)) image = {};
    }
    if (image.isNull()) image = readPicture(file, Turned::asItLies, within).image;
    if (image.isNull()) return image;
    return turnedUp(image, storage::exif_of_file(file).orientation).convertToFormat(QImage::Format_RGB32);
}

QImage FramePictures::picture(const std::filesystem::path& file, Kind kind) {
    if (const auto* image = kept_.object(keyOf(file, kind))) return *image;
    order(file, kind, kind == Kind::thumbnail ? 0 : 2);
    return {};
}

void FramePictures::ahead(const std::filesystem::path& file) {
    if (!kept_.contains(keyOf(file, Kind::preview))) order(file, Kind::preview, 1);
}

void FramePictures::order(const std::filesystem::path& file, Kind kind, int priority) {
    const auto key = keyOf(file, kind);
    if (pending_.contains(key) || bad_.contains(key)) return;
    pending_.insert(key);
    worker_.add(
        [this, file, kind, key] {
            auto image = read(file, kind);
            QMetaObject::invokeMethod(
                this,
                [this, file, key, image] {
                    pending_.remove(key);
                    if (image.isNull())
                        bad_.insert(key);
                    else
                        kept_.insert(key, new QImage(image), std::max<qsizetype>(1, image.sizeInBytes() / 1024));
                    Q_EMIT arrived(toQt(file.string()));
                },
                Qt::QueuedConnection);
        },
        priority);
}

}  // namespace poquito::desk

#include "desk/session/moc_frame_pictures.moc"
