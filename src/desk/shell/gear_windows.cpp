#include "desk/shell/gear_windows.hpp"

#include "desk/kit/measure_dialog.hpp"
#include "desk/reach/reach_finder.hpp"
#include "shoot/change/kit_edit.hpp"

#include <QMessageBox>

#include <utility>

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
    // Not in the middle of the edit that met it.
    connect(bag_, &Bag::changedElsewhere, this, &GearWindows::askWhoseBag, Qt::QueuedConnection);
    if (!bag_->problem().isEmpty()) Q_EMIT problemFound(bag_->problem());
    return *bag_;
}

void GearWindows::askWhoseBag() {
    if (std::exchange(asking_, true)) return;
    QMessageBox box(
        QMessageBox::NoIcon, tr("The bag was changed in two windows"),
        tr("Another window changed your bag since this one read it. Which of the two is to stay?\n"
           "Neither is lost: Ctrl+Z in the kit room brings this one back, the other is kept as a file beside it."),
        QMessageBox::NoButton, window_);
    box.setObjectName(QStringLiteral("whoseBagQuestion"));
    const auto* ours = box.addButton(tr("The bag of this window"), QMessageBox::AcceptRole);
    const auto* theirs = box.addButton(tr("The bag of the other"), QMessageBox::ActionRole);
    box.addButton(tr("Ask again"), QMessageBox::RejectRole);
    box.exec();
    asking_ = false;
    if (box.clickedButton() == theirs) bag_->takeTheirs();
    if (box.clickedButton() == ours) bag_->keepOurs();
}

void GearWindows::findSetup() {
    if (!document_.shot()) return;
    if (!finder_) finder_ = new ReachFinder(document_, bag(), window_);
    finder_->begin();
    bringUp(*finder_);
}

void GearWindows::measure() {
    if (!document_.shot()) return;
    if (!measure_) measure_ = new MeasureDialog(document_, bag(), window_);
    measure_->begin();
    bringUp(*measure_);
}

}  // namespace poquito::desk

#include "desk/shell/moc_gear_windows.moc"
