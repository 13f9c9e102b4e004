#pragma once

#include "desk/session/document.hpp"
#include "desk/session/picture_queue.hpp"

#include <functional>
#include <memory>
#include <optional>
#include <utility>

namespace poquito::desk {

/// Something about the selected shot that takes longer than an edit may: looked for beside the interface, the newest
/// edit only. What was found before stays at hand until then, as long as the shot is the same.
template <class Found>
class ShotTask {
  public:
    using Find = std::function<Found(const advice::Assessment&)>;
    /// `find` runs on another thread and knows nothing but what it is given; `changed` on the interface's.
    ShotTask(const Document& document, Find find, std::function<void()> changed)
        : document_(document), find_(std::move(find)), changed_(std::move(changed)) {}

    /// Looks, where the shot is another than was looked at.
    void refresh() {
        const auto shot = now();
        if (!shot || shot == asked_) return;
        asked_ = shot;
        queue_.render([this, shot](const auto&) {
            return [this, shot, found = find_(*shot)]() mutable {
                // Kept where another is selected meanwhile: one comes back to it, and it is not looked for again.
                of_ = shot;
                found_ = std::move(found);
                if (shot == now()) changed_();
            };
        });
    }
    /// Null: nothing yet.
    const Found* found() const {
        const auto shot = now();
        return shot && of_ && of_->report.id == shot->report.id && found_ ? &*found_ : nullptr;
    }
    /// Whether that is of the shot as it is.
    bool isCurrent() const { return of_ && of_ == now(); }

  private:
    using Pointer = std::shared_ptr<const advice::Assessment>;
    Pointer now() const { return document_.shot() ? document_.sharedAssessment(document_.current()) : nullptr; }

    const Document& document_;
    Find find_;
    std::function<void()> changed_;
    Pointer asked_, of_;
    std::optional<Found> found_;
    PictureQueue queue_;  // last: its work is over before the rest goes
};

}  // namespace poquito::desk
