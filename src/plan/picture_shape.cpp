#include "plan/picture_shape.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {

PictureCut cut_of(double shape, double frame_shape) {
    return {.width = std::min(1.0, shape / frame_shape), .height = std::min(1.0, frame_shape / shape), .fill = {}};
}

std::optional<PictureCut> picture_cut(const Plan& plan, const Report& report) {
    if (!plan.shot.picture_shape) return std::nullopt;
    auto cut = cut_of(*plan.shot.picture_shape, plan.sensor.width / plan.sensor.height);
    cut.width_px = static_cast<int>(std::floor(cut.width * plan.sensor.width_px + 1e-9));
    cut.height_px = static_cast<int>(std::floor(cut.height * plan.sensor.height_px + 1e-9));
    const auto& optics = report.optics;
    if (optics.field_width && optics.field_height)
        cut.fill = std::max(plan.extent.width / (*optics.field_width * cut.width),
                            plan.extent.height / (*optics.field_height * cut.height));
    return cut;
}

}  // namespace poquito::plan
