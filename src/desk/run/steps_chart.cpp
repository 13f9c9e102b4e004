#include "desk/run/steps_chart.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/document.hpp"
#include "plan/plan.hpp"
#include "plan/stack/step_sizes.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

StepsChart::StepsChart(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("stepsChart"));
    setAccessibleName(tr("Travel of a step against the camera's setting"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void StepsChart::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    const Theme& t = theme();
    const auto& plan = document_.assessment()->plan;
    const auto& report = *document_.report();
    const double rate = std::abs(plan::travel_per_ring(plan.train, plan.at.ring));
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    drawLine(painter, QRectF(0, 0, width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
             elided(textFont(12, QFont::DemiBold),
                    tr("A step at the subject, at %1 and %2")
                        .arg(QString::fromStdString(text::magnification_text(plan.at.magnification)),
                             QString::fromStdString(text::f_number_text(shot->exposure.f_number))),
                    width()));
    const auto fit = plan::fit_steps(plan.camera.step_readings, plan.lens.id);
    painter.setFont(textFont(12));
    if (!fit || !std::isfinite(rate) || rate <= 0) {
        painter.setPen(t.quiet);
        painter.drawText(
            QRectF(rect()).adjusted(0, 24, -8, 0), Qt::TextWordWrap,
            tr("Nothing measured yet with %1. Photograph a rule that leans back 45\u00b0 as a bracket at a "
               "known setting and stop; enter how far focus went.")
                .arg(QString::fromStdString(plan.lens.name)));
        return;
    }
    const int greatest = std::max(plan.camera.bracket.step_settings, 2);
    const double stop = shot->exposure.f_number;
    const auto& wanted = report.capture.by_rule.step;
    std::vector<double> values;
    for (const int setting : {1, greatest}) {
        const double step = fit->ring_step(setting, stop) * rate,
                     factor = std::exp(2 * fit->uncertainty(setting, stop));
        values.push_back(step * factor);
        values.push_back(step / factor);
    }
    for (const auto& reading : plan.camera.step_readings)
        if (reading.lens == plan.lens.id) values.push_back(reading.ring_step * rate);
    if (wanted) values.push_back(*wanted);
    const auto [least_at, most_at] = std::minmax_element(values.begin(), values.end());
    const double low = std::log(*least_at * 0.8), high = std::log(*most_at * 1.25);
    const QRectF field(58, 30, width() - 70, height() - 30 - 36);
    if (field.height() < 30) return;
    const auto x = [&](double setting) {
        return field.left() + std::log(setting) / std::log(static_cast<double>(greatest)) * field.width();
    };
    const auto y = [&](double step) { return field.bottom() - (std::log(step) - low) / (high - low) * field.height(); };
    painter.setFont(textFont(11));
    for (const double mark : decadeMarks(std::exp(low), std::exp(high))) {
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(field.left(), y(mark)), QPointF(field.right(), y(mark)));
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(0, y(mark) - 8, 52, 16), Qt::AlignRight | Qt::AlignVCenter,
                 QString::fromStdString(text::length_text(mark)));
    }
    for (int setting = 1; setting <= greatest; ++setting) {
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(x(setting), field.bottom()), QPointF(x(setting), field.bottom() + 4));
        painter.setPen(t.quiet);
        const bool room = setting == 1 || setting == greatest || x(greatest) - x(setting) > 20;
        if (room && (setting < 5 || x(setting + 1) - x(setting) > 13 || setting == greatest || setting % 5 == 0))
            drawLine(painter, QRectF(x(setting) - 12, field.bottom() + 4, 24, 14), Qt::AlignHCenter | Qt::AlignVCenter,
                     QString::number(setting));
    }
    drawLine(painter, QRectF(field.left(), field.bottom() + 19, field.width(), 14), Qt::AlignRight | Qt::AlignVCenter,
             tr("setting, narrow to wide"));
    QPolygonF upper, lower, middle;
    constexpr int points = 40;
    for (int i = 0; i <= points; ++i) {
        const double setting = std::exp(std::log(static_cast<double>(greatest)) * i / points);
        const double step = fit->ring_step(setting, stop) * rate,
                     factor = std::exp(2 * fit->uncertainty(setting, stop));
        middle << QPointF(x(setting), y(step));
        upper << QPointF(x(setting), y(step * factor));
        lower.prepend(QPointF(x(setting), y(step / factor)));
    }
    painter.setClipRect(field.adjusted(-6, -6, 6, 6));
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.linkWash);
    painter.drawPolygon(upper + lower);
    painter.setPen(QPen(t.link, 2));
    painter.drawPolyline(middle);
    for (const auto& reading : plan.camera.step_readings) {
        if (reading.lens != plan.lens.id) continue;
        const bool same_stop = std::abs(reading.f_number / stop - 1) < 0.02;
        painter.setPen(QPen(t.ink, 1.3));
        painter.setBrush(same_stop ? QBrush(t.ink) : QBrush(t.panel));
        painter.drawEllipse(QPointF(x(reading.setting), y(reading.ring_step * rate)), 3.5, 3.5);
    }
    painter.setClipping(false);
    if (wanted) {
        painter.setPen(QPen(t.focus, 1.5, Qt::DashLine));
        painter.drawLine(QPointF(field.left(), y(*wanted)), QPointF(field.right(), y(*wanted)));
        drawLabel(painter, {field.left() + 6, y(*wanted) - 9}, Qt::AlignLeft | Qt::AlignVCenter,
                  tr("the plan allows %1").arg(QString::fromStdString(text::length_text(*wanted))), t.focus);
    }
    const auto& stack = report.capture.stack;
    if (stack && stack->bracket() && stack->bracket()->choice) {
        const auto& choice = *stack->bracket()->choice;
        painter.setPen(QPen(t.focus, 3));
        painter.drawLine(QPointF(x(choice.setting), y(choice.least)), QPointF(x(choice.setting), y(choice.greatest)));
        painter.setBrush(t.focus);
        painter.drawEllipse(QPointF(x(choice.setting), y(choice.step)), 5, 5);
    }
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(field.left(), field.bottom() + 19, field.width() * 0.6, 14),
             Qt::AlignLeft | Qt::AlignVCenter, tr("\u25cf this stop  \u25cb another"));
}

}  // namespace poquito::desk
