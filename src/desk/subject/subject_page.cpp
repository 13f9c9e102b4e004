#include "desk/subject/subject_page.hpp"

#include "desk/subject/matters_tab.hpp"
#include "desk/subject/proposals_tab.hpp"
#include "desk/subject/staging_tab.hpp"
#include "desk/subject/subject_tab.hpp"
#include "desk/toolkit/tabs.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

SubjectPage::SubjectPage(Document& document, SubjectLibrary& library, QWidget* parent)
    : StationPage(document, parent), tabs_(new Tabs(this)), subject_(new SubjectTab(document, library, this)) {
    auto* column = addColumn(1);
    column->addWidget(tabs_, 1);
    tabs_->addTab({"subjectTab", tr("Subject"), tr("Size, form, movement, and how much of the frame it fills")},
                  subject_);
    auto* staging = new StagingTab(document, this);
    auto* matters = new MattersTab(document, this);
    tabs_->addTab({"mattersTab", tr("What matters"), tr("What has to be sharp, how far you go, what goes first")},
                  matters);
    connect(staging, &StagingTab::problemFound, this, &SubjectPage::problemFound);
    connect(matters, &MattersTab::limitsKept, this, &SubjectPage::limitsKept);
    auto* plans = new ProposalsTab(document, this);
    tabs_->addTab({"plansTab", tr("Whole plans"), tr("Each school's complete settings side by side")}, plans);
    tabs_->addTab({"stagingTab", tr("Table"), tr("What stands in the picture beside it, seen from above")}, staging);
    connect(tabs_, &Tabs::turned, this, [this, plans] {
        refresh();
        if (tabs_->currentTab() == plans) plans->takeKeys();
    });
    connect(subject_, &SubjectTab::problemFound, this, &SubjectPage::problemFound);
}

bool SubjectPage::loadHeightMap(const QString& path) { return subject_->loadHeightMap(path); }

void SubjectPage::showPlans() {
    constexpr int plans = 2;
    tabs_->turnTo(plans);
    refresh();
}

void SubjectPage::showShot(const Shot&, const plan::Report&) {
    static_cast<StationPage*>(tabs_->currentTab())->refresh();
}

}  // namespace poquito::desk

#include "desk/subject/moc_subject_page.moc"
