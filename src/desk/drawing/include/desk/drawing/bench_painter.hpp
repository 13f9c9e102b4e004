#pragma once

#include "desk/drawing/bench_layout.hpp"
#include "desk/toolkit/label_placer.hpp"

#include <cstddef>
#include <vector>

class QPainter;

namespace poquito::advice {
struct Assessment;
}

namespace poquito::desk {

/// Draws the set; `chosen`: the light whose distances are shown in stops. Returns where its lettering went.
std::vector<PlacedLabel> paintBench(QPainter& painter, const BenchLayout& layout, const advice::Assessment& assessment,
                                    Elevation elevation, const QRectF& bounds, std::size_t chosen);

}  // namespace poquito::desk
