#include "plan/set/picture_shape.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::plan {

std::optional<PictureCut> picture_cut(const Plan& plan, const Report& report) {
    if (!plan.shot.picture_shape) return std::nullopt;
    // By pixels, which are square, not by the sensor's size as its sheet rounds it.
    const double wide = plan.sensor.width_px, high = plan.sensor.height_px;
    const double shape = *plan.shot.picture_shape, frame = wide / high;
    PictureCut cut{.width = std::min(1.0, shape / frame), .height = std::min(1.0, frame / shape), .fill = {}};
    cut.width_px = static_cast<int>(std::lround(cut.width * wide));
    cut.height_px = static_cast<int>(std::lround(cut.height * high));
    const auto& optics = report.optics;
    if (optics.field_width && optics.field_height)
        cut.fill = std::max(plan.extent.width / (*optics.field_width * cut.width),
                            plan.extent.height / (*optics.field_height * cut.height));
    return cut;
}

}  // namespace poquito::plan
