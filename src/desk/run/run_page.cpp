#include "desk/run/run_page.hpp"

#include "desk/run/chance_leaf.hpp"
#include "desk/run/checklist_leaf.hpp"
#include "desk/run/cost_leaf.hpp"
#include "desk/run/sheet_leaf.hpp"
#include "desk/run/stack_leaf.hpp"
#include "desk/run/steps_leaf.hpp"
#include "desk/toolkit/leaves.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

RunPage::RunPage(Document& document, RunDesk& runs, SubjectLibrary& library, QWidget* parent)
    : StationPage(document, parent) {
    auto* column = addColumn(1);
    leaves_ = new Leaves(this);
    column->addWidget(leaves_, 1);
    auto* checklist = new ChecklistLeaf(document, runs, library, this);
    leaves_->addLeaf({"checklistTab", tr("Checklist"), tr("What to look at before the first frame; then run it")},
                     checklist);
    connect(checklist, &ChecklistLeaf::runShown, this, &RunPage::runShown);
    connect(checklist, &ChecklistLeaf::problemFound, this, &RunPage::problemFound);
    auto* stack = new StackLeaf(document, this);
    leaves_->addLeaf({"stackTab", tr("Stack"), tr("Its frames on the subject, and what moves")}, stack);
    connect(stack, &StackLeaf::slicePointsWanted, this, &RunPage::slicePointsWanted);
    auto* chance = new ChanceLeaf(document, runs, library, this);
    leaves_->addLeaf({"chanceTab", tr("Chance"), tr("How likely a try is sharp, what would help, and counting them")},
                     chance);
    connect(chance, &ChanceLeaf::runShown, this, &RunPage::runShown);
    leaves_->addLeaf({"costTab", tr("Cost"), tr("Minutes, card, batteries, and the work afterwards")},
                     new CostLeaf(document, this));
    auto* steps = new StepsLeaf(document, this);
    leaves_->addLeaf({"stepsTab", tr("Step sizes"), tr("How wide the steps of the camera's own bracket are")}, steps);
    connect(steps, &StepsLeaf::problemFound, this, &RunPage::problemFound);
    leaves_->addLeaf({"sheetTab", tr("Run sheet"), tr("This shot's; that of the day goes out from the day")},
                     new SheetLeaf(document, this));
    connect(leaves_, &Leaves::turned, this, &RunPage::refresh);
}

void RunPage::showShot(const Shot&, const plan::Report&) {
    static_cast<StationPage*>(leaves_->currentLeaf())->refresh();
}

}  // namespace poquito::desk

#include "desk/run/moc_run_page.moc"
