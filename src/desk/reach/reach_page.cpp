#include "desk/reach/reach_page.hpp"

#include "desk/reach/stand_tab.hpp"
#include "desk/reach/train_tab.hpp"
#include "desk/toolkit/tabs.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

ReachPage::ReachPage(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(1);
    tabs_ = new Tabs(this);
    column->addWidget(tabs_, 1);
    auto* train = new TrainTab(document, this);
    connect(train, &TrainTab::pieceDragged, this, &ReachPage::pieceDragged);
    connect(train, &TrainTab::pieceDropped, this, &ReachPage::pieceDropped);
    tabs_->addTab({"trainTab", tr("Train"), tr("Camera, lens, what is between and before them, and the ring")}, train);
    tabs_->addTab({"standTab", tr("Stand"), tr("Where the camera stands, on what, and what it then sees behind")},
                  new StandTab(document, this));
    connect(tabs_, &Tabs::turned, this, &ReachPage::refresh);
}

void ReachPage::showShot(const Shot&, const plan::Report&) {
    static_cast<StationPage*>(tabs_->currentTab())->refresh();
}

}  // namespace poquito::desk

#include "desk/reach/moc_reach_page.moc"
