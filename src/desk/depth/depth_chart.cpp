#include "desk/depth/depth_chart.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "optics/diffraction.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <QMouseEvent>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

/// Blurs at the sensor in mm for one marked stop. Proportional to 1/N and N: two readings of the report suffice.
struct Blurs {
    double ends = 0;
    double airy = 0;
    double sum() const { return std::hypot(ends, airy); }
};

Blurs blurs_at(const shoot::Shot& shot, const plan::Report& report, double f_number) {
    const double ratio = f_number / shot.exposure.f_number;
    return {.ends = report.sharpness.edge_blur.value_or(0) / ratio, .airy = report.sharpness.airy_diameter * ratio};
}

/// The pixel and output schools' limits, but for the one that rules.
std::vector<std::pair<QString, double>> otherLimits(const plan::Plan& plan) {
    std::vector<std::pair<QString, double>> limits;
    const auto add = [&](shoot::BlurRule rule, const QString& name) {
        if (plan.shot.sharpness.rule == rule) return;
        shoot::Sharpness other = plan.shot.sharpness;
        other.rule = rule;
        limits.emplace_back(name, plan::blur_limit(plan.sensor, other));
    };
    add(shoot::BlurRule::pixel, QObject::tr("pixels"));
    add(shoot::BlurRule::output, QObject::tr("output"));
    return limits;
}

QString microns(double mm) { return QObject::tr("%1 \u00b5m").arg(toQt(text::number_text(mm * 1000, 2))); }

}  // namespace

DepthChart::DepthChart(Document& document, QWidget* parent) : Chart(parent), document_(document) {
    setObjectName(QStringLiteral("depthChart"));
    setAccessibleName(tr("Blur over the marked stop"));
    setToolTip(tr("Click or drag to take a stop; arrow keys step it"));
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::StrongFocus);
    setMargins(40, 36, 14, 20);
}

const shoot::Shot& DepthChart::shot() const { return *document_.shot(); }
const plan::Report& DepthChart::report() const { return *document_.report(); }
const plan::Plan& DepthChart::plan() const { return document_.assessment()->plan; }
bool DepthChart::hasEnds() const { return report().extent.depth > 0 && report().sharpness.edge_blur; }

bool DepthChart::prepare() {
    if (!document_.shot()) return false;
    const auto& optics = plan().lens.optics;
    const Axis stops = Axis::ratios(optics.max_aperture, std::max(optics.min_aperture, optics.max_aperture * 1.5));
    const double limit = report().sharpness.blur_limit;
    double least = limit / 2, greatest = limit * 4;
    for (const double f : {stops.from(), stops.to()}) {
        const auto blurs = blurs_at(shot(), report(), f);
        least = std::min(least, blurs.airy * 0.8);
        if (const double most = blurs.sum() * 1.2; std::isfinite(most)) greatest = std::max(greatest, most);
    }
    setAxes(stops, Axis::ratios(least, greatest));
    otherLimits_ = otherLimits(plan());
    return true;
}

void DepthChart::draw(QPainter& painter) {
    drawTitle(painter, report().extent.depth > 0 ? tr("Blur in \u00b5m over %1 of depth; above, the frames of a stack")
                                                       .arg(toQt(text::length_text(report().extent.depth)))
                                                 : tr("Blur in \u00b5m of a flat subject"));
    drawScales(painter);
    clipToArea(painter);
    drawBlurs(painter);
    drawLimits(painter);
    drawStops(painter);
    drawNames(painter);
}

/// Doublings of blur, full stops of aperture; above them how many frames a stack takes at each, and from where one
/// holds all.
void DepthChart::drawScales(QPainter& painter) const {
    const QRectF all = area();
    const double least = yAxis().from(), greatest = yAxis().to();
    const int every =
        std::max(1, static_cast<int>(std::ceil(std::ceil(std::log2(greatest / least)) * 20 / all.height())));
    std::vector<Mark> blurs, stops;
    double blur = 0.000625;
    while (blur < least) blur *= 2;
    for (; blur <= greatest; blur *= std::exp2(every)) blurs.push_back({blur, toQt(text::number_text(blur * 1000, 2))});
    for (double f = xAxis().from(); f <= xAxis().to() * 1.001; f = text::step_f_number(f, 3)) {
        stops.push_back({f, toQt(text::f_number_text(f))});
        if (text::step_f_number(f, 3) <= f) break;
    }
    constexpr double apart = 40;
    drawRows(painter, blurs);
    drawColumns(painter, stops, Lines::ticks, apart);
    if (!hasEnds()) return;
    const double enough = *report().sharpness.edge_blur * shot().exposure.f_number / report().sharpness.blur_limit;
    const double from = std::min(xOf(enough), all.right());
    if (from > all.left())
        painter.fillRect(QRectF(QPointF(all.left(), all.top() - 17), QPointF(from, all.top() - 2)), theme().focusWash);
    painter.setPen(theme().ink);
    double last = -1e9;
    for (const Mark& stop : stops) {
        const double x = xOf(stop.value);
        if (x < last + apart) continue;
        last = x;
        if (const auto frames = plan::stack_frames_at(plan(), stop.value))
            drawLine(painter, {x - 24, all.top() - 17, 48, 15}, Qt::AlignCenter, toQt(text::number_text(*frames, 6)));
    }
}

/// Straight on these axes but for the sum.
void DepthChart::drawBlurs(QPainter& painter) const {
    const Theme& t = theme();
    const auto curve = [&](const QPen& pen, double (*value)(const Blurs&)) {
        drawCurve(painter, pen, [&](double f) { return value(blurs_at(shot(), report(), f)); });
    };
    curve(QPen(t.caution, 1.4, Qt::DotLine), [](const Blurs& b) { return b.airy; });
    if (!hasEnds()) return;
    curve(QPen(t.link, 1.4, Qt::DashLine), [](const Blurs& b) { return b.ends; });
    curve(QPen(t.ink, 2), [](const Blurs& b) { return b.sum(); });
}

/// The other schools' limits, thin; the one that rules, strong.
void DepthChart::drawLimits(QPainter& painter) const {
    for (const auto& [name, mm] : otherLimits_)
        if (mm >= yAxis().from() && mm <= yAxis().to())
            drawAcross(painter, QPen(theme().quiet, 1, Qt::DashDotLine), mm);
    drawAcross(painter, QPen(theme().focus, 1.4), report().sharpness.blur_limit);
}

/// The best stop, and the one that is set.
void DepthChart::drawStops(QPainter& painter) const {
    const Theme& t = theme();
    const QRectF all = area();
    const auto& best = report().sharpness.best_single_f_number;
    if (best && *best >= xAxis().from() && *best <= xAxis().to())
        drawUpright(painter, QPen(t.quiet, 1, Qt::DashLine), *best);
    drawUpright(painter, QPen(t.focus, 2), shot().exposure.f_number);
    painter.setClipping(false);
    const double here = xOf(shot().exposure.f_number);
    if (here < all.left() - 1 || here > all.right() + 1) return;
    QPainterPath grip(QPointF(here, all.top() + 2));
    grip.lineTo(here - 5, all.top() - 6);
    grip.lineTo(here + 5, all.top() - 6);
    grip.closeSubpath();
    painter.fillPath(grip, hasFocus() ? t.link : t.focus);
}

/// At the curves' own ends.
void DepthChart::drawNames(QPainter& painter) const {
    const Theme& t = theme();
    const QRectF all = area();
    const double limit = report().sharpness.blur_limit;
    const auto y_of = [&](double mm) { return yOf(yAxis().clamped(mm)); };
    const auto widest = blurs_at(shot(), report(), xAxis().from()), smallest = blurs_at(shot(), report(), xAxis().to());
    painter.setFont(textFont(11));
    QRectF ends;
    if (hasEnds())
        ends = drawLabel(painter, {all.right() - 2, std::min(y_of(smallest.ends) + 12, all.bottom() - 10)},
                         Qt::AlignRight | Qt::AlignVCenter, tr("ends of the subject"), t.link);
    // In the middle of its line, further left where the other name is in the way.
    const double wide = lineWidth(painter.font(), tr("diffraction")) + 6;
    for (const double share : {0.5, 0.35, 0.2}) {
        const QPointF at(xOf(xAxis().at(share)) + 6,
                         y_of(widest.airy * std::pow(smallest.airy / widest.airy, share)) + 10);
        if (ends.intersects(QRectF(at.x(), at.y() - 8, wide, 16)) && share > 0.2) continue;
        drawLabel(painter, at, Qt::AlignLeft | Qt::AlignVCenter, tr("diffraction"), t.caution);
        break;
    }
    QList<QRectF> taken = {drawLabel(painter, {all.left() + 4, y_of(limit) + 10}, Qt::AlignLeft | Qt::AlignVCenter,
                                     tr("your limit %1").arg(toQt(text::length_text(limit))), t.focus)};
    for (const auto& [name, mm] : otherLimits_) {
        if (mm < yAxis().from() || mm > yAxis().to()) continue;
        const QString words = tr("%1 %2").arg(name, toQt(text::length_text(mm)));
        const QRectF room(all.left() + 4, y_of(mm) - 15, lineWidth(painter.font(), words) + 6, 16);
        if (std::ranges::any_of(taken, [&](const QRectF& other) { return other.intersects(room); })) continue;
        taken << drawLabel(painter, {room.left(), room.center().y()}, Qt::AlignLeft | Qt::AlignVCenter, words, t.quiet);
    }
    const auto& best = report().sharpness.best_single_f_number;
    if (!best || *best < xAxis().from() || *best > xAxis().to()) return;
    const bool right_half = xOf(*best) > all.center().x();
    drawLabel(painter, {xOf(*best) + (right_half ? -4 : 4), all.top() + 8},
              (right_half ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
              tr("least: %1").arg(toQt(text::f_number_text(*best))), t.quiet);
}

QString DepthChart::reading(double fNumber, double) const {
    const auto blurs = blurs_at(shot(), report(), fNumber);
    const auto stop = toQt(text::f_number_text(fNumber));
    if (!hasEnds()) return tr("%1: diffraction %2").arg(stop, microns(blurs.airy));
    return tr("%1: ends %2, diffraction %3, both %4")
        .arg(stop, microns(blurs.ends), microns(blurs.airy), microns(blurs.sum()));
}

void DepthChart::mousePressEvent(QMouseEvent* event) {
    ++drag_;
    if (document_.shot()) take(event->position().x());
}

void DepthChart::mouseMoveEvent(QMouseEvent* event) {
    if (document_.shot() && (event->buttons() & Qt::LeftButton)) take(event->position().x());
    Chart::mouseMoveEvent(event);
}

/// The mark of the scale nearest to the place, kept on the lens.
void DepthChart::take(double x) {
    const double wanted = xAxis().clamped(xAt(x));
    const double above = text::step_f_number(wanted, 1), below = text::step_f_number(above, -1);
    const double nearest = xAxis().clamped(std::log(above / wanted) < std::log(wanted / below) ? above : below);
    document_.editShot({tr("Take a stop"), QStringLiteral("depthChart#%1").arg(drag_)},
                       [&](shoot::Shot& shot) { shot.exposure.f_number = nearest; });
}

bool DepthChart::step(int right, int) {
    if (right == 0 || !document_.shot()) return false;
    const double next = xAxis().clamped(text::step_f_number(shot().exposure.f_number, right));
    document_.editShot({tr("Take a stop"), QStringLiteral("depthChart keys")},
                       [&](shoot::Shot& shot) { shot.exposure.f_number = next; });
    return true;
}

}  // namespace poquito::desk

#include "desk/depth/moc_depth_chart.moc"
