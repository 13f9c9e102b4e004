#include "desk/depth/plane_drawing.hpp"

#include "desk/drawing/bench_layout.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>

namespace poquito::desk {

PlaneDrawing::PlaneDrawing(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("planeDrawing"));
    setAccessibleName(tr("The subject from the side and from above"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void PlaneDrawing::setProposal(std::optional<shoot::Attitude> proposal) {
    proposal_ = proposal;
    update();
}

void PlaneDrawing::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto& subject = shot->subject;
    // As large as both views allow, as it is and as it would be turned.
    const double half = width() / 2.0;
    QRectF bounds;
    for (const auto& one : {subject, proposal_ ? shoot::faced(subject, *proposal_) : subject})
        for (const Elevation elevation : {Elevation::side, Elevation::top})
            bounds |= subjectProfile(one, elevation).boundingRect();
    constexpr double beside = 70, above_and_below = 78, least = 1e-6;  // px that words take
    const double scale = std::min((half - beside) / std::max(bounds.width(), least),
                                  (height() - above_and_below) / std::max(bounds.height(), least));
    const auto draw = [&](Elevation elevation, const QRectF& room, const QString& name) {
        painter.setFont(textFont(11));
        painter.setPen(t.quiet);
        painter.drawText(QPointF(room.left(), room.top() + 11), name);
        const QPointF centre(room.center().x(), room.top() + 20 + (room.height() - 62) / 2);
        const auto outline = [&](const shoot::Subject& one) {
            QPolygonF polygon = subjectProfile(one, elevation);
            for (QPointF& point : polygon) point = centre + QPointF(point.x(), -point.y()) * scale;
            return polygon;
        };
        const double depth = document_.report()->extent.depth * scale;
        // The depth it presents lies between two planes that face the sensor.
        painter.setPen(QPen(t.focus, 1, Qt::DashLine));
        const double top = room.top() + 20, bottom = room.bottom() - 40;
        for (const double x : {centre.x() - depth / 2, centre.x() + depth / 2})
            painter.drawLine(QLineF(x, top, x, bottom + 8));
        painter.setBrush(t.panel);
        painter.setPen(QPen(t.ink, 1.3));
        painter.drawPolygon(outline(subject));
        painter.setFont(textFont(11, QFont::Medium));
        painter.setPen(QPen(t.focus, 1));
        drawDimension(painter, {centre.x() - depth / 2, bottom + 8}, {centre.x() + depth / 2, bottom + 8},
                      toQt(text::length_text(document_.report()->extent.depth)));
        if (proposal_) {
            const auto turned = shoot::faced(subject, *proposal_);
            const double then = shoot::presented_extent(turned).depth;
            painter.setBrush(Qt::NoBrush);
            painter.setPen(QPen(t.link, 1.4, Qt::DashLine));
            painter.drawPolygon(outline(turned));
            painter.setPen(QPen(t.link, 1));
            drawDimension(painter, {centre.x() - then * scale / 2, bottom + 26},
                          {centre.x() + then * scale / 2, bottom + 26},
                          tr("turned %1").arg(toQt(text::length_text(then))));
        }
    };
    draw(Elevation::side, QRectF(0, 0, half - 8, height()), tr("from the side, camera on the left"));
    draw(Elevation::top, QRectF(half + 8, 0, half - 8, height()), tr("from above"));
}

}  // namespace poquito::desk

#include "desk/depth/moc_plane_drawing.moc"
