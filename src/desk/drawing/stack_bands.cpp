#include "desk/drawing/stack_bands.hpp"

#include "desk/drawing/bench_layout.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/plan.hpp"
#include "plan/stack/stack_plan.hpp"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace poquito::desk {

std::vector<Band> bandsOf(const plan::Plan& plan, const plan::Report& report) {
    constexpr std::size_t most = 400;
    std::vector<Band> bands;
    const auto frames = plan::stack_frames(plan, report);
    if (frames.empty()) return bands;
    const auto reach_of = [&](const plan::StackFrame& frame) {
        const auto at = frame.ring ? optics::focus_at_ring(plan.train, *frame.ring) : plan.at;
        return plan::frame_reach(plan, at, plan.shot.exposure.f_number).value_or(plan::FrameReach{});
    };
    // Between the ends the reach changes evenly enough for a drawing.
    const auto first = reach_of(frames.front()), last = reach_of(frames.back());
    const std::size_t every = frames.size() / most + 1;
    for (std::size_t i = 0; i < frames.size(); i += every) {
        const double share = frames.size() > 1 ? static_cast<double>(i) / static_cast<double>(frames.size() - 1) : 0;
        const double near = first.near + (last.near - first.near) * share;
        const double far = first.far + (last.far - first.far) * share;
        bands.push_back({.plane = frames[i].plane, .from = frames[i].plane - near, .to = frames[i].plane + far});
    }
    return bands;
}

double drawSection(QPainter& painter, const QRectF& field, const shoot::Shot& shot, const plan::Report& report,
                   double low, double high) {
    const double across = field.width() / (high - low);
    const double half = subjectHalf(report.extent, Elevation::side);
    const double up = std::min(across, field.height() / 2 / std::max(half, 1e-6));
    QPolygonF outline = subjectProfile(shot.subject, Elevation::side);
    for (auto& point : outline)
        point = {field.left() + (point.x() + report.extent.depth / 2 - low) * across,
                 field.center().y() - point.y() * up};
    const bool closed = outline.size() > 2;
    if (closed) {
        fillPlainly(painter, outline, theme().panel);
        outline << outline.front();
    }
    painter.setPen(QPen(theme().ink, 1));
    painter.drawPolyline(outline);
    return across / up;
}

}  // namespace poquito::desk
