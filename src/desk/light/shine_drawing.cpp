#include "desk/light/shine_drawing.hpp"

#include "desk/session/chosen_light.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/light/reflections.hpp"
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

namespace {

constexpr int across = 64;  // squares of the face, each way

}  // namespace

QPointF ShineDrawing::placeOf(double x, double y) const { return field().center() + QPointF(x, -y) * scale(); }

QRectF ShineDrawing::field() const { return QRectF(rect()).adjusted(4, 24, -4, -24); }

double ShineDrawing::scale() const {
    const auto& extent = document_.report()->extent;
    return std::min(field().width() / extent.width, field().height() / extent.height) * 0.94;
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
    if (report.reflections.empty()) return;
    const double half_width = report.extent.width / 2, half_height = report.extent.height / 2;
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(QRectF(placeOf(-half_width, half_height), placeOf(half_width, -half_height)), faceImage());
    drawMarks(painter);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(t.ink, 1.3));
    if (plan::mirror_of(shot->subject).bulge)
        painter.drawEllipse(placeOf(0, 0), half_width * scale(), half_height * scale());
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    drawLine(painter, {0, height() - 18.0, static_cast<double>(width()), 16}, Qt::AlignLeft | Qt::AlignVCenter,
             elided(textFont(11),
                    tr("white: the chosen light; yellow: others; dark: the room. %1 wide")
                        .arg(toQt(text::length_text(report.extent.width))),
                    width()));
}

QImage ShineDrawing::faceImage() const {
    const Theme& t = theme();
    const auto& [plan, report, advice] = *document_.assessment();
    const auto map = plan::face_map(plan, report.light, chosen_.index(plan.shot), across);
    const QRgb colours[] = {qRgba(0, 0, 0, 0), t.greyScale[1].rgb(), t.greyScale[3].rgb(), t.cautionWash.rgb()};
    QImage face(across, across, QImage::Format_ARGB32_Premultiplied);
    auto shown = map.begin();
    for (int j = 0; j < across; ++j) {
        auto* row = reinterpret_cast<QRgb*>(face.scanLine(j));
        for (int i = 0; i < across; ++i) row[i] = colours[static_cast<std::size_t>(*shown++)];
    }
    return face;
}

/// Small marks would fall between the squares: drawn as what they are. All are named.
void ShineDrawing::drawMarks(QPainter& painter) const {
    const Theme& t = theme();
    const auto& report = *document_.report();
    const double half_width = report.extent.width / 2, half_height = report.extent.height / 2;
    const double square = 2 * half_width * scale() / across;
    for (std::size_t s = 0; s < report.reflections.size(); ++s)
        for (const auto& mark : report.reflections[s].marks) {
            const double radius = std::max(mark.width / 2 * scale(), 1.5);
            if (std::hypot(mark.x / half_width, mark.y / half_height) > 1) continue;  // on a side that is not there
            const QPointF at = placeOf(mark.x, mark.y);
            if (radius < 2 * square) {
                painter.setPen(QPen(t.ink, 0.8));
                painter.setBrush(s == chosen_.index(*document_.shot()) ? t.greyScale[3] : t.cautionWash);
                painter.drawEllipse(at, radius, radius);
            }
            painter.setFont(textFont(11, QFont::DemiBold));
            const bool inside = radius > 12;
            drawLabel(painter, inside ? at : at + QPointF(radius + 4, -8),
                      inside ? Qt::AlignCenter : Qt::AlignLeft | Qt::AlignVCenter, toQt(report.light.sources[s].label),
                      t.lightText);
        }
}

}  // namespace poquito::desk

#include "desk/light/moc_shine_drawing.moc"
