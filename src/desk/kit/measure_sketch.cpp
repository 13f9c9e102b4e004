#include "desk/kit/measure_sketch.hpp"

#include "desk/drawing/gear_section.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>

namespace poquito::desk {

MeasureSketch::MeasureSketch(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("measureSketch"));
    setAccessibleName(tr("How to stand the camera"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void MeasureSketch::show(const std::optional<Distances>& distances) {
    distances_ = distances;
    update();
}

void MeasureSketch::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& record = shoot::lens_of(document_.kit(), *shot).optics;
    const double bare = distances_ ? distances_->bare : record.closest_focus;
    const double longest = std::max(bare, distances_ ? distances_->extended : 0) + 60;
    const double scale = std::min((width() - 60) / longest, height() / (distances_ ? 320.0 : 200.0));
    p.setFont(textFont(12, QFont::DemiBold));
    p.setPen(theme().ink);
    const double rows = distances_ ? 2 : 1;
    for (int row = 0; row < rows; ++row) {
        const double top = height() / rows * row;
        p.setFont(textFont(12, QFont::DemiBold));
        p.setPen(theme().ink);
        drawLine(p, QRectF(0, top + 6, width(), 18), Qt::AlignLeft | Qt::AlignVCenter,
                 row == 0 ? tr("Bare lens, ring at closest focus") : tr("The same with extension behind it"));
        drawRow(p, top + height() / rows / 2, scale, row == 0 ? 0 : distances_->extension,
                row == 0 ? bare : distances_->extended);
    }
}

void MeasureSketch::drawRow(QPainter& p, double axis, double scale, double extension, double distance) const {
    const auto& kit = document_.kit();
    const auto& shot = *document_.shot();
    shoot::Rig rig{.camera = shot.rig.camera, .lens = shot.rig.lens, .focal_length = shot.rig.focal_length};
    const auto pieces = shoot::mounted_pieces(kit, rig, 1);
    const double left = 30 + 26 * scale;
    const auto box = [&](double from, double length, double diameter) {
        return QRectF(left + from * scale, axis - diameter / 2 * scale, length * scale, diameter * scale);
    };
    const auto& camera = pieces.front();
    const auto& lens = pieces.back();
    drawPiece(p, box(-26, 26 + camera.length, camera.diameter), camera, {.lettered = false});
    if (extension > 0)
        drawPiece(p, box(camera.length, extension, 62), {.list = "tubes", .length = extension, .diameter = 62}, {});
    drawPiece(p, box(camera.length + extension, lens.length, lens.diameter), lens, {.ring = 1});
    const double subject = left + distance * scale;
    const double foot = axis + std::max(camera.diameter, lens.diameter) / 2 * scale + 26;
    p.setPen(QPen(theme().hairline, 1));
    p.drawLine(QPointF(left, axis), QPointF(left, foot));
    p.drawLine(QPointF(subject, axis), QPointF(subject, foot));
    p.setPen(QPen(theme().ink, 3, Qt::SolidLine, Qt::FlatCap));
    p.drawLine(QPointF(left, axis - 10 * scale), QPointF(left, axis + 10 * scale));
    p.setPen(QPen(theme().focus, 2.4));
    p.drawLine(QPointF(subject, axis - 34 * scale), QPointF(subject, axis + 34 * scale));
    drawDimension(p, QPointF(left, foot), QPointF(subject, foot),
                  tr("sensor to subject %1").arg(toQt(text::length_text(distance))));
}

}  // namespace poquito::desk

#include "desk/kit/moc_measure_sketch.moc"
