#pragma once

#include "desk/session/picture_queue.hpp"

#include <QHash>
#include <QImage>
#include <QString>

#include <memory>

namespace poquito::advice {
struct Assessment;
}

namespace poquito::desk {

class Document;

/// Small finder pictures of all shots of a shoot, made one after the other beside the interface, kept until their shot
/// changes.
class ShotPictures : public QObject {
    Q_OBJECT
  public:
    explicit ShotPictures(Document& document, QObject* parent = nullptr);

    static constexpr int picture_width = 300;  // px: of a large cell, and of its cut

    /// The newest there is; null: none yet. Where the shot has changed since, another is on its way.
    const QImage* picture(int shot);
    bool isIdle() const { return queue_.isIdle(); }

  Q_SIGNALS:
    void arrived();

  private:
    struct Kept {
        std::shared_ptr<const advice::Assessment> of;  // held, so that no other has its address
        QImage image;
    };
    void makeNext();

    Document& document_;
    QHash<QString, Kept> kept_;  // by id
    QStringList wanted_;         // ids
    PictureQueue queue_;         // last: its work is over before the rest goes
};

}  // namespace poquito::desk
