#include "desk/book/log_board.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QDate>
#include <QKeyEvent>
#include <QLocale>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double entry_height = 38, date_height = 26;

/// What happened, in a word, and what came of it.
QString happened(const log::Entry& e) {
    const auto frames = [&] { return toQt(text::count_text(e.frames.value_or(0), "frame", "frames")); };
    switch (e.kind) {
        case log::Kind::run:
            return e.what.empty() ? QObject::tr("run, %1").arg(frames())
                                  : QObject::tr("run %1 after %2").arg(toQt(e.what), frames());
        case log::Kind::proof:
            return QObject::tr("%1 looked at").arg(frames());
        case log::Kind::count:
            return QObject::tr("%1 of %2 hit").arg(e.kept.value_or(0)).arg(e.tried.value_or(0));
        case log::Kind::correction:
            return QObject::tr("%1 is %2 stops off its record")
                .arg(toQt(e.unit), toQt(text::stops_text(e.stops.value_or(0))));
        case log::Kind::calibration:
            return QObject::tr("%1 measured").arg(toQt(e.what));
        case log::Kind::change:
            if (e.frames)
                return QObject::tr("%1 %2 took %3")
                    .arg(toQt(e.what), frames(), toQt(text::time_text(e.minutes.value_or(0) * 60)));
            return QObject::tr("%1 changed in %2").arg(toQt(e.what), toQt(text::time_text(e.minutes.value_or(0) * 60)));
        case log::Kind::inspection:
            return e.causes.empty() ? QObject::tr("%1 show nothing wrong").arg(frames())
                                    : QObject::tr("%1 show %2").arg(frames(), toQt(e.causes));
        case log::Kind::note:
            break;
    }
    return toQt(e.remark);
}

QString withWhat(const log::Entry& e) {
    QStringList parts;
    for (const auto* part : {&e.subject_class, &e.words, &e.approach, &e.lens, &e.light, &e.place})
        if (!part->empty()) parts << toQt(*part);
    if (e.kind != log::Kind::note && !e.remark.empty()) parts << toQt(e.remark);
    return parts.join(QStringLiteral(" \u00b7 "));
}

}  // namespace

LogBoard::LogBoard(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("logBoard"));
    setAccessibleName(tr("What happened, the newest first"));
    setFocusPolicy(Qt::StrongFocus);
}

void LogBoard::setEntries(std::vector<log::Entry> entries) {
    entries_ = std::move(entries);
    if (std::ranges::find(entries_, chosen_, &log::Entry::id) == entries_.end())
        chosen_ = entries_.empty() ? 0 : entries_.front().id;
    layOut();
    QStringList says;
    for (std::size_t i = 0; i < std::min<std::size_t>(entries_.size(), 30); ++i)
        says << toQt(entries_[i].name) + QStringLiteral(", ") + happened(entries_[i]);
    setAccessibleDescription(says.join(QStringLiteral("; ")));
    update();
}

void LogBoard::layOut() {
    rows_.clear();
    double y = 0;
    std::string day;
    for (std::size_t i = 0; i < entries_.size(); ++i) {
        const auto own = entries_[i].time.substr(0, 10);
        const bool fresh = std::exchange(day, own) != own;
        if (fresh) y += date_height;
        rows_.push_back({.entry = i, .top = y, .newDay = fresh});
        y += entry_height;
    }
    setMinimumHeight(static_cast<int>(std::max(120.0, y + 4)));
}

QRectF LogBoard::rowRect(std::size_t index) const {
    return index < rows_.size() ? QRectF(0, rows_[index].top, width() - 6, entry_height) : QRectF();
}

std::optional<std::size_t> LogBoard::at(QPointF place) const {
    for (std::size_t i = 0; i < rows_.size(); ++i)
        if (rowRect(i).contains(place)) return i;
    return std::nullopt;
}

void LogBoard::drawRow(QPainter& painter, const Row& row) const {
    const Theme& t = theme();
    const auto& entry = entries_[row.entry];
    const QRectF area(0, row.top, width() - 6, entry_height);
    const QFont bold = textFont(12, QFont::DemiBold), plain = textFont(12), small = textFont(11);
    if (row.newDay) {
        const auto date = QDate::fromString(toQt(entry.time.substr(0, 10)), Qt::ISODate);
        const auto words = date.isValid()
                               ? QLocale(QLocale::English).toString(date, QStringLiteral("dddd, d MMMM yyyy"))
                               : toQt(entry.time.substr(0, 10));
        painter.setFont(textFont(13, QFont::DemiBold));
        painter.setPen(t.ink);
        drawLine(painter, QRectF(2, row.top - date_height + 2, area.width(), 18), Qt::AlignLeft | Qt::AlignVCenter,
                 words);
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(0, row.top - 2), QPointF(area.right(), row.top - 2));
    }
    if (entry.id == chosen_) painter.fillRect(area, t.linkWash);
    painter.setFont(small);
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(4, row.top + 4, 40, 16), Qt::AlignLeft | Qt::AlignVCenter,
             toQt(entry.time.size() >= 16 ? entry.time.substr(11, 5) : std::string()));
    constexpr double mark = 54, left = 70;
    const bool keep = entry.verdict == "keep";
    if (!entry.verdict.empty())
        drawStatus(painter, QPointF(mark, row.top + 13), keep ? Status::settled : Status::doubtful);
    const double wide = area.right() - left - 8;
    const auto name = entry.name.empty() ? toQt(entry.shoot) : toQt(entry.name);
    const double named = std::min(lineWidth(bold, name) + 8, wide * 0.5);
    painter.setFont(bold);
    painter.setPen(t.ink);
    drawLine(painter, QRectF(left, row.top + 4, named, 16), Qt::AlignLeft | Qt::AlignVCenter,
             elided(bold, name, named));
    painter.setFont(plain);
    drawLine(painter, QRectF(left + named, row.top + 4, wide - named, 16), Qt::AlignLeft | Qt::AlignVCenter,
             elided(plain, happened(entry), wide - named));
    painter.setFont(small);
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(left, row.top + 20, wide, 14), Qt::AlignLeft | Qt::AlignVCenter,
             elided(small, withWhat(entry), wide));
}

void LogBoard::paintEvent(QPaintEvent* event) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    for (const Row& row : rows_)
        if (row.top + entry_height >= event->rect().top() && row.top - date_height <= event->rect().bottom())
            drawRow(painter, row);
    if (hasFocus()) {
        const auto chosen = std::ranges::find(entries_, chosen_, &log::Entry::id);
        const QRectF area =
            chosen == entries_.end() ? QRectF(rect()) : rowRect(static_cast<std::size_t>(chosen - entries_.begin()));
        drawFocusRing(painter, area.adjusted(1, 1, -1, -1));
    }
}

// ---- by hand -----------------------------------------------------------------------------------------------------

void LogBoard::choose(std::size_t index) {
    if (index >= entries_.size()) return;
    chosen_ = entries_[index].id;
    update();
    Q_EMIT entryChosen(chosen_);
}

void LogBoard::mousePressEvent(QMouseEvent* event) {
    if (const auto index = at(event->position())) choose(*index);
}

void LogBoard::mouseDoubleClickEvent(QMouseEvent* event) {
    if (at(event->position())) Q_EMIT entryWanted(chosen_);
}

void LogBoard::keyPressEvent(QKeyEvent* event) {
    const auto chosen = std::ranges::find(entries_, chosen_, &log::Entry::id);
    if (chosen == entries_.end()) return QWidget::keyPressEvent(event);
    const auto index = static_cast<std::size_t>(chosen - entries_.begin());
    switch (event->key()) {
        case Qt::Key_Down:
            return choose(std::min(index + 1, entries_.size() - 1));
        case Qt::Key_Up:
            return choose(index > 0 ? index - 1 : 0);
        case Qt::Key_Return:
            return Q_EMIT entryWanted(chosen_);
        case Qt::Key_Delete:
            return Q_EMIT forgetWanted(chosen_);
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace poquito::desk

#include "desk/book/moc_log_board.moc"
