#include "desk/book/practice_board.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double exercise_height = 38, grade_height = 28;

QString gradeName(int grade) {
    constexpr int first = 1, second = 2;
    return grade == first    ? QObject::tr("To begin with")
           : grade == second ? QObject::tr("With some practice")
                             : QObject::tr("For a patient hour");
}

}  // namespace

PracticeBoard::PracticeBoard(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("practiceBoard"));
    setAccessibleName(tr("Exercises"));
    setFocusPolicy(Qt::StrongFocus);
    for (const auto& one : practice::exercises()) exercises_.push_back(&one);
    std::ranges::stable_sort(exercises_, {}, [](const auto* one) { return one->grade; });
    layOut();
}

void PracticeBoard::layOut() {
    double y = 0;
    for (std::size_t i = 0; i < exercises_.size(); ++i) {
        if (i == 0 || exercises_[i]->grade != exercises_[i - 1]->grade) y += grade_height;
        tops_.push_back(y);
        y += exercise_height;
    }
    setMinimumHeight(static_cast<int>(y + 4));
}

void PracticeBoard::setDone(std::map<std::string, practice::Result> done, std::string next) {
    done_ = std::move(done);
    next_ = std::move(next);
    QStringList says;
    for (const auto* one : exercises_) {
        const auto found = done_.find(one->id);
        const bool passed = found != done_.end() && found->second == practice::Result::passed;
        says << QString::fromUtf8(one->name) + (passed ? tr(", passed") : next_ == one->id ? tr(", next") : QString());
    }
    setAccessibleDescription(says.join(QStringLiteral("; ")));
    update();
}

const practice::Exercise& PracticeBoard::chosen() const { return *exercises_[chosen_]; }

QRectF PracticeBoard::rowRect(std::size_t index) const {
    return index < tops_.size() ? QRectF(0, tops_[index], width() - 6.0, exercise_height) : QRectF();
}

void PracticeBoard::choose(std::size_t index) {
    if (index >= exercises_.size()) return;
    chosen_ = index;
    update();
    Q_EMIT exerciseChosen();
}

void PracticeBoard::paintEvent(QPaintEvent*) {
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QFont bold = textFont(12, QFont::DemiBold), small = textFont(11);
    for (std::size_t i = 0; i < exercises_.size(); ++i) {
        const auto& one = *exercises_[i];
        const auto area = rowRect(i);
        if (i == 0 || one.grade != exercises_[i - 1]->grade) {
            painter.setFont(textFont(13, QFont::DemiBold));
            painter.setPen(t.ink);
            drawLine(painter, QRectF(2, area.top() - grade_height + 4, area.width(), 18),
                     Qt::AlignLeft | Qt::AlignVCenter, gradeName(one.grade));
            painter.setPen(QPen(t.hairline, 1));
            painter.drawLine(QPointF(0, area.top() - 3), QPointF(area.right(), area.top() - 3));
        }
        if (i == chosen_) painter.fillRect(area, t.linkWash);
        if (const auto found = done_.find(one.id); found != done_.end())
            drawStatus(painter, QPointF(12, area.center().y()),
                       found->second == practice::Result::passed   ? Status::settled
                       : found->second == practice::Result::failed ? Status::doubtful
                                                                   : Status::open);
        painter.setFont(bold);
        painter.setPen(t.ink);
        const double wide = area.width() - 30;
        drawLine(painter, QRectF(26, area.top() + 3, wide, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(bold, QString::fromUtf8(one.name), wide));
        painter.setFont(small);
        painter.setPen(next_ == one.id ? t.link : t.quiet);
        const auto minutes = tr("%1 minutes").arg(one.minutes);
        drawLine(painter, QRectF(26, area.top() + 19, wide, 15), Qt::AlignLeft | Qt::AlignVCenter,
                 next_ == one.id ? tr("%1 \u00b7 try this next").arg(minutes) : minutes);
    }
    if (hasFocus()) drawFocusRing(painter, rowRect(chosen_).adjusted(1, 1, -1, -1));
}

void PracticeBoard::mousePressEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < tops_.size(); ++i)
        if (rowRect(i).contains(event->position())) return choose(i);
}

void PracticeBoard::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Down) return choose(std::min(chosen_ + 1, exercises_.size() - 1));
    if (event->key() == Qt::Key_Up) return choose(chosen_ > 0 ? chosen_ - 1 : 0);
    QWidget::keyPressEvent(event);
}

}  // namespace poquito::desk

#include "desk/book/moc_practice_board.moc"
