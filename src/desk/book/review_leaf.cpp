#include "desk/book/review_leaf.hpp"

#include "desk/base/caption.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/book/log_desk.hpp"
#include "desk/book/review_page.hpp"
#include "desk/day/day_paper.hpp"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {

ReviewLeaf::ReviewLeaf(LogDesk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    auto* paper = paperOn(this);
    auto* column = new QVBoxLayout(paper);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    auto* bar = new QHBoxLayout;
    bar->addWidget(new QLabel(tr("Day of this shoot"), paper));
    day_ = new QComboBox(paper);
    nameControl(day_, {"reviewDayChoice", tr("Day of this shoot"), tr("The newest first")});
    day_->setMinimumContentsLength(12);
    connect(day_, &QComboBox::activated, this, &ReviewLeaf::refresh);
    bar->addWidget(day_);
    bar->addStretch();
    print_ = captionedButton({"printReviewButton", tr("Print\u2026"), tr("On one sheet, or into a file")}, paper);
    bar->addWidget(print_);
    column->addLayout(bar);
    page_ = new ReviewPage(paper);
    column->addWidget(scrollingOn(page_, paper), 1);
    connect(print_, &QPushButton::clicked, page_, &ReviewPage::askAndPrint);
    row->addWidget(paper);
    connect(&desk, &LogDesk::changed, this, [this] {
        if (isVisible()) refresh();
    });
    page_->setReview({});
}

void ReviewLeaf::refresh() {
    desk_.review(day_->currentText().toStdString(), this,
                 [this](log::Review review, const std::vector<std::string>& days) {
                     const QSignalBlocker quiet(day_);
                     day_->clear();
                     for (const auto& day : days) day_->addItem(toQt(day));
                     day_->setCurrentIndex(std::max(0, day_->findText(toQt(review.day))));
                     day_->setEnabled(!days.empty());
                     print_->setEnabled(!review.day.empty());
                     page_->setReview(std::move(review));
                 });
}

}  // namespace poquito::desk

#include "book/moc_review_leaf.moc"
