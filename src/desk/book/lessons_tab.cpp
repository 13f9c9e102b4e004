#include "desk/book/lessons_tab.hpp"

#include "desk/book/lessons_board.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/session/document.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/sentence.hpp"
#include "log/record.hpp"
#include "log/take_over.hpp"
#include "shoot/shoot.hpp"
#include "text/text.hpp"

#include <QDateTime>
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace poquito::desk {
LessonsTab::LessonsTab(Document& document, LogWriter& writer, QWidget* parent)
    : QWidget(parent), document_(document), writer_(writer), controller_(writer.book()) {
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
    connect(takeTimes_, &QPushButton::clicked, this, &LessonsTab::takeTimes);
    bar->addWidget(takeTimes_);
    column->addLayout(bar);
    board_ = new LessonsBoard(page);
    column->addWidget(scrollingOn(board_, page), 1);
    connect(board_, &LessonsBoard::lessonChosen, this, &LessonsTab::showChosen);
    connect(board_, &LessonsBoard::offerWanted, this, &LessonsTab::take);
    auto* foot = new QHBoxLayout;
    foot->addStretch();
    take_ = captionedButton({"takeLessonButton", tr("Changes nothing here"),
                             tr("What the chosen line would change of the selected shot, its gear or the day; it can "
                                "be undone")},
                            page);
    connect(take_, &QPushButton::clicked, this, &LessonsTab::take);
    foot->addWidget(take_);
    column->addLayout(foot);
    row->addWidget(page);
    connect(&controller_, &LogController::changed, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&document, &Document::selected, this, [this] {
        if (isVisible()) showOffers();
    });
    show({});
}

void LessonsTab::refresh() {
    controller_.learn(this, [this](std::vector<log::Lesson> lessons) { show(std::move(lessons)); });
}

void LessonsTab::show(std::vector<log::Lesson> lessons) {
    lessons_ = std::move(lessons);
    words_->setText(
        lessons_.empty()
            ? tr("Nothing to learn from yet. Correct a light or a step once or twice, count five tries of one kind of "
                 "shot, or look at three shots of one class in Proof: what they have in common then stands here, with "
                 "how sure it is.")
            : tr("Nine of ten such intervals hold what is true. What practice says beforehand counts for two "
                 "or three cases, and fades as yours come. Nothing is taken over by itself."));
    takeTimes_->setVisible(
        std::ranges::any_of(lessons_, [](const log::Lesson& one) { return one.topic == log::Topic::change; }));
    takeTimes_->setEnabled(document_.count() > 0);
    take_->setVisible(!lessons_.empty());
    showOffers();
}

/// They change with the shot that is selected, and with every edit of it.
void LessonsTab::showOffers() {
    const auto* shot = document_.shot();
    const auto at = static_cast<std::size_t>(std::max(0, document_.current()));
    const auto of =
        shot ? log::entry_for(document_.shoot(), *shot, writer_.classOf()(*shot)).subject_class : std::string();
    std::vector<QString> offers;
    offers.reserve(lessons_.size());
    for (const auto& lesson : lessons_)
        offers.push_back(toQt(log::offer_of(lesson, document_.shoot(), at, of).value_or(std::string())));
    offers_ = offers;
    board_->setLessons(lessons_, std::move(offers));
    showChosen();
}

void LessonsTab::showChosen() {
    const auto at = board_->chosen();
    const bool any = at < offers_.size() && !offers_[at].isEmpty();
    take_->setEnabled(any);
    take_->setText(any ? offers_[at] : tr("Changes nothing here"));
}

void LessonsTab::take() {
    const auto at = board_->chosen();
    if (at >= offers_.size() || offers_[at].isEmpty()) return;
    const auto shot = static_cast<std::size_t>(std::max(0, document_.current()));
    const auto now = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    document_.learn({offers_[at]}, [&](shoot::Shoot& shoot) { log::take_over(lessons_[at], shoot, shot, now); });
    writer_.overlookEdit();
    showOffers();
}

void LessonsTab::takeTimes() {
    document_.edit({tr("Plan by logged times")}, [this](shoot::Shoot& shoot) {
        for (const auto& lesson : lessons_)
            if (lesson.topic == log::Topic::change || lesson.topic == log::Topic::work)
                log::take_over(lesson, shoot, 0, {});
    });
    showOffers();
}

}  // namespace poquito::desk

#include "desk/book/moc_lessons_tab.moc"
