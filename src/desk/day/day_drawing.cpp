#include "desk/day/day_drawing.hpp"

#include "desk/day/hours_tab.hpp"
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

constexpr double head = 20;
constexpr double least_row = 28;
constexpr double most_row = 50;

}  // namespace

DayDrawing::DayDrawing(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("dayDrawing"));
    setAccessibleName(tr("The day, one line a shot"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
}

void DayDrawing::setPlan(const DayPlan* plan, bool listed, int selected) {
    plan_ = plan;
    listed_ = listed;
    selected_ = selected;
    const auto rows = plan ? static_cast<double>(day().order.size()) : 0;
    setMinimumHeight(static_cast<int>(head + rows * least_row + 4));
    QStringList lines;
    if (plan)
        for (std::size_t k = 0; k < day().order.size(); ++k)
            lines += toQt(text::day_time_text(day().start[k])) + QLatin1Char(' ') + plan->names[day().order[k]];
    setAccessibleDescription(lines.join(QStringLiteral("; ")));
    update();
}

const schedule::Day& DayDrawing::day() const { return listed_ ? plan_->given : plan_->best; }

double DayDrawing::end() const {
    const double longest = std::max(plan_->given.finish, plan_->best.finish);
    return std::max(longest, plan_->problem.begin + 60);
}

QSize DayDrawing::sizeHint() const { return {420, minimumHeight()}; }

double DayDrawing::rowHeight() const {
    const auto rows = plan_ ? static_cast<double>(std::max<std::size_t>(day().order.size(), 1)) : 1;
    return std::clamp((height() - head) / rows, least_row, most_row);
}

double DayDrawing::namesWidth() const { return std::min(240.0, width() * 0.36); }

QRectF DayDrawing::field() const {
    constexpr double margin = 14;  // room for the last bracket
    return {namesWidth() + 50, head, width() - namesWidth() - 50 - margin,
            rowHeight() * static_cast<double>(day().order.size())};
}

double DayDrawing::xOf(double time) const {
    const double begin = plan_->problem.begin;
    return field().left() + (time - begin) / (end() - begin) * field().width();
}

void DayDrawing::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (!plan_ || day().order.empty()) {
        if (hasFocus()) drawFocusRing(painter, rect());
        return;
    }
    drawHours(painter);
    for (std::size_t k = 0; k < day().order.size(); ++k) {
        drawWork(painter, k);
        drawWords(painter, k);
        if (hasFocus() && static_cast<int>(day().order[k]) == std::max(selected_, 0))
            drawFocusRing(painter, rowRect(k));
    }
    if (!held_ || !target_ || *target_ == held_->row) return;
    const double y = rowRect(*target_).top() + (*target_ > held_->row ? rowHeight() : 0);
    painter.setPen(QPen(theme().link, 2.4));
    painter.drawLine(QPointF(0, y), QPointF(width(), y));
}

/// Hours and their parts.
void DayDrawing::drawHours(QPainter& painter) const {
    const Theme& t = theme();
    const double begin = plan_->problem.begin, end = this->end();
    painter.setFont(textFont(11));
    const double steps[] = {300, 600, 900, 1800, 3600, 7200, 14400};
    double step = steps[6];
    for (const double candidate : steps)
        if ((end - begin) / candidate <= field().width() / 52) {
            step = candidate;
            break;
        }
    while ((end - begin) / step > field().width() / 26) step *= 2;  // a plan for weeks
    for (double mark = std::ceil(begin / step) * step; mark <= end; mark += step) {
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(xOf(mark), head - 3), QPointF(xOf(mark), field().bottom()));
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(xOf(mark) - 26, 0, 52, 15), Qt::AlignHCenter | Qt::AlignVCenter,
                 toQt(text::day_time_text(mark)));
    }
}

/// The change before a shot, what it waits for, the shot itself and when it may be taken.
void DayDrawing::drawWork(QPainter& painter, std::size_t k) const {
    const Theme& t = theme();
    const auto& day = this->day();
    const auto& problem = plan_->problem;
    const auto job = day.order[k];
    const QRectF row = rowRect(k);
    if (static_cast<int>(job) == selected_) painter.fillRect(row, t.linkWash);
    const double start = day.start[k], finish = start + problem.duration[job];
    const double before = k > 0 ? day.start[k - 1] + problem.duration[day.order[k - 1]] : problem.begin;
    const double change = k > 0                   ? problem.change_between(day.order[k - 1], job)
                          : problem.first.empty() ? 0
                                                  : problem.first[job];
    const double y = row.center().y(), half = std::min(10.0, rowHeight() * 0.3);
    if (change > 0)
        painter.fillRect(QRectF(QPointF(xOf(before), y - half), QPointF(xOf(before + change), y + half)), t.change);
    if (start > before + change + 1) {
        painter.setPen(QPen(t.quiet, 1.2, Qt::DotLine));
        painter.drawLine(QPointF(xOf(before + change), y), QPointF(xOf(start), y));
    }
    painter.fillRect(QRectF(QPointF(xOf(start), y - half), QPointF(std::max(xOf(finish), xOf(start) + 2), y + half)),
                     isLate(k) ? t.stop : t.focus);
    for (const bool from : {true, false}) {
        const QPointF at = fence(k, from);
        if (at.isNull()) continue;
        painter.setPen(QPen(t.link, 2));
        const double tick = from ? 6 : -6, high = rowHeight() * 0.42;
        painter.drawPolyline(QPolygonF(
            {at + QPointF(tick, -high), at + QPointF(0, -high), at + QPointF(0, high), at + QPointF(tick, high)}));
    }
}

QRectF DayDrawing::rowRect(std::size_t row) const {
    return {0, head + rowHeight() * static_cast<double>(row), static_cast<double>(width()), rowHeight()};
}

/// A time outside the paper stands at its edge: it can still be dragged.
QPointF DayDrawing::fence(std::size_t row, bool notBefore) const {
    const auto job = day().order[row];
    const auto& time = notBefore ? plan_->problem.not_before[job] : plan_->problem.done_by[job];
    if (!time) return {};
    return {xOf(std::clamp(*time, plan_->problem.begin, end())), rowRect(row).center().y()};
}

double DayDrawing::lateness(std::size_t k) const {
    const auto job = day().order[k];
    const auto& done_by = plan_->problem.done_by[job];
    return done_by ? day().start[k] + plan_->problem.duration[job] - *done_by : 0;
}

bool DayDrawing::isLate(std::size_t k) const { return lateness(k) > 1e-6; }

/// When, which, and under it what it takes and what has to be changed for it.
void DayDrawing::drawWords(QPainter& painter, std::size_t k) const {
    const Theme& t = theme();
    const auto job = day().order[k];
    const QRectF row = rowRect(k);
    const double room = namesWidth() - 6, half = std::min(rowHeight() / 2, 17.0), middle = row.center().y();
    painter.setFont(textFont(12));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(4, middle - half, 38, half), Qt::AlignRight | Qt::AlignVCenter,
             toQt(text::day_time_text(day().start[k])));
    painter.setPen(t.ink);
    const QFont bold = textFont(12, QFont::DemiBold);
    painter.setFont(bold);
    drawLine(painter, QRectF(50, middle - half, room, half), Qt::AlignLeft | Qt::AlignVCenter,
             elided(bold, plan_->names[job], room));
    painter.setFont(textFont(11));
    painter.setPen(isLate(k) ? t.stop : t.quiet);
    const auto& changes = (listed_ ? plan_->givenChanges : plan_->bestChanges)[k];
    const QString words = isLate(k) ? tr("%1 late").arg(toQt(text::time_text(lateness(k))))
                                    : tr("%1 \u00b7 %2").arg(plan_->works[job], changes);
    drawLine(painter, QRectF(50, middle, room, half), Qt::AlignLeft | Qt::AlignVCenter,
             elided(textFont(11), words, room));
}

// ---- by hand -----------------------------------------------------------------------------------------------------

std::size_t DayDrawing::rowAt(double y) const {
    const double last = static_cast<double>(day().order.size()) - 1;
    return static_cast<std::size_t>(std::clamp(std::floor((y - head) / rowHeight()), 0.0, last));
}

std::optional<DayDrawing::Held> DayDrawing::heldAt(QPointF at) const {
    if (!plan_ || day().order.empty() || at.y() < head || at.y() > field().bottom()) return std::nullopt;
    const auto row = rowAt(at.y());
    constexpr double near = 6;
    for (const bool from : {true, false}) {
        const QPointF bracket = fence(row, from);
        if (!bracket.isNull() && std::abs(bracket.x() - at.x()) < near)
            return Held{.row = row, .by = from ? Held::By::not_before : Held::By::done_by, .from = at.y()};
    }
    return Held{.row = row, .by = Held::By::line, .from = at.y()};
}

void DayDrawing::mousePressEvent(QMouseEvent* event) {
    held_ = heldAt(event->position());
    if (held_) Q_EMIT shotClicked(static_cast<int>(day().order[held_->row]));
}

void DayDrawing::mouseMoveEvent(QMouseEvent* event) {
    if (!(event->buttons() & Qt::LeftButton)) {
        const auto over = heldAt(event->position());
        setCursor(!over                        ? Qt::ArrowCursor
                  : over->by != Held::By::line ? Qt::SizeHorCursor
                  : listed_                    ? Qt::OpenHandCursor
                                               : Qt::ArrowCursor);
        return;
    }
    if (!held_ || !plan_ || held_->row >= day().order.size()) return;
    if (held_->by != Held::By::line) {
        constexpr double step = 300;  // s: times of a day are said in five minutes
        const double begin = plan_->problem.begin, share = (event->position().x() - field().left()) / field().width();
        const double time = std::round((begin + share * (end() - begin)) / step) * step;
        Q_EMIT timeDragged(static_cast<int>(day().order[held_->row]), held_->by == Held::By::not_before,
                           std::clamp(time, 0.0, 86400.0 - step));
        return;
    }
    constexpr double slop = 6;
    if (!listed_ || (!target_ && std::abs(event->position().y() - held_->from) < slop)) return;
    target_ = rowAt(event->position().y());
    setCursor(Qt::ClosedHandCursor);
    update();
}

void DayDrawing::mouseReleaseEvent(QMouseEvent*) {
    const auto held = std::exchange(held_, std::nullopt);
    const auto target = std::exchange(target_, std::nullopt);
    update();
    if (held && target && *target != held->row && listed_)
        Q_EMIT shotMoved(static_cast<int>(held->row), static_cast<int>(*target));
}

void DayDrawing::mouseDoubleClickEvent(QMouseEvent* event) {
    if (heldAt(event->position())) Q_EMIT shotWanted();
}

/// Up and down choose a line, with Alt they move it; Enter opens its shot.
void DayDrawing::keyPressEvent(QKeyEvent* event) {
    if (!plan_) return QWidget::keyPressEvent(event);
    const auto& order = day().order;
    const auto now = std::ranges::find(order, static_cast<std::size_t>(std::max(selected_, 0)));
    const auto row = static_cast<int>(now - order.begin());
    const int by = event->key() == Qt::Key_Up ? -1 : event->key() == Qt::Key_Down ? 1 : 0;
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return Q_EMIT shotWanted();
    if (by == 0) return QWidget::keyPressEvent(event);
    const int next = row + by;
    if (next < 0 || next >= static_cast<int>(order.size())) return;
    if (event->modifiers() & Qt::AltModifier) {
        if (listed_) Q_EMIT shotMoved(row, next);
        return;
    }
    Q_EMIT shotClicked(static_cast<int>(order[static_cast<std::size_t>(next)]));
}

}  // namespace poquito::desk

#include "desk/day/moc_day_drawing.moc"
