#include "desk/day/day_sheet.hpp"

#include "desk/day/outlets_tab.hpp"
#include "desk/day/packing_tab.hpp"
#include "desk/day/seasons_tab.hpp"
#include "desk/day/sets_tab.hpp"
#include "desk/day/sun_tab.hpp"
#include "desk/drawing/shot_pictures.hpp"
#include "desk/session/view_set_library.hpp"
#include "desk/toolkit/tabs.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

DaySheet::DaySheet(Document& document, RunController& runs, LogController& log, QWidget* parent)
    : StationPage(document, parent),
      library_(new ViewSetLibrary({}, this)),
      pictures_(new ShotPictures(document, this)),
      tabs_(new Tabs(this, Tabs::Style::parts)),
      hours_(new HoursTab(document, runs, this)) {
    addColumn(1)->addWidget(tabs_, 1);
    tabs_->addTab({"hoursTab", tr("Hours"), tr("The shots over the hours, and the order that costs least")}, hours_);
    connect(hours_, &HoursTab::shotWanted, this, &DaySheet::shotWanted);
    connect(hours_, &HoursTab::addWanted, this, &DaySheet::addWanted);
    connect(hours_, &HoursTab::runShown, this, &DaySheet::runShown);
    tabs_->addTab({"sunTab", tr("Sun"), tr("Where it stands over the set, when which light comes, how long it holds")},
                  new SunTab(document, log, this));
    auto* sets = new SetsTab(document, *pictures_, *library_, this);
    tabs_->addTab({"setsTab", tr("Sets"), tr("Things by their views, pictures by their plates, and what stays alike")},
                  sets);
    connect(sets, &SetsTab::shotWanted, this, &DaySheet::shotWanted);
    connect(sets, &SetsTab::problemFound, this, &DaySheet::problemFound);
    auto* outlets = new OutletsTab(document, *pictures_, this);
    tabs_->addTab({"outletsTab", tr("Outlets"), tr("Shops, journals, archives: which picture goes where, and its cut")},
                  outlets);
    connect(outlets, &OutletsTab::shotWanted, this, &DaySheet::shotWanted);
    tabs_->addTab({"packingTab", tr("Packing"), tr("What comes along, and home again")},
                  new PackingTab(document, this));
    tabs_->addTab({"seasonsTab", tr("Seasons"), tr("What is there when: what you logged first, then what is common")},
                  new SeasonsTab(document, log, this));
    connect(tabs_, &Tabs::turned, this, &DaySheet::refresh);
}

const std::optional<DayPlan>& DaySheet::plan() const { return hours_->plan(); }
bool DaySheet::isSettled() const { return hours_->isSettled(); }
bool DaySheet::picturesAreMade() const { return pictures_->isIdle(); }
bool DaySheet::exportPaper(const QString& path) { return hours_->exportPaper(path); }

void DaySheet::showShot(const Shot&, const plan::Report&) { static_cast<StationPage*>(tabs_->currentTab())->refresh(); }

}  // namespace poquito::desk

#include "desk/day/moc_day_sheet.moc"
