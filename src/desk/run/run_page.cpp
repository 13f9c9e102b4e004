#include "desk/run/run_page.hpp"

#include "desk/run/chance_tab.hpp"
#include "desk/run/checklist_tab.hpp"
#include "desk/run/cost_tab.hpp"
#include "desk/run/print_tab.hpp"
#include "desk/run/stack_tab.hpp"
#include "desk/run/steps_tab.hpp"
#include "desk/toolkit/tabs.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

RunPage::RunPage(Document& document, RunController& runs, SubjectLibrary& library, QWidget* parent)
    : StationPage(document, parent) {
    auto* column = addColumn(1);
    tabs_ = new Tabs(this);
    column->addWidget(tabs_, 1);
    auto* checklist = new ChecklistTab(document, runs, library, this);
    tabs_->addTab({"checklistTab", tr("Checklist"), tr("What to look at before the first frame; then run it")},
                  checklist);
    connect(checklist, &ChecklistTab::runShown, this, &RunPage::runShown);
    connect(checklist, &ChecklistTab::problemFound, this, &RunPage::problemFound);
    auto* stack = new StackTab(document, this);
    tabs_->addTab({"stackTab", tr("Stack"), tr("Its frames on the subject, and what moves")}, stack);
    connect(stack, &StackTab::slicePointsWanted, this, &RunPage::slicePointsWanted);
    auto* chance = new ChanceTab(document, runs, library, this);
    tabs_->addTab({"chanceTab", tr("Chance"), tr("How likely a try is sharp, what would help, and counting them")},
                  chance);
    connect(chance, &ChanceTab::runShown, this, &RunPage::runShown);
    tabs_->addTab({"costTab", tr("Cost"), tr("Minutes, card, batteries, and the work afterwards")},
                  new CostTab(document, this));
    auto* steps = new StepsTab(document, this);
    tabs_->addTab({"stepsTab", tr("Step sizes"), tr("How wide the steps of the camera's own bracket are")}, steps);
    connect(steps, &StepsTab::problemFound, this, &RunPage::problemFound);
    tabs_->addTab({"sheetTab", tr("Run sheet"), tr("This shot's; that of the day goes out from the day")},
                  new PrintTab(document, this));
    connect(tabs_, &Tabs::turned, this, &RunPage::refresh);
}

void RunPage::showShot(const Shot&, const plan::Report&) { static_cast<StationPage*>(tabs_->currentTab())->refresh(); }

}  // namespace poquito::desk

#include "desk/run/moc_run_page.moc"
