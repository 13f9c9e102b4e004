#pragma once

#include "desk/session/worker.hpp"

#include "desk/session/picture_file.hpp"

#include <QCache>
#include <QHash>
#include <QImage>
#include <QObject>
#include <QSet>

#include <filesystem>

namespace poquito::desk {

/// The frames' pictures, read beside the interface and kept for a while: as small as a mark, as large as a screen, and
/// the file's own pixels. All the right way up.
class FramePictures : public QObject {
    Q_OBJECT
  public:
    enum class Kind { thumbnail, preview, pixels };

    explicit FramePictures(QObject* parent = nullptr);

    /// Null: it comes later, and arrived() says so; or the file cannot be read.
    QImage picture(const std::filesystem::path& file, Kind kind);
    /// Read in the background without being asked for yet.
    void ahead(const std::filesystem::path& file);
    bool isIdle() const { return pending_.isEmpty(); }

    /// By the file, at once; what `picture` has of it later. Null: it cannot be read.
    static QImage read(const std::filesystem::path& file, Kind kind);

  Q_SIGNALS:
    void arrived(const QString& file);

  private:
    static QString keyOf(const std::filesystem::path& file, Kind kind);
    void order(const std::filesystem::path& file, Kind kind, int priority);

    QCache<QString, QImage> kept_;  // cost in kB
    QSet<QString> pending_, bad_;
    Worker worker_{2};  // last: its jobs use the rest
};

/// As a camera that was turned says it by EXIF's orientation, of a place of the file: px, in the picture the right way
/// up. `size` of the file.
QRectF turnedUp(const QRectF& place, QSize size, int orientation);
QSize turnedUp(QSize size, int orientation);

}  // namespace poquito::desk
