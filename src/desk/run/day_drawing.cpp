#include "desk/run/day_drawing.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
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

void DayDrawing::paintEvent(QPaintEvent*) {
    if (!plan_ || plan_->best.order.empty()) return;
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto& day = plan_->best;
    const auto& problem = plan_->problem;
    const double names = std::min(150.0, width() * 0.27), changes = std::min(196.0, width() * 0.34);
    const QRectF field(names + 44, head, width() - names - 44 - changes - 8,
                       rowHeight() * static_cast<double>(day.order.size()));
    const double begin = problem.begin, end = std::max(day.finish, begin + 60);
    const auto x = [&](double time) { return field.left() + (time - begin) / (end - begin) * field.width(); };
    // Hours and their parts.
    painter.setFont(textFont(11));
    const double steps[] = {300, 600, 900, 1800, 3600, 7200, 14400};
    double step = steps[6];
    for (const double candidate : steps)
        if ((end - begin) / candidate <= field.width() / 52) {
            step = candidate;
            break;
        }
    while ((end - begin) / step > field.width() / 26) step *= 2;  // a plan for weeks
    for (double mark = std::ceil(begin / step) * step; mark <= end; mark += step) {
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(x(mark), head - 3), QPointF(x(mark), field.bottom()));
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(x(mark) - 26, 0, 52, 15), Qt::AlignHCenter | Qt::AlignVCenter,
                 QString::fromStdString(text::day_time_text(mark)));
    }
    for (std::size_t k = 0; k < day.order.size(); ++k) {
        const auto job = day.order[k];
        const double top = head + rowHeight() * static_cast<double>(k);
        const QRectF row(0, top, width(), rowHeight());
        if (static_cast<int>(job) == selected_) painter.fillRect(row, t.linkWash);
        const double start = day.start[k], finish = start + problem.duration[job];
        const double before = k > 0 ? day.start[k - 1] + problem.duration[day.order[k - 1]] : begin;
        const double change = k > 0 ? problem.change[day.order[k - 1]][job] : 0;
        const double y = row.center().y(), half = 5;
        if (change > 0)
            painter.fillRect(QRectF(QPointF(x(before), y - half), QPointF(x(before + change), y + half)), t.caution);
        if (start > before + change + 1) {
            painter.setPen(QPen(t.quiet, 1.2, Qt::DotLine));
            painter.drawLine(QPointF(x(before + change), y), QPointF(x(start), y));
        }
        const bool late = problem.done_by[job] && finish > *problem.done_by[job] + 1e-6;
        painter.fillRect(QRectF(QPointF(x(start), y - half), QPointF(std::max(x(finish), x(start) + 2), y + half)),
                         late ? t.stop : t.focus);
        const auto fence = [&](const std::optional<double>& time, bool from) {
            if (!time || *time < begin || *time > end) return;
            painter.setPen(QPen(t.link, 2));
            const double at = x(*time), tick = from ? 5 : -5;
            painter.drawLine(QPointF(at, row.top() + 2), QPointF(at, row.bottom() - 2));
            painter.drawLine(QPointF(at, row.top() + 2), QPointF(at + tick, row.top() + 2));
            painter.drawLine(QPointF(at, row.bottom() - 2), QPointF(at + tick, row.bottom() - 2));
        };
        fence(problem.not_before[job], true);
        fence(problem.done_by[job], false);
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(0, top, 38, rowHeight()), Qt::AlignRight | Qt::AlignVCenter,
                 QString::fromStdString(text::day_time_text(start)));
        painter.setPen(t.ink);
        painter.setFont(textFont(12));
        drawLine(painter, QRectF(44, top, names - 6, rowHeight()), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(textFont(12), plan_->names[job], names - 6));
        painter.setFont(textFont(11));
        painter.setPen(late ? t.stop : t.quiet);
        const QString words =
            late ? tr("%1 late").arg(QString::fromStdString(text::time_text(finish - *problem.done_by[job])))
                 : plan_->changes[k];
        drawLine(painter, QRectF(width() - changes, top, changes, rowHeight()), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(textFont(11), words, changes));
    }
}

void DayDrawing::mousePressEvent(QMouseEvent* event) {
    if (!plan_) return;
    const double row = (event->position().y() - head) / rowHeight();
    if (row < 0 || row >= static_cast<double>(plan_->best.order.size())) return;
    Q_EMIT shotClicked(static_cast<int>(plan_->best.order[static_cast<std::size_t>(row)]));
}

}  // namespace poquito::desk
