#include "desk/light/light_scale.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/light/charges.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr double darkest = -10, brightest = 4;  // stops shown
constexpr double left = 64;                     // pixels, room for names

/// Rows of bars over one axis of stops.
class Bars {
  public:
    Bars(QPainter& painter, double width) : p_(painter), right_(width - 8) {}

    double y = 0;
    double right() const { return right_; }
    double xOf(double value) const {
        return left + (right_ - left) * (std::clamp(value, darkest, brightest) - darkest) / (brightest - darkest);
    }
    void heading(const QString& text) {
        p_.setFont(textFont(12, QFont::DemiBold));
        p_.setPen(theme().ink);
        p_.drawText(QPointF(0, y + 13), elided(textFont(12, QFont::DemiBold), text, right_));
        y += 22;
        p_.setFont(textFont(11));
    }
    void row(const QString& name, const std::optional<double>& value, const QColor& fill, const QColor& edge,
             const QString& words) {
        const Theme& t = theme();
        p_.setPen(t.quiet);
        drawLine(p_, QRectF(0, y, left - 8, 18), Qt::AlignRight | Qt::AlignVCenter, name);
        if (!value) {
            drawLine(p_, QRectF(left + 4, y, right_ - left, 18), Qt::AlignLeft | Qt::AlignVCenter, QObject::tr("none"));
        } else {
            const QRectF bar(QPointF(left, y + 3), QPointF(std::max(xOf(*value), left + 2), y + 15));
            p_.fillRect(bar, fill);
            p_.setPen(QPen(edge, 1));
            p_.drawRect(bar);
            const bool inside = bar.width() > lineWidth(textFont(11), words) + 10;
            p_.setPen(t.ink);
            const double beside = std::min(bar.right() + 5, right_ - lineWidth(textFont(11), words));
            drawLine(p_, inside ? bar.adjusted(0, 0, -5, 0) : QRectF(beside, y, right_ - beside, 18),
                     (inside ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, words);
        }
        y += 20;
    }
    void axis(double top) {
        const Theme& t = theme();
        const int step = right_ - left > 220 ? 2 : 5;  // both meet 0
        p_.setPen(QPen(t.hairline, 1));
        p_.drawLine(QLineF(left, y + 2, right_, y + 2));
        p_.setPen(t.quiet);
        for (int stop = static_cast<int>(darkest); stop <= brightest; stop += step) {
            p_.drawLine(QLineF(xOf(stop), y + 2, xOf(stop), y + 6));
            drawLine(p_, QRectF(xOf(stop) - 20, y + 7, 40, 14), Qt::AlignHCenter,
                     stop == 0 ? QStringLiteral("0") : stopsText(stop).section(QLatin1Char('.'), 0, 0));
        }
        p_.setPen(QPen(t.focus, 1.6));
        p_.drawLine(QLineF(xOf(0), top, xOf(0), y + 2));
        y += 26;
    }

  private:
    QPainter& p_;
    double right_;
};

}  // namespace

LightScale::LightScale(const Document& document, Shows shows, QWidget* parent)
    : QWidget(parent), document_(document), shows_(shows) {
    setObjectName(shows == Shows::sources ? QStringLiteral("lightScale") : QStringLiteral("backgroundScale"));
    setAccessibleName(shows == Shows::sources ? tr("Light at the subject in stops")
                                              : tr("Light at the background in stops"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void LightScale::paintEvent(QPaintEvent*) {
    if (!document_.shot()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (shows_ == Shows::sources)
        paintSources(painter);
    else
        paintBackground(painter);
}

void LightScale::paintSources(QPainter& painter) const {
    const auto& light = document_.report()->light;
    const Theme& t = theme();
    Bars bars(painter, width());
    bars.heading(tr("On its front, in stops"));
    const double top = bars.y;
    const auto share_text = [](double share) { return toQt(text::number_text(share * 100, 2)) + QStringLiteral(" %"); };
    if (light.ambient_front)
        bars.row(tr("ambient"), light.ambient_front, t.linkWash, t.link,
                 tr("%1, %2").arg(stopsText(*light.ambient_front),
                                  share_text(std::exp2(*light.ambient_front - *light.front_total))));
    for (const auto& source : light.sources) {
        // What the picture shows of it; an edge from behind is no exposure.
        std::optional<double> shown;
        if (source.share) shown = std::log2(*source.share) + *light.front_total;
        QString words;
        if (shown)
            words = tr("%1, %2").arg(stopsText(*shown), share_text(*source.share));
        else if (source.rim)
            words = tr("edge alone, %1").arg(stopsText(*source.rim + *light.front_total));
        else if (source.stops)
            words = tr("not on the front");
        bars.row((source.reflector    ? tr("card %1")
                  : source.continuous ? tr("lamp %1")
                                      : tr("flash %1"))
                     .arg(toQt(source.label)),
                 shown, source.continuous ? t.linkWash : t.cautionWash, t.light, words);
    }
    bars.row(tr("together"), light.front_total, t.focusWash, t.focus,
             light.front_total ? stopsText(*light.front_total) : QString());
    bars.axis(top);
    // ---- what follows from them, a line each
    const auto line = [&](const QString& words) {
        if (bars.y + 16 > height()) return;
        painter.setPen(t.quiet);
        painter.setFont(textFont(11));
        drawLine(painter, QRectF(0, bars.y, bars.right(), 16), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(textFont(11), words, bars.right()));
        bars.y += 16;
    };
    if (light.key_to_fill)
        line(tr("key %1: %2 stops over the rest, %3 : 1")
                 .arg(toQt(light.sources[*light.key].label), stopsText(*light.key_to_fill),
                      toQt(text::number_text(std::exp2(*light.key_to_fill), 2))));
    if (light.nearest && light.farthest)
        line(tr("near end %1, far end %2: %3 stops")
                 .arg(stopsText(*light.nearest), stopsText(*light.farthest),
                      stopsText(*light.farthest - *light.nearest)));
    std::vector<const plan::Report*> reports;
    reports.reserve(static_cast<std::size_t>(document_.count()));
    for (int i = 0; i < document_.count(); ++i) reports.push_back(&document_.report(i));
    for (const auto& use : plan::charge_use(document_.shoot(), reports)) {
        const bool here = std::ranges::any_of(document_.shot()->lights,
                                              [&](const shoot::Light& one) { return one.flash == use.flash; });
        if (!here || !use.share) continue;
        line(tr("whole shoot: %1 flashes, %2 % of a charge")
                 .arg(toQt(text::number_text(use.flashes, 5)), toQt(text::number_text(*use.share * 100, 2))));
    }
    for (const auto& source : light.sources) {
        const auto& learned = source.calibration.count ? source.calibration : source.modifier_calibration;
        if (learned.count)
            line(tr("%1 calibrated by %2: %3 stops%4")
                     .arg(toQt(source.label), toQt(text::count_text(learned.count, "frame", "frames")),
                          stopsText(learned.stops),
                          learned.spread ? tr(" \u00b1 %1").arg(toQt(text::number_text(*learned.spread, 2)))
                                         : QString()));
        if (source.rim && source.share)
            line(tr("%1 edges it %2 stops over the front").arg(toQt(source.label), stopsText(*source.rim)));
    }
}

void LightScale::paintBackground(QPainter& painter) const {
    const auto& light = document_.report()->light;
    const Theme& t = theme();
    Bars bars(painter, width());
    bars.heading(tr("At the card, in stops"));
    const double top = bars.y;
    if (light.ambient) bars.row(tr("ambient"), light.ambient, t.linkWash, t.link, stopsText(*light.ambient));
    for (const auto& source : light.sources) {
        if (source.reflector) continue;  // looks at the subject
        bars.row((source.continuous ? tr("lamp %1") : tr("flash %1")).arg(toQt(source.label)), source.background,
                 source.continuous ? t.linkWash : t.cautionWash, t.light,
                 source.background ? stopsText(*source.background) : QString());
    }
    if (light.background_own)
        bars.row(tr("its own"), light.background_own, t.focusWash, t.focus, stopsText(*light.background_own));
    bars.axis(top);
    if (!document_.shot()->background || bars.y + 60 > height()) return;
    bars.heading(tr("With its reflectance"));
    const double band = bars.y;
    const light::LookLimits limits;
    const std::pair<QString, std::pair<double, double>> zones[] = {
        {tr("black"), {darkest, limits.black_below}},
        {tr("dark"), {limits.black_below, limits.dark_below}},
        {tr("keeps colour"), {limits.dark_below, limits.white_from}},
        {tr("white"), {limits.white_from, brightest}}};
    const auto& greys = t.greyScale;
    for (int i = 0; i < 4; ++i) {
        const auto& [name, ends] = zones[i];
        const QRectF zone(QPointF(bars.xOf(ends.first), band), QPointF(bars.xOf(ends.second), band + 20));
        painter.fillRect(zone, greys[i]);
        painter.setPen(i < 2 ? greys[3] : greys[0]);
        if (zone.width() > lineWidth(textFont(11), name) + 4) drawLine(painter, zone, Qt::AlignCenter, name);
    }
    painter.setPen(QPen(t.ink, 1));
    painter.drawRect(QRectF(QPointF(left, band), QPointF(bars.right(), band + 20)));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(0, band, left - 8, 20), Qt::AlignRight | Qt::AlignVCenter, tr("card"));
    if (!light.background) {
        drawLabel(painter, {left, band + 30}, Qt::AlignLeft | Qt::AlignVCenter, tr("no light reaches it"), t.quiet);
        return;
    }
    const double x = bars.xOf(*light.background);
    painter.setBrush(t.focus);
    painter.setPen(QPen(t.panel, 1));
    painter.drawPolygon(QPolygonF({QPointF(x, band + 17), QPointF(x - 6, band + 28), QPointF(x + 6, band + 28)}));
    painter.setFont(textFont(11, QFont::DemiBold));
    const bool right_half = x > (left + bars.right()) / 2;
    drawLabel(painter, {x + (right_half ? -8 : 8), band + 30},
              (right_half ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, stopsText(*light.background), t.ink);
}

}  // namespace poquito::desk

#include "desk/light/moc_light_scale.moc"
