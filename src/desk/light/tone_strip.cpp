#include "desk/light/tone_strip.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/shell/document.hpp"
#include "imaging/colour.hpp"
#include "light/position.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>
#include <optional>
#include <vector>

namespace poquito::desk {
namespace {

constexpr double middle_grey = 0.18;  // linear, of a surface at 0 stops
constexpr double heading = 18, lettering = 34, least_height = 76;

struct Patch {
    QString name;
    std::optional<double> stops;  // from mid grey; empty: no light gets there
};

double linear(const Patch& patch) { return patch.stops ? middle_grey * std::exp2(*patch.stops) : 0; }

QColor toneOf(double linear) {
    const int code = static_cast<int>(std::lround(255 * imaging::to_encoded(std::clamp(linear, 0.0, 1.0))));
    return {code, code, code};
}

std::vector<Patch> patches(const shoot::Shot& shot, const plan::LightReport& light) {
    // The face stands as far from mid grey as its reflectance does once the exposure is right.
    const double face = light::reflectance_stops(std::max(shot.subject.reflectance, 1e-4));
    const auto on_face = [&](const std::optional<double>& stops) {
        return stops ? std::optional(*stops + face) : std::nullopt;
    };
    std::vector<Patch> found = {{QObject::tr("nearest"), on_face(light.nearest)},
                                {QObject::tr("farthest"), on_face(light.farthest)}};
    if (shot.background) found.push_back({QObject::tr("behind"), light.background});
    if (light.flash) found.push_back({QObject::tr("no flash"), on_face(light.continuous)});
    return found;
}

}  // namespace

ToneStrip::ToneStrip(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("toneStrip"));
    setAccessibleName(tr("Tones in the picture"));
    setToolTip(
        tr("The subject's face where it is nearest and farthest, what is behind it, and the face without the flash, "
           "as the picture shows them; stops from mid grey"));
}

void ToneStrip::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    const auto* report = document_.report();
    if (!shot || !report || height() < least_height) return;
    const auto& t = theme();
    QPainter painter(this);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    drawLine(painter, {0, 0, static_cast<double>(width()), heading}, Qt::AlignLeft | Qt::AlignVCenter,
             tr("Tones in the picture"));
    const auto shown = patches(*shot, report->light);
    const double wide = static_cast<double>(width()) / static_cast<double>(shown.size());
    const double tall = std::min(80.0, height() - heading - lettering - 4);
    QRectF area(0, heading + 4, wide, tall);
    for (const auto& patch : shown) {
        const double light = linear(patch);
        painter.fillRect(area, toneOf(light));
        const QRectF below(area.left(), area.bottom() + 2, wide - 2, 16);
        painter.setFont(textFont(12, QFont::DemiBold));
        painter.setPen(light > 1 ? t.caution : t.ink);
        drawLine(painter, below, Qt::AlignHCenter, patch.stops ? stopsText(*patch.stops) : tr("none"));
        painter.setFont(textFont(11));
        painter.setPen(light > 1 ? t.caution : t.quiet);
        drawLine(painter, below.translated(0, 15), Qt::AlignHCenter, light > 1 ? tr("clips") : patch.name);
        area.translate(wide, 0);
    }
    painter.setPen(QPen(t.hairline, 1));
    painter.drawRect(QRectF(0.5, heading + 4.5, width() - 1, tall - 1));
}

}  // namespace poquito::desk

#include "light/moc_tone_strip.cpp"
