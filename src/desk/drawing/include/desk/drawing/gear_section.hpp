#pragma once

#include "shoot/change/mount.hpp"

#include <QPointF>
#include <QRectF>
#include <QString>

#include <optional>

class QPainter;

/// Pieces of gear in section, as bench and exploded train show them.
namespace poquito::desk {

struct PieceLook {
    std::optional<double> ring;  // where the focus ring of a lens stands; empty: not marked
    bool selected = false;
    bool lettered = true;  // the short name inside, where there is room
};

/// Draws a piece into its box: the left edge is its end towards the camera, the height its diameter.
void drawPiece(QPainter& painter, const QRectF& box, const shoot::MountedPiece& piece, const PieceLook& look);

/// What fits into a narrow piece: "12", "2×", "+4".
QString shortName(const shoot::MountedPiece& piece);

}  // namespace poquito::desk
