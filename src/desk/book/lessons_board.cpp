#include "desk/book/lessons_board.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double lesson_height = 40, topic_height = 30;

QString topicName(log::Topic topic) {
    switch (topic) {
        case log::Topic::exposure:
            return QObject::tr("Light, against what its record says (stops)");
        case log::Topic::flash:
            return QObject::tr("Flashes, frames that they keep up with");
        case log::Topic::steps:
            return QObject::tr("Steps of a camera's own bracket, mm");
        case log::Topic::work:
            return QObject::tr("Work on frames, seconds each");
        case log::Topic::pace:
            return QObject::tr("Shots kept in an hour");
        case log::Topic::odds:
            return QObject::tr("Chance, of 100 tries");
        case log::Topic::change:
            return QObject::tr("Changes, in minutes");
        case log::Topic::keepers:
            return QObject::tr("What is kept, of 100 sequences");
        case log::Topic::stop:
            return QObject::tr("The stop that was kept most");
        case log::Topic::depth:
            return QObject::tr("Depth, over what was planned");
        case log::Topic::approach:
            break;
    }
    return QObject::tr("The way that won");
}

}  // namespace

LessonsBoard::LessonsBoard(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("lessonsBoard"));
    setAccessibleName(tr("What the log teaches"));
    setFocusPolicy(Qt::StrongFocus);
}

void LessonsBoard::setLessons(std::vector<log::Lesson> lessons, std::vector<QString> offers) {
    lessons_ = std::move(lessons);
    offers_ = std::move(offers);
    if (chosen_ >= lessons_.size()) chosen_ = 0;
    double height = 4;
    QStringList says;
    for (std::size_t i = 0; i < lessons_.size(); ++i) {
        if (i == 0 || lessons_[i].topic != lessons_[i - 1].topic) height += topic_height;
        height += lesson_height;
        says << toQt(lessons_[i].about) + QStringLiteral(": ") + toQt(lessons_[i].text);
    }
    layOut();
    setAccessibleDescription(says.join(QStringLiteral("; ")));
    setMinimumHeight(static_cast<int>(std::max(120.0, height)));
    update();
}

void LessonsBoard::layOut() {
    tops_.clear();
    double y = 0;
    for (std::size_t i = 0; i < lessons_.size(); ++i) {
        if (i == 0 || lessons_[i].topic != lessons_[i - 1].topic) y += topic_height;
        tops_.push_back(y);
        y += lesson_height;
    }
}

QRectF LessonsBoard::rowRect(std::size_t index) const {
    return index < tops_.size() ? QRectF(0, tops_[index], width() - 6.0, lesson_height) : QRectF();
}

void LessonsBoard::choose(std::size_t index) {
    if (index >= lessons_.size()) return;
    chosen_ = index;
    update();
    Q_EMIT lessonChosen();
}

void LessonsBoard::mousePressEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < tops_.size(); ++i)
        if (rowRect(i).contains(event->position())) return choose(i);
}

void LessonsBoard::mouseDoubleClickEvent(QMouseEvent*) { Q_EMIT offerWanted(); }

void LessonsBoard::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Down) return choose(std::min(chosen_ + 1, lessons_.empty() ? 0 : lessons_.size() - 1));
    if (event->key() == Qt::Key_Up) return choose(chosen_ > 0 ? chosen_ - 1 : 0);
    if (event->key() == Qt::Key_Return) return Q_EMIT offerWanted();
    QWidget::keyPressEvent(event);
}

/// One for all bars of a topic, so that they can be compared.
LessonsBoard::Scale LessonsBoard::scaleOf(log::Topic topic) const {
    if (topic == log::Topic::odds || topic == log::Topic::keepers || topic == log::Topic::approach) return {0, 1};
    Scale scale{topic == log::Topic::depth ? 1.0 : 0.0, topic == log::Topic::depth ? 1.0 : 0.0};
    for (const auto& lesson : lessons_) {
        if (lesson.topic != topic) continue;
        for (const double value : {lesson.value, lesson.low, lesson.high})
            if (std::isfinite(value)) scale.low = std::min(scale.low, value), scale.high = std::max(scale.high, value);
    }
    const double room = std::max(scale.high - scale.low, 0.2) * 0.08;
    return {scale.low - (scale.low < 0 || topic == log::Topic::depth ? room : 0), scale.high + room};
}

void LessonsBoard::drawBar(QPainter& painter, const QRectF& area, const log::Lesson& lesson) const {
    const Theme& t = theme();
    const auto scale = scaleOf(lesson.topic);
    const auto x = [&](double value) {
        return area.left() + area.width() * std::clamp((value - scale.low) / (scale.high - scale.low), 0.0, 1.0);
    };
    const double y = area.center().y();
    painter.setPen(QPen(t.hairline, 1));
    painter.drawLine(QPointF(area.left(), y), QPointF(area.right(), y));
    const double zero = lesson.topic == log::Topic::depth ? 1 : 0;
    painter.drawLine(QPointF(x(zero), y - 8), QPointF(x(zero), y + 8));
    if (std::isfinite(lesson.low) && std::isfinite(lesson.high)) {
        painter.fillRect(QRectF(QPointF(x(lesson.low), y - 5), QPointF(x(lesson.high), y + 5)), t.focusWash);
        painter.setPen(QPen(t.focus, 1));
        for (const double end : {lesson.low, lesson.high})
            painter.drawLine(QPointF(x(end), y - 5), QPointF(x(end), y + 5));
    }
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.focus);
    painter.drawEllipse(QPointF(x(lesson.value), y), 4, 4);
    painter.setBrush(Qt::NoBrush);
}

void LessonsBoard::paintEvent(QPaintEvent*) {
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QFont bold = textFont(12, QFont::DemiBold), small = textFont(11);
    double y = 0;
    for (std::size_t i = 0; i < lessons_.size(); ++i) {
        const auto& lesson = lessons_[i];
        if (i == 0 || lesson.topic != lessons_[i - 1].topic) {
            painter.setFont(textFont(13, QFont::DemiBold));
            painter.setPen(t.ink);
            drawLine(painter, QRectF(2, y + 6, width() * 0.6, 18), Qt::AlignLeft | Qt::AlignVCenter,
                     topicName(lesson.topic));
            const double from = width() * 0.62, wide = width() - from - 76;
            const auto scale = scaleOf(lesson.topic);
            const double unit = scale.low == 0 && scale.high == 1 ? 100 : 1;
            painter.setFont(small);
            painter.setPen(t.quiet);
            for (const double end : {scale.low, scale.high})
                drawLine(painter, QRectF(end == scale.low ? from : from + wide - 60, y + 8, 60, 15),
                         (end == scale.low ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter,
                         toQt(text::number_text(end * unit, 2)));
            painter.setPen(QPen(t.hairline, 1));
            painter.drawLine(QPointF(0, y + topic_height - 3), QPointF(width() - 6.0, y + topic_height - 3));
            y += topic_height;
        }
        if (i == chosen_) painter.fillRect(rowRect(i), t.linkWash);
        const double words = width() * 0.62, bar = width() - words - 76;
        painter.setFont(bold);
        painter.setPen(t.ink);
        drawLine(painter, QRectF(2, y + 3, words - 8, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(bold, toQt(lesson.about), words - 8));
        painter.setFont(small);
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(2, y + 19, words - 8, 15), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(small, toQt(lesson.text), words - 8));
        if (bar > 40) drawBar(painter, QRectF(words, y + 2, bar, 22), lesson);
        painter.setFont(small);
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(width() - 70.0, y + 5, 60, 16), Qt::AlignRight | Qt::AlignVCenter,
                 lesson.topic == log::Topic::odds ? tr("%1 tries").arg(lesson.cases)
                 : lesson.cases == 1              ? tr("1 case")
                                                  : tr("%1 cases").arg(lesson.cases));
        if (i < offers_.size() && !offers_[i].isEmpty()) {
            painter.setPen(t.link);
            drawLine(painter, QRectF(words, y + 24, width() - words - 10, 14), Qt::AlignRight | Qt::AlignVCenter,
                     elided(small, offers_[i], width() - words - 10));
        }
        y += lesson_height;
    }
    if (hasFocus() && !lessons_.empty()) drawFocusRing(painter, rowRect(chosen_).adjusted(1, 1, -1, -1));
}

}  // namespace poquito::desk

#include "desk/book/moc_lessons_board.moc"
