#include "desk/kit/gear_picture.hpp"

#include "desk/drawing/gear_section.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "gear/rows.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>

namespace poquito::desk {

GearPicture::GearPicture(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("gearPicture"));
    setAccessibleName(tr("The piece to scale"));
    setFixedHeight(GearPicture::sizeHint().height());
}

void GearPicture::show(const std::optional<shoot::MountedPiece>& piece) {
    piece_ = piece;
    setVisible(piece.has_value());
    update();
}

void GearPicture::paintEvent(QPaintEvent*) {
    if (!piece_) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double length = std::max(piece_->length, 4.0), diameter = std::max(piece_->diameter, 4.0);
    // Pieces keep their size to one another as far as the sheet goes: three quarters of life size at most.
    const double life = logicalDpiX() / 25.4 * 0.75;
    const double scale = std::min({life, (width() - 120) / length, (height() - 36) / diameter});
    const QRectF box(60, (height() - 22 - diameter * scale) / 2, length * scale, diameter * scale);
    drawPiece(p, box, *piece_, {.lettered = false});
    if (piece_->length > 0)
        drawDimension(p, QPointF(box.left(), height() - 9), QPointF(box.right(), height() - 9),
                      toQt(text::length_text(piece_->length)));
    p.setFont(textFont(11));
    p.setPen(theme().quiet);
    drawLine(p, QRectF(box.right() + 10, box.center().y() - 8, width() - box.right() - 10, 16),
             Qt::AlignLeft | Qt::AlignVCenter, tr("\u2300 %1").arg(toQt(text::length_text(piece_->diameter))));
}

std::optional<shoot::MountedPiece> pieceOf(const gear::Kit& kit, std::string_view list, std::size_t index) {
    // A rig of that piece alone, with a camera and lens to hold it.
    gear::Kit bench = kit;
    if (bench.cameras.empty()) bench.cameras.push_back({.id = "body"});
    if (bench.lenses.empty()) bench.lenses.push_back({.id = "lens"});
    shoot::Rig rig{.camera = bench.cameras.front().id, .lens = bench.lenses.front().id};
    const auto& kind = gear::gear_kind(list);
    const std::string id = kind.id(kit, index);
    if (list == "flashes" || list == "modifiers" || list == "rails" || list == "step_rings" || list == "cards" ||
        list == "holds")
        return std::nullopt;
    if (list == "coupling_rings" && bench.lenses.size() < 2) bench.lenses.push_back({.id = "other"});
    if (shoot::put_on(bench, rig, list, id, 1)) return std::nullopt;
    for (const auto& piece : shoot::mounted_pieces(bench, rig, 0))
        if (piece.list == list && piece.id == id) return piece;
    return std::nullopt;
}

}  // namespace poquito::desk

#include "desk/kit/moc_gear_picture.moc"
