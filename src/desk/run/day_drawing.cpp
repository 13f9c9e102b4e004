#include "desk/run/day_drawing.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/run/order_leaf.hpp"
#include "text/text.hpp"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double head = 20;
constexpr double least_row = 19;
constexpr double most_row = 26;

}  // namespace

DayDrawing::DayDrawing(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("dayDrawing"));
    setAccessibleName(tr("The day, one line a shot"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void DayDrawing::setPlan(const DayPlan* plan, int selected) {
    plan_ = plan;
    selected_ = selected;
    const auto rows = plan ? static_cast<double>(plan->best.order.size()) : 0;
    setMinimumHeight(static_cast<int>(head + rows * least_row + 4));
    QStringList lines;
    if (plan)
        for (std::size_t k = 0; k < plan->best.order.size(); ++k)
            lines += QString::fromStdString(text::day_time_text(plan->best.start[k])) + QLatin1Char(' ') +
                     plan->names[plan->best.order[k]];
    setAccessibleDescription(lines.join(QStringLiteral("; ")));
    update();
}

QSize DayDrawing::sizeHint() const { return {420, minimumHeight()}; }

double DayDrawing::rowHeight() const {
    const auto rows = plan_ ? static_cast<double>(std::max<std::size_t>(plan_->best.order.size(), 1)) : 1;
    return std::clamp((height() - head) / rows, least_row, most_row);
}

double DayDrawing::namesWidth() const { return std::min(150.0, width() * 0.27); }
double DayDrawing::changesWidth() const { return std::min(196.0, width() * 0.34); }

QRectF DayDrawing::field() const {
    return {namesWidth() + 44, head, width() - namesWidth() - 44 - changesWidth() - 8,
            rowHeight() * static_cast<double>(plan_->best.order.size())};
}

double DayDrawing::xOf(double time) const {
    const double begin = plan_->problem.begin, end = std::max(plan_->best.finish, begin + 60);
    return field().left() + (time - begin) / (end - begin) * field().width();
}

void DayDrawing::paintEvent(QPaintEvent*) {
    if (!plan_ || plan_->best.order.empty()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    drawHours(painter);
    for (std::size_t k = 0; k < plan_->best.order.size(); ++k) {
        drawWork(painter, k);
        drawWords(painter, k);
    }
}

/// Hours and their parts.
void DayDrawing::drawHours(QPainter& painter) const {
    const Theme& t = theme();
    const double begin = plan_->problem.begin, end = std::max(plan_->best.finish, begin + 60);
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
    const auto& day = plan_->best;
    const auto& problem = plan_->problem;
    const auto job = day.order[k];
    const QRectF row(0, head + rowHeight() * static_cast<double>(k), width(), rowHeight());
    if (static_cast<int>(job) == selected_) painter.fillRect(row, t.linkWash);
    const double start = day.start[k], finish = start + problem.duration[job];
    const double before = k > 0 ? day.start[k - 1] + problem.duration[day.order[k - 1]] : problem.begin;
    const double change = k > 0 ? problem.change[day.order[k - 1]][job] : 0;
    const double y = row.center().y(), half = 5;
    if (change > 0)
        painter.fillRect(QRectF(QPointF(xOf(before), y - half), QPointF(xOf(before + change), y + half)), t.caution);
    if (start > before + change + 1) {
        painter.setPen(QPen(t.quiet, 1.2, Qt::DotLine));
        painter.drawLine(QPointF(xOf(before + change), y), QPointF(xOf(start), y));
    }
    painter.fillRect(QRectF(QPointF(xOf(start), y - half), QPointF(std::max(xOf(finish), xOf(start) + 2), y + half)),
                     isLate(k) ? t.stop : t.focus);
    const auto fence = [&](const std::optional<double>& time, bool from) {
        if (!time || *time < problem.begin || *time > std::max(day.finish, problem.begin + 60)) return;
        painter.setPen(QPen(t.link, 2));
        const double at = xOf(*time), tick = from ? 5 : -5;
        painter.drawLine(QPointF(at, row.top() + 2), QPointF(at, row.bottom() - 2));
        painter.drawLine(QPointF(at, row.top() + 2), QPointF(at + tick, row.top() + 2));
        painter.drawLine(QPointF(at, row.bottom() - 2), QPointF(at + tick, row.bottom() - 2));
    };
    fence(problem.not_before[job], true);
    fence(problem.done_by[job], false);
}

double DayDrawing::lateness(std::size_t k) const {
    const auto job = plan_->best.order[k];
    const auto& done_by = plan_->problem.done_by[job];
    return done_by ? plan_->best.start[k] + plan_->problem.duration[job] - *done_by : 0;
}

bool DayDrawing::isLate(std::size_t k) const { return lateness(k) > 1e-6; }

void DayDrawing::drawWords(QPainter& painter, std::size_t k) const {
    const Theme& t = theme();
    const double top = head + rowHeight() * static_cast<double>(k), names = namesWidth() - 6;
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(0, top, 38, rowHeight()), Qt::AlignRight | Qt::AlignVCenter,
             toQt(text::day_time_text(plan_->best.start[k])));
    painter.setPen(t.ink);
    painter.setFont(textFont(12));
    drawLine(painter, QRectF(44, top, names, rowHeight()), Qt::AlignLeft | Qt::AlignVCenter,
             elided(textFont(12), plan_->names[plan_->best.order[k]], names));
    painter.setFont(textFont(11));
    painter.setPen(isLate(k) ? t.stop : t.quiet);
    const QString words = isLate(k) ? tr("%1 late").arg(toQt(text::time_text(lateness(k)))) : plan_->changes[k];
    drawLine(painter, QRectF(width() - changesWidth(), top, changesWidth(), rowHeight()),
             Qt::AlignLeft | Qt::AlignVCenter, elided(textFont(11), words, changesWidth()));
}

void DayDrawing::mousePressEvent(QMouseEvent* event) {
    if (!plan_) return;
    const double row = (event->position().y() - head) / rowHeight();
    if (row < 0 || row >= static_cast<double>(plan_->best.order.size())) return;
    Q_EMIT shotClicked(static_cast<int>(plan_->best.order[static_cast<std::size_t>(row)]));
}

}  // namespace poquito::desk
