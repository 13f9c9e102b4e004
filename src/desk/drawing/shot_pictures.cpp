#include "desk/drawing/shot_pictures.hpp"

#include "desk/drawing/rendering.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"

namespace poquito::desk {

ShotPictures::ShotPictures(Document& document, QObject* parent) : QObject(parent), document_(document) {
    connect(&queue_, &PictureQueue::idle, this, &ShotPictures::makeNext);
    // Another shoot has other shots, whatever their ids.
    connect(&document, &Document::opened, this, [this] { kept_.clear(), wanted_.clear(); });
}

const QImage* ShotPictures::picture(int shot) {
    const auto id = toQt(std::as_const(document_.shoot().shots)[static_cast<std::size_t>(shot)].id);
    const auto found = kept_.constFind(id);
    const bool there = found != kept_.cend();
    if ((!there || found->of != document_.sharedAssessment(shot)) && !wanted_.contains(id)) {
        wanted_.append(id);
        makeNext();
    }
    return there && !found->image.isNull() ? &found->image : nullptr;
}

void ShotPictures::makeNext() {
    if (!queue_.isIdle()) return;
    while (!wanted_.isEmpty()) {
        const auto id = wanted_.takeFirst();
        for (int i = 0; i < document_.count(); ++i) {
            const auto of = document_.sharedAssessment(i);
            if (toQt(of->plan.shot.id) != id) continue;
            queue_.render([this, id, of](const std::function<bool()>&) -> PictureQueue::Show {
                auto image = thumbnail(of->plan.kit, of->plan.shot, of->report, picture_width, 0);
                return [this, id, of, image = std::move(image)] {
                    kept_[id] = {of, image};
                    Q_EMIT arrived();
                };
            });
            return;
        }
    }
}

}  // namespace poquito::desk

#include "desk/drawing/moc_shot_pictures.moc"
