#include "desk/book/review_tab.hpp"

#include "desk/book/review_page.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/text/to_qt.hpp"

#include <algorithm>

namespace poquito::desk {

ReviewTab::ReviewTab(LogController& controller, QWidget* parent) : ReviewTab(controller, new ReviewPage, parent) {}

ReviewTab::ReviewTab(LogController& controller, ReviewPage* page, QWidget* parent)
    : PagesTab(controller,
               {.choice = {"reviewDayChoice", tr("Day of this shoot"), tr("The newest first")},
                .letters = 12,
                .print = {"printReviewButton", tr("Print\u2026"), tr("On one sheet, or into a file")}},
               page, parent),
      page_(page) {
    page_->setReview({});
    offer({}, 0);
}

void ReviewTab::refresh() {
    controller_.review(chosen().toStdString(), this, [this](log::Review review, const std::vector<std::string>& days) {
        QStringList names;
        for (const auto& day : days) names << toQt(day);
        offer(names, std::max(0, static_cast<int>(names.indexOf(toQt(review.day)))));
        page_->setReview(std::move(review));
    });
}

void ReviewTab::turn(int) { refresh(); }

}  // namespace poquito::desk

#include "desk/book/moc_review_tab.moc"
