#include "desk/day/day_sheet.hpp"

#include "desk/day/outlets_leaf.hpp"
#include "desk/day/packing_leaf.hpp"
#include "desk/day/seasons_leaf.hpp"
#include "desk/day/sets_leaf.hpp"
#include "desk/day/sun_leaf.hpp"
#include "desk/drawing/shot_pictures.hpp"
#include "desk/session/view_set_library.hpp"
#include "desk/toolkit/leaves.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

DaySheet::DaySheet(Document& document, RunDesk& runs, LogDesk& log, QWidget* parent)
    : StationPage(document, parent),
      library_(new ViewSetLibrary({}, this)),
      pictures_(new ShotPictures(document, this)),
      leaves_(new Leaves(this, Leaves::Style::parts)),
      hours_(new HoursLeaf(document, runs, this)) {
    addColumn(1)->addWidget(leaves_, 1);
    leaves_->addLeaf({"hoursTab", tr("Hours"), tr("The shots over the hours, and the order that costs least")}, hours_);
    connect(hours_, &HoursLeaf::shotWanted, this, &DaySheet::shotWanted);
    connect(hours_, &HoursLeaf::addWanted, this, &DaySheet::addWanted);
    connect(hours_, &HoursLeaf::runShown, this, &DaySheet::runShown);
    leaves_->addLeaf(
        {"sunTab", tr("Sun"), tr("Where it stands over the set, when which light comes, how long it holds")},
        new SunLeaf(document, log, this));
    auto* sets = new SetsLeaf(document, *pictures_, *library_, this);
    leaves_->addLeaf(
        {"setsTab", tr("Sets"), tr("Things by their views, pictures by their plates, and what stays alike")}, sets);
    connect(sets, &SetsLeaf::shotWanted, this, &DaySheet::shotWanted);
    connect(sets, &SetsLeaf::problemFound, this, &DaySheet::problemFound);
    auto* outlets = new OutletsLeaf(document, *pictures_, this);
    leaves_->addLeaf(
        {"outletsTab", tr("Outlets"), tr("Shops, journals, archives: which picture goes where, and its cut")}, outlets);
    connect(outlets, &OutletsLeaf::shotWanted, this, &DaySheet::shotWanted);
    leaves_->addLeaf({"packingTab", tr("Packing"), tr("What comes along, and home again")},
                     new PackingLeaf(document, this));
    leaves_->addLeaf(
        {"seasonsTab", tr("Seasons"), tr("What is there when: what you logged first, then what is common")},
        new SeasonsLeaf(document, log, this));
    connect(leaves_, &Leaves::turned, this, &DaySheet::refresh);
}

const std::optional<DayPlan>& DaySheet::plan() const { return hours_->plan(); }
bool DaySheet::isSettled() const { return hours_->isSettled(); }
bool DaySheet::picturesAreMade() const { return pictures_->isIdle(); }
bool DaySheet::exportSheet(const QString& path) { return hours_->exportSheet(path); }

void DaySheet::showShot(const Shot&, const plan::Report&) {
    static_cast<StationPage*>(leaves_->currentLeaf())->refresh();
}

}  // namespace poquito::desk

#include "desk/day/moc_day_sheet.moc"
