#include "desk/light/shine_drawing.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/set/chosen_light.hpp"
#include "desk/shell/document.hpp"
#include "plan/reflections.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

ShineDrawing::ShineDrawing(const Document& document, const ChosenLight& chosen, QWidget* parent)
    : QWidget(parent), document_(document), chosen_(chosen) {
    setObjectName(QStringLiteral("shineDrawing"));
    setAccessibleName(tr("The reflections on the subject, to scale"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void ShineDrawing::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    const auto& report = *document_.report();
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    painter.drawText(QPointF(0, 13), tr("The face as the lens sees it"));
    const auto& plan = document_.assessment()->plan;
    const auto pupil = plan::pupil_point(plan);
    if (report.reflections.empty() || !pupil) return;
    const auto mirror = plan::mirror_of(shot->subject);
    const QRectF area = QRectF(rect()).adjusted(4, 24, -4, -24);
    const double half_width = report.extent.width / 2, half_height = report.extent.height / 2;
    const double scale = std::min(area.width() / (2 * half_width), area.height() / (2 * half_height)) * 0.94;
    const auto place = [&](double x, double y) { return area.center() + QPointF(x * scale, -y * scale); };
    // ---- the face, each small square of it by what it mirrors
    const bool round = mirror.bulge.has_value();
    std::vector<std::vector<light::DiscSource>> discs;
    for (const auto& source : report.light.sources) {
        discs.emplace_back();
        if (source.stops)
            for (const auto& tube : source.tubes)
                discs.back().push_back({.centre = light::place_of(tube.place), .diameter = tube.diameter});
    }
    const QColor dark = t.greyScale[1], bright = t.greyScale[3];
    constexpr int across = 96;
    const std::size_t own = chosen_.index(*shot);
    const auto colour_of = [&](const light::Reflection& ray) {
        bool any = false;
        for (std::size_t s = 0; s < discs.size(); ++s)
            for (const auto& disc : discs[s])
                if (light::shows(ray, disc)) {
                    if (s == own) return bright;
                    any = true;
                }
        return any ? t.cautionWash : dark;
    };
    QImage face(across, across, QImage::Format_ARGB32_Premultiplied);
    face.fill(Qt::transparent);
    for (int j = 0; j < across; ++j) {
        auto* row = reinterpret_cast<QRgb*>(face.scanLine(j));
        for (int i = 0; i < across; ++i) {
            const double u = (2 * i + 1.0) / across - 1, v = 1 - (2 * j + 1.0) / across;
            if (round && std::hypot(u, v) > 1) continue;
            if (const auto ray = light::reflect(mirror, *pupil, u, v)) row[i] = colour_of(*ray).rgb();
        }
    }
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(QRectF(place(-half_width, half_height), place(half_width, -half_height)), face);
    const double cell_w = 2 * half_width * scale / across;
    // ---- small marks would fall between the squares: drawn as what they are
    for (std::size_t s = 0; s < report.reflections.size(); ++s)
        for (const auto& mark : report.reflections[s].marks) {
            const double radius = std::max(mark.width / 2 * scale, 1.5);
            if (std::hypot(mark.x / half_width, mark.y / half_height) > 1) continue;  // on a side that is not there
            const QPointF at = place(mark.x, mark.y);
            if (radius < 2 * cell_w) {
                painter.setPen(QPen(t.ink, 0.8));
                painter.setBrush(s == chosen_.index(*shot) ? bright : t.cautionWash);
                painter.drawEllipse(at, radius, radius);
            }
            painter.setFont(textFont(11, QFont::DemiBold));
            const bool inside = radius > 12;
            drawLabel(painter, inside ? at : at + QPointF(radius + 4, -8),
                      inside ? Qt::AlignCenter : Qt::AlignLeft | Qt::AlignVCenter,
                      QString::fromStdString(report.light.sources[s].label), t.lightText);
        }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(t.ink, 1.3));
    if (round) painter.drawEllipse(place(0, 0), half_width * scale, half_height * scale);
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    drawLine(painter, {0, height() - 18.0, static_cast<double>(width()), 16}, Qt::AlignLeft | Qt::AlignVCenter,
             elided(textFont(11),
                    tr("white: the chosen light; yellow: others; dark: the room. %1 wide")
                        .arg(QString::fromStdString(text::length_text(report.extent.width))),
                    width()));
}

}  // namespace poquito::desk
