#pragma once

#include "advice/advice.hpp"
#include "handbook/handbook.hpp"

#include <QRectF>

class QPainter;

namespace poquito::desk {

/// The drawing of a page, made of the shot at hand: lengths to scale unless it says how far they are drawn out. Where
/// the shot has nothing to draw it with, what is usual is drawn, and said to be.
void drawPage(QPainter& painter, const QRectF& area, handbook::Drawing drawing, const advice::Assessment& assessment);

}  // namespace poquito::desk
