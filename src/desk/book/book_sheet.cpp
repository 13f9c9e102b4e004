#include "desk/book/book_sheet.hpp"

#include "desk/book/lessons_leaf.hpp"
#include "desk/book/log_leaf.hpp"
#include "desk/book/protocols_leaf.hpp"
#include "desk/book/review_leaf.hpp"
#include "desk/kit/kit_room.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/toolkit/leaves.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

BookSheet::BookSheet(Document& document, Bag& bag, const PracticeLeaf::Desks& desks, QWidget* parent)
    : QWidget(parent),
      leaves_(new Leaves(this, Leaves::Style::parts)),
      kit_(new KitRoom(document, bag, this)),
      log_(new LogLeaf(document, desks.writer, this)),
      lessons_(new LessonsLeaf(document, desks.writer, this)),
      protocols_(new ProtocolsLeaf(desks.writer.book(), this)),
      review_(new ReviewLeaf(desks.writer.book(), this)),
      practice_(new PracticeLeaf(document, desks, this)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(leaves_);
    leaves_->addLeaf({"kitTab", tr("Gear"), tr("Your bag, and what this shoot carries of it")}, kit_);
    leaves_->addLeaf({"logTab", tr("Log"), tr("What was run, proofed and measured, in all shoots")}, log_);
    leaves_->addLeaf({"lessonsTab", tr("What it teaches"), tr("With its cases and how sure they are")}, lessons_);
    leaves_->addLeaf({"protocolsTab", tr("Series"), tr("What is to look the same for months, and what of it drifts")},
                     protocols_);
    leaves_->addLeaf({"reviewTab", tr("Review"),
                      tr("A day looked back on: planned and happened, what it cost, what to do "
                         "otherwise")},
                     review_);
    leaves_->addLeaf({"practiceTab", tr("Practice"), tr("Exercises of ten minutes, judged by their frames")},
                     practice_);
    connect(practice_, &PracticeLeaf::shotWanted, this, &BookSheet::shotWanted);
    connect(leaves_, &Leaves::turned, this, [this] {
        refresh();
        Q_EMIT turned();
    });
    connect(log_, &LogLeaf::shotWanted, this, &BookSheet::shotWanted);
}

bool BookSheet::showsKit() const { return leaves_->currentLeaf() == kit_; }

void BookSheet::turnToKit() { leaves_->turnTo(0); }

void BookSheet::turnToReview() {
    constexpr int place = 4;
    leaves_->turnTo(place);
}

void BookSheet::refresh() {
    if (leaves_->currentLeaf() == log_) log_->refresh();
    if (leaves_->currentLeaf() == lessons_) lessons_->refresh();
    if (leaves_->currentLeaf() == protocols_) protocols_->refresh();
    if (leaves_->currentLeaf() == review_) review_->refresh();
    if (leaves_->currentLeaf() == practice_) practice_->refresh();
}

}  // namespace poquito::desk

#include "desk/book/moc_book_sheet.moc"
