#pragma once

#include "desk/set/bench_layout.hpp"

class QPainter;

namespace poquito::desk {

class Document;

/// Draws the selected shot's set on one layout: axis, shaded cone, background, gear, lights, subject, dimensions,
/// ruler; about the `chosen` light its rings of stops and the handle that turns it.
void paintBench(QPainter& painter, const BenchLayout& layout, const Document& document, Elevation elevation,
                const QRectF& bounds, std::size_t chosen);

}  // namespace poquito::desk
