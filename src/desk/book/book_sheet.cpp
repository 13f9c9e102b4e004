#include "desk/book/book_sheet.hpp"

#include "desk/book/lessons_tab.hpp"
#include "desk/book/log_tab.hpp"
#include "desk/book/protocols_tab.hpp"
#include "desk/book/review_tab.hpp"
#include "desk/kit/kit_room.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/toolkit/tabs.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

BookSheet::BookSheet(Document& document, Bag& bag, const PracticeTab::Controllers& controllers, QWidget* parent)
    : QWidget(parent),
      tabs_(new Tabs(this, Tabs::Style::parts)),
      kit_(new KitRoom(document, bag, this)),
      log_(new LogTab(document, controllers.writer, this)),
      lessons_(new LessonsTab(document, controllers.writer, this)),
      protocols_(new ProtocolsTab(controllers.writer.book(), this)),
      review_(new ReviewTab(controllers.writer.book(), this)),
      practice_(new PracticeTab(document, controllers, this)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(tabs_);
    tabs_->addTab({"kitTab", tr("Gear"), tr("Your bag, and what this shoot carries of it")}, kit_);
    tabs_->addTab({"logTab", tr("Log"), tr("What was run, proofed and measured, in all shoots")}, log_);
    tabs_->addTab({"lessonsTab", tr("What it teaches"), tr("With its cases and how sure they are")}, lessons_);
    tabs_->addTab({"protocolsTab", tr("Series"), tr("What is to look the same for months, and what of it drifts")},
                  protocols_);
    tabs_->addTab({"reviewTab", tr("Review"),
                   tr("A day looked back on: planned and happened, what it cost, what to do "
                      "otherwise")},
                  review_);
    tabs_->addTab({"practiceTab", tr("Practice"), tr("Exercises of ten minutes, judged by their frames")}, practice_);
    connect(practice_, &PracticeTab::shotWanted, this, &BookSheet::shotWanted);
    connect(tabs_, &Tabs::turned, this, [this] {
        refresh();
        Q_EMIT turned();
    });
    connect(log_, &LogTab::shotWanted, this, &BookSheet::shotWanted);
}

bool BookSheet::showsKit() const { return tabs_->currentTab() == kit_; }

void BookSheet::turnToKit() { tabs_->turnTo(0); }

void BookSheet::turnToReview() {
    constexpr int place = 4;
    tabs_->turnTo(place);
}

void BookSheet::refresh() {
    if (tabs_->currentTab() == log_) log_->refresh();
    if (tabs_->currentTab() == lessons_) lessons_->refresh();
    if (tabs_->currentTab() == protocols_) protocols_->refresh();
    if (tabs_->currentTab() == review_) review_->refresh();
    if (tabs_->currentTab() == practice_) practice_->refresh();
}

}  // namespace poquito::desk

#include "desk/book/moc_book_sheet.moc"
