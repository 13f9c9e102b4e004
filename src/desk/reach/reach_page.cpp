#include "desk/reach/reach_page.hpp"

#include "desk/reach/stand_leaf.hpp"
#include "desk/reach/train_leaf.hpp"
#include "desk/toolkit/leaves.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

ReachPage::ReachPage(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(1);
    leaves_ = new Leaves(this);
    column->addWidget(leaves_, 1);
    auto* train = new TrainLeaf(document, this);
    connect(train, &TrainLeaf::pieceDragged, this, &ReachPage::pieceDragged);
    connect(train, &TrainLeaf::pieceDropped, this, &ReachPage::pieceDropped);
    leaves_->addLeaf({"trainTab", tr("Train"), tr("Camera, lens, what is between and before them, and the ring")},
                     train);
    leaves_->addLeaf({"standTab", tr("Stand"), tr("Where the camera stands, on what, and what it then sees behind")},
                     new StandLeaf(document, this));
    connect(leaves_, &Leaves::turned, this, &ReachPage::refresh);
}

void ReachPage::showShot(const Shot&, const plan::Report&) {
    static_cast<StationPage*>(leaves_->currentLeaf())->refresh();
}

}  // namespace poquito::desk

#include "desk/reach/moc_reach_page.moc"
