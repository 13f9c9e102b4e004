#pragma once

#include "desk/bench_layout.hpp"

class QPainter;

namespace poquito::desk {

class Document;

/// Draws the selected shot's set on one layout: axis, shaded cone, background, gear, lights, subject, dimensions,
/// ruler.
void paintBench(QPainter& painter, const BenchLayout& layout, const Document& document, Elevation elevation,
                const QRectF& bounds);

}  // namespace poquito::desk
