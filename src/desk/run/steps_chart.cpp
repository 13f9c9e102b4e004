#include "desk/run/steps_chart.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/plan.hpp"
#include "text/text.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::desk {

StepsChart::StepsChart(const Document& document, QWidget* parent) : Chart(parent), document_(document) {
    setObjectName(QStringLiteral("stepsChart"));
    setAccessibleName(tr("Travel of a step against the camera's setting"));
    setMargins(58, 30, 12, 36);
}

double StepsChart::stepOf(double setting) const {
    return fit_->ring_step(setting, document_.shot()->exposure.f_number) * rate_;
}

double StepsChart::spreadOf(double setting) const {
    return std::exp(2 * fit_->uncertainty(setting, document_.shot()->exposure.f_number));
}

bool StepsChart::prepare() {
    if (!document_.shot()) return false;
    const auto& plan = document_.assessment()->plan;
    rate_ = std::abs(plan::travel_per_ring(plan.train, plan.at.ring));
    fit_ = plan::fit_steps(plan.camera.step_readings, plan.lens.id);
    if (!std::isfinite(rate_) || rate_ <= 0) fit_.reset();
    if (!fit_) return true;
    const double greatest = std::max(plan.camera.bracket.step_settings, 2);
    std::vector<double> steps;
    for (const double setting : {1.0, greatest}) {
        steps.push_back(stepOf(setting) * spreadOf(setting));
        steps.push_back(stepOf(setting) / spreadOf(setting));
    }
    for (const auto& reading : plan.camera.step_readings)
        if (reading.lens == plan.lens.id) steps.push_back(reading.ring_step * rate_);
    if (const auto& wanted = document_.report()->capture.by_rule.step) steps.push_back(*wanted);
    const auto [least, most] = std::ranges::minmax(steps);
    setAxes(Axis::ratios(1, greatest), Axis::ratios(least * 0.8, most * 1.25));
    return true;
}

void StepsChart::draw(QPainter& painter) {
    const auto& plan = document_.assessment()->plan;
    drawTitle(painter, tr("A step at the subject, at %1 and %2")
                           .arg(toQt(text::magnification_text(plan.at.magnification)),
                                toQt(text::f_number_text(plan.shot.exposure.f_number))));
    if (!fit_) {
        painter.setFont(textFont(12));
        painter.setPen(theme().quiet);
        painter.drawText(
            QRectF(rect()).adjusted(0, 24, -8, 0), Qt::TextWordWrap,
            tr("Nothing measured yet with %1. Photograph a rule that leans back 45\u00b0 as a bracket at a "
               "known setting and stop; enter how far focus went.")
                .arg(toQt(plan.lens.name)));
        return;
    }
    if (area().height() < 30) return;
    drawScales(painter);
    clipToArea(painter, 6);
    drawFit(painter);
    painter.setClipping(false);
    drawWanted(painter);
    const QString axis = tr("setting, narrow to wide"), legend = tr("\u25cf this stop  \u25cb another");
    const QFont font = textFont(11);
    if (lineWidth(font, axis) + lineWidth(font, legend) + 12 < area().width()) drawNote(painter, Qt::AlignRight, axis);
    drawNote(painter, Qt::AlignLeft, legend);
}

void StepsChart::drawScales(QPainter& painter) const {
    std::vector<Mark> rows, columns;
    for (const double mark : decadeMarks(yAxis().from(), yAxis().to()))
        rows.push_back({mark, toQt(text::length_text(mark))});
    const int greatest = static_cast<int>(xAxis().to());
    for (int setting = 1; setting <= greatest; ++setting) {
        // The ends are always named; between them what has room, the fives before the rest.
        const bool room = setting == 1 || setting == greatest || xOf(greatest) - xOf(setting) > 20;
        const bool named =
            setting < 5 || xOf(setting + 1) - xOf(setting) > 13 || setting == greatest || setting % 5 == 0;
        columns.push_back({static_cast<double>(setting), room && named ? QString::number(setting) : QString()});
    }
    drawRows(painter, rows);
    drawColumns(painter, columns, Lines::ticks);
}

void StepsChart::drawFit(QPainter& painter) const {
    const Theme& t = theme();
    const auto& plan = document_.assessment()->plan;
    QPolygonF upper, lower;
    for (const double setting : xAxis().places(40)) {
        upper << placeOf(setting, stepOf(setting) * spreadOf(setting));
        lower.prepend(placeOf(setting, stepOf(setting) / spreadOf(setting)));
    }
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.linkWash);
    painter.drawPolygon(upper + lower);
    drawCurve(painter, QPen(t.link, 2), [this](double setting) { return stepOf(setting); });
    for (const auto& reading : plan.camera.step_readings) {
        if (reading.lens != plan.lens.id) continue;
        const bool same_stop = std::abs(reading.f_number / plan.shot.exposure.f_number - 1) < 0.02;
        painter.setPen(QPen(t.ink, 1.3));
        painter.setBrush(same_stop ? QBrush(t.ink) : QBrush(t.panel));
        painter.drawEllipse(placeOf(reading.setting, reading.ring_step * rate_), 3.5, 3.5);
    }
}

/// What the plan allows, and the setting it comes to.
void StepsChart::drawWanted(QPainter& painter) const {
    const Theme& t = theme();
    const auto& capture = document_.report()->capture;
    painter.setFont(textFont(11));
    if (const auto& wanted = capture.by_rule.step) {
        drawAcross(painter, QPen(t.focus, 1.5, Qt::DashLine), *wanted);
        drawLabel(painter, {area().left() + 6, yOf(*wanted) - 9}, Qt::AlignLeft | Qt::AlignVCenter,
                  tr("the plan allows %1").arg(toQt(text::length_text(*wanted))), t.focus);
    }
    if (!capture.stack || !capture.stack->bracket() || !capture.stack->bracket()->choice) return;
    const auto& choice = *capture.stack->bracket()->choice;
    painter.setPen(QPen(t.focus, 3));
    painter.drawLine(placeOf(choice.setting, choice.least), placeOf(choice.setting, choice.greatest));
    painter.setBrush(t.focus);
    painter.drawEllipse(placeOf(choice.setting, choice.step), 5, 5);
}

QString StepsChart::reading(double setting, double) const {
    if (!fit_) return {};
    const double whole = std::round(setting);
    return tr("setting %1: %2, between %3 and %4")
        .arg(whole)
        .arg(toQt(text::length_text(stepOf(whole))), toQt(text::length_text(stepOf(whole) / spreadOf(whole))),
             toQt(text::length_text(stepOf(whole) * spreadOf(whole))));
}

}  // namespace poquito::desk

#include "desk/run/moc_steps_chart.moc"
