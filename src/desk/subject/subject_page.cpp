#include "desk/subject/subject_page.hpp"

#include "desk/subject/matters_leaf.hpp"
#include "desk/subject/plans_leaf.hpp"
#include "desk/subject/staging_leaf.hpp"
#include "desk/subject/subject_leaf.hpp"
#include "desk/toolkit/leaves.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

SubjectPage::SubjectPage(Document& document, SubjectLibrary& library, QWidget* parent)
    : StationPage(document, parent), leaves_(new Leaves(this)), subject_(new SubjectLeaf(document, library, this)) {
    auto* column = addColumn(1);
    column->addWidget(leaves_, 1);
    leaves_->addLeaf({"subjectTab", tr("Subject"), tr("Size, form, movement, and how much of the frame it fills")},
                     subject_);
    auto* staging = new StagingLeaf(document, this);
    auto* matters = new MattersLeaf(document, this);
    leaves_->addLeaf({"mattersTab", tr("What matters"), tr("What has to be sharp, how far you go, what goes first")},
                     matters);
    connect(staging, &StagingLeaf::problemFound, this, &SubjectPage::problemFound);
    connect(matters, &MattersLeaf::limitsKept, this, &SubjectPage::limitsKept);
    auto* plans = new PlansLeaf(document, this);
    leaves_->addLeaf({"plansTab", tr("Whole plans"), tr("Each school's complete settings side by side")}, plans);
    leaves_->addLeaf({"stagingTab", tr("Table"), tr("What stands in the picture beside it, seen from above")}, staging);
    connect(leaves_, &Leaves::turned, this, [this, plans] {
        refresh();
        if (leaves_->currentLeaf() == plans) plans->takeKeys();
    });
    connect(subject_, &SubjectLeaf::problemFound, this, &SubjectPage::problemFound);
}

bool SubjectPage::loadHeightMap(const QString& path) { return subject_->loadHeightMap(path); }

void SubjectPage::showPlans() {
    constexpr int plans = 2;
    leaves_->turnTo(plans);
    refresh();
}

void SubjectPage::showShot(const Shot&, const plan::Report&) {
    static_cast<StationPage*>(leaves_->currentLeaf())->refresh();
}

}  // namespace poquito::desk

#include "desk/subject/moc_subject_page.moc"
