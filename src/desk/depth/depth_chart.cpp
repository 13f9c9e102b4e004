#include "desk/depth/depth_chart.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/document.hpp"
#include "optics/diffraction.hpp"
#include "plan/plan.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

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

}  // namespace

DepthChart::DepthChart(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("depthChart"));
    setAccessibleName(tr("Blur over the marked stop"));
    setToolTip(tr("Click or drag to take a stop"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setCursor(Qt::PointingHandCursor);
}

DepthChart::Range DepthChart::range() const {
    const auto& optics = shoot::lens_of(document_.kit(), *document_.shot()).optics;
    return {.widest = optics.max_aperture, .smallest = std::max(optics.min_aperture, optics.max_aperture * 1.5)};
}

QRectF DepthChart::plot() const { return QRectF(rect()).adjusted(40, 36, -14, -20); }

double DepthChart::xOf(double fNumber) const {
    const auto r = range();
    return plot().left() + plot().width() * std::log(fNumber / r.widest) / std::log(r.smallest / r.widest);
}

double DepthChart::fNumberAt(double x) const {
    const auto r = range();
    return r.widest * std::pow(r.smallest / r.widest, (x - plot().left()) / plot().width());
}

void DepthChart::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    const auto& report = *document_.report();
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    painter.drawText(QPointF(0, 13), report.extent.depth > 0
                                         ? tr("Blur in µm over %1 of depth; above, the frames of a stack")
                                               .arg(QString::fromStdString(text::length_text(report.extent.depth)))
                                         : tr("Blur in µm of a flat subject"));
    const QRectF area = plot();
    const auto r = range();
    const double limit = report.sharpness.blur_limit;
    double least = limit / 2, greatest = limit * 4;
    for (const double f : {r.widest, r.smallest}) {
        const auto blurs = blurs_at(*shot, report, f);
        least = std::min(least, blurs.airy * 0.8);
        if (const double most = blurs.sum() * 1.2; std::isfinite(most)) greatest = std::max(greatest, most);
    }
    const auto y_of = [&](double mm) {
        return area.bottom() - area.height() * std::clamp(std::log(mm / least) / std::log(greatest / least), 0.0, 1.0);
    };
    // ---- scales: doublings of blur, full stops of aperture
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    const int rows = static_cast<int>(std::ceil(std::log2(greatest / least)));
    const int every = std::max(1, static_cast<int>(std::ceil(rows * 20 / area.height())));
    double mark = 0.000625;
    while (mark < least) mark *= 2;
    for (; mark <= greatest; mark *= std::exp2(every)) {
        const double y = y_of(mark);
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QLineF(area.left(), y, area.right(), y));
        painter.setPen(t.quiet);
        painter.drawText(QRectF(0, y - 8, 36, 16), Qt::AlignRight | Qt::AlignVCenter,
                         QString::fromStdString(text::number_text(mark * 1000, 2)));
    }
    // How many frames a stack takes at each stop; where one holds all, the stop is enough.
    const auto& plan = document_.assessment()->plan;
    const bool stacks = report.extent.depth > 0 && report.sharpness.edge_blur;
    if (stacks) {
        double enough = r.smallest * 2;  // from where the ends stay within the limit
        if (report.sharpness.edge_blur) enough = *report.sharpness.edge_blur * shot->exposure.f_number / limit;
        const double from = std::min(xOf(enough), area.right());
        if (from > area.left()) {
            painter.fillRect(QRectF(QPointF(area.left(), area.top() - 17), QPointF(from, area.top() - 2)), t.focusWash);
            painter.setPen(t.quiet);
        }
    }
    double next_free = -1e9;
    for (double f = r.widest; f <= r.smallest * 1.001; f = text::step_f_number(f, 3)) {
        const double x = xOf(f);
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QLineF(x, area.bottom(), x, area.bottom() + 4));
        if (x < next_free) continue;
        painter.setPen(t.quiet);
        painter.drawText(QRectF(x - 24, area.bottom() + 5, 48, 14), Qt::AlignHCenter,
                         QString::fromStdString(text::f_number_text(f)));
        if (const auto steps = stacks ? plan::stack_steps(plan, f) : std::nullopt) {
            painter.setPen(t.ink);
            painter.drawText(QRectF(x - 24, area.top() - 17, 48, 15), Qt::AlignCenter,
                             QString::fromStdString(text::number_text(steps->frames, 6)));
        }
        next_free = x + 40;
        if (text::step_f_number(f, 3) <= f) break;
    }
    // ---- curves, straight on log axes but for the sum
    const auto curve = [&](auto value, const QPen& pen) {
        QPainterPath path;
        for (int i = 0; i <= 60; ++i) {
            const double f = r.widest * std::pow(r.smallest / r.widest, i / 60.0);
            const QPointF p(xOf(f), y_of(value(blurs_at(*shot, report, f))));
            if (i == 0)
                path.moveTo(p);
            else
                path.lineTo(p);
        }
        painter.setPen(pen);
        painter.drawPath(path);
    };
    painter.setBrush(Qt::NoBrush);
    painter.setClipRect(area.adjusted(-1, -1, 1, 1));
    curve([](const Blurs& b) { return b.airy; }, QPen(t.caution, 1.4, Qt::DotLine));
    if (report.extent.depth > 0 && report.sharpness.edge_blur) {
        curve([](const Blurs& b) { return b.ends; }, QPen(t.link, 1.4, Qt::DashLine));
        curve([](const Blurs& b) { return b.sum(); }, QPen(t.ink, 2));
    }
    // The other schools' limits, thin; the one that rules, strong.
    const auto other_limits = otherLimits(plan);
    for (const auto& [name, mm] : other_limits) {
        if (mm < least || mm > greatest) continue;
        painter.setPen(QPen(t.quiet, 1, Qt::DashDotLine));
        painter.drawLine(QLineF(area.left(), y_of(mm), area.right(), y_of(mm)));
    }
    painter.setPen(QPen(t.focus, 1.4));
    painter.drawLine(QLineF(area.left(), y_of(limit), area.right(), y_of(limit)));
    const auto& best = report.sharpness.best_single_f_number;
    const bool best_shown = best && *best >= r.widest && *best <= r.smallest;
    if (best_shown) {
        painter.setPen(QPen(t.quiet, 1, Qt::DashLine));
        painter.drawLine(QLineF(xOf(*best), area.top(), xOf(*best), area.bottom()));
    }
    const double here = xOf(shot->exposure.f_number);
    painter.setPen(QPen(t.focus, 2));
    painter.drawLine(QLineF(here, area.top(), here, area.bottom()));
    painter.setClipping(false);
    if (here >= area.left() - 1 && here <= area.right() + 1) {
        QPainterPath grip(QPointF(here, area.top() + 2));
        grip.lineTo(here - 5, area.top() - 6);
        grip.lineTo(here + 5, area.top() - 6);
        grip.closeSubpath();
        painter.fillPath(grip, t.focus);
    }
    // ---- names at the curves' own ends
    const auto widest = blurs_at(*shot, report, r.widest), smallest = blurs_at(*shot, report, r.smallest);
    painter.setFont(textFont(11));
    if (report.extent.depth > 0 && report.sharpness.edge_blur)
        drawLabel(painter, {area.right() - 2, std::min(y_of(smallest.ends) + 12, area.bottom() - 10)},
                  Qt::AlignRight | Qt::AlignVCenter, tr("ends of the subject"), t.link);
    drawLabel(painter, {xOf(std::sqrt(r.widest * r.smallest)) + 6, y_of(std::sqrt(widest.airy * smallest.airy)) + 10},
              Qt::AlignLeft | Qt::AlignVCenter, tr("diffraction"), t.caution);
    drawLabel(painter, {area.left() + 4, y_of(limit) + 10}, Qt::AlignLeft | Qt::AlignVCenter,
              tr("your limit %1").arg(QString::fromStdString(text::length_text(limit))), t.focus);
    double label_y = y_of(limit);
    for (const auto& [name, mm] : other_limits) {
        if (mm < least || mm > greatest || std::abs(y_of(mm) - label_y) < 14) continue;
        label_y = y_of(mm);
        drawLabel(painter, {area.left() + 4, label_y - 7}, Qt::AlignLeft | Qt::AlignVCenter,
                  tr("%1 %2").arg(name, QString::fromStdString(text::length_text(mm))), t.quiet);
    }
    if (best_shown) {
        const bool rightHalf = xOf(*best) > area.center().x();
        drawLabel(painter, {xOf(*best) + (rightHalf ? -4 : 4), area.top() + 8},
                  (rightHalf ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
                  tr("least: %1").arg(QString::fromStdString(text::f_number_text(*best))), t.quiet);
    }
}

void DepthChart::mousePressEvent(QMouseEvent* event) {
    ++drag_;
    if (document_.shot()) take(event->position().x());
}

void DepthChart::mouseMoveEvent(QMouseEvent* event) {
    if (document_.shot() && (event->buttons() & Qt::LeftButton)) take(event->position().x());
}

/// The mark of the scale nearest to the place, kept on the lens.
void DepthChart::take(double x) {
    const auto r = range();
    const double wanted = std::clamp(fNumberAt(x), r.widest, r.smallest);
    const double above = text::step_f_number(wanted, 1), below = text::step_f_number(above, -1);
    const double nearest =
        std::clamp(std::log(above / wanted) < std::log(wanted / below) ? above : below, r.widest, r.smallest);
    document_.editShot({tr("Take a stop"), QStringLiteral("depthChart#%1").arg(drag_)},
                       [&](shoot::Shot& shot) { shot.exposure.f_number = nearest; });
}

}  // namespace poquito::desk
