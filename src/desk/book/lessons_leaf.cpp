#include "desk/book/lessons_leaf.hpp"

#include "desk/base/caption.hpp"
#include "desk/base/sentence.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/book/lessons_board.hpp"
#include "desk/book/log_desk.hpp"
#include "desk/day/day_paper.hpp"
#include "desk/shell/document.hpp"
#include "shoot/shoot.hpp"
#include "text/text.hpp"

#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {
namespace {

/// The price that a change of that name has; null: none.
double* priceOf(shoot::ChangePrices& prices, const std::string& what) {
    const std::pair<const char*, double*> all[] = {{"camera", &prices.camera},
                                                   {"lens", &prices.lens},
                                                   {"tubes", &prices.tubes},
                                                   {"light", &prices.light},
                                                   {"background", &prices.background},
                                                   {"subject", &prices.subject},
                                                   {"turn", &prices.turn}};
    for (const auto& [name, price] : all)
        if (what == name) return price;
    return nullptr;
}

}  // namespace

LessonsLeaf::LessonsLeaf(Document& document, LogDesk& desk, QWidget* parent)
    : QWidget(parent), document_(document), desk_(desk) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    auto* page = paperOn(this);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    auto* bar = new QHBoxLayout;
    words_ = new Sentence(2, page);
    words_->setObjectName(QStringLiteral("lessonsWords"));
    bar->addWidget(words_, 1);
    takeTimes_ = captionedButton({"takeTimesButton", tr("Plan the day by these times"),
                                  tr("What changes really took, as the prices of this shoot's day; it can be undone")},
                                 page);
    connect(takeTimes_, &QPushButton::clicked, this, &LessonsLeaf::takeTimes);
    bar->addWidget(takeTimes_);
    column->addLayout(bar);
    board_ = new LessonsBoard(page);
    column->addWidget(scrollingOn(board_, page), 1);
    row->addWidget(page);
    connect(&desk, &LogDesk::changed, this, [this] {
        if (isVisible()) refresh();
    });
    show({});
}

void LessonsLeaf::refresh() {
    desk_.learn(this, [this](std::vector<log::Lesson> lessons) { show(std::move(lessons)); });
}

void LessonsLeaf::show(std::vector<log::Lesson> lessons) {
    lessons_ = std::move(lessons);
    words_->setText(
        lessons_.empty()
            ? tr("Too little was logged to learn from: a correction or two, five tries of one kind, three "
                 "proofs of a class.")
            : tr("Nine of ten such intervals hold what is true. What practice says beforehand counts for two "
                 "or three cases, and fades as yours come. Nothing is taken over by itself."));
    takeTimes_->setVisible(
        std::ranges::any_of(lessons_, [](const log::Lesson& one) { return one.topic == log::Topic::change; }));
    takeTimes_->setEnabled(document_.count() > 0);
    board_->setLessons(lessons_);
}

void LessonsLeaf::takeTimes() {
    document_.edit({tr("Plan by logged times")}, [this](shoot::Shoot& shoot) {
        for (const auto& lesson : lessons_)
            if (lesson.topic == log::Topic::change)
                if (double* price = priceOf(shoot.workday.prices, lesson.what)) *price = std::round(lesson.value * 60);
    });
}

}  // namespace poquito::desk

#include "book/moc_lessons_leaf.moc"
