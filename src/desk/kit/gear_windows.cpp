#include "desk/kit/gear_windows.hpp"

#include "desk/kit/measure_desk.hpp"
#include "desk/reach/reach_finder.hpp"
#include "shoot/kit_edit.hpp"

namespace poquito::desk {
namespace {

void bringUp(QWidget& window) {
    window.show();
    window.raise();
    window.activateWindow();
}

}  // namespace

GearWindows::GearWindows(Document& document, QWidget* window) : QObject(window), document_(document), window_(window) {
    // A shoot has a copy of the gear: what it finds out about a piece is true of the piece in the bag as well.
    connect(&document, &Document::learned, this, [this](const gear::Kit& before, const gear::Kit& after) {
        bag().document().edit({tr("What a shoot found out")},
                              [&](shoot::Shoot& own) { shoot::carry_learned(before, after, own.kit); });
    });
}

Bag& GearWindows::bag() {
    if (bag_) return *bag_;
    bag_ = new Bag({}, this);
    connect(bag_, &Bag::problemChanged, this, [this] {
        if (!bag_->problem().isEmpty()) Q_EMIT problemFound(bag_->problem());
    });
    if (!bag_->problem().isEmpty()) Q_EMIT problemFound(bag_->problem());
    return *bag_;
}

void GearWindows::findSetup() {
    if (!document_.shot()) return;
    if (!finder_) finder_ = new ReachFinder(document_, bag(), window_);
    finder_->begin();
    bringUp(*finder_);
}

void GearWindows::measure() {
    if (!document_.shot()) return;
    if (!measure_) measure_ = new MeasureDesk(document_, bag(), window_);
    measure_->begin();
    bringUp(*measure_);
}

}  // namespace poquito::desk

#include "kit/moc_gear_windows.moc"
