#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <optional>

/// What is left of the frame where the picture is delivered in a shape of its own: the largest of that shape about the
/// frame's middle.
namespace poquito::plan {

struct PictureCut {
    double width = 1;  // shares of the frame's width and height that stay
    double height = 1;
    int width_px = 0;  // of the file
    int height_px = 0;
    std::optional<double> fill;  // share of it that the subject takes, in its tighter direction; empty: at infinity
};
/// Empty: the picture is the frame.
std::optional<PictureCut> picture_cut(const Plan& plan, const Report& report);

}  // namespace poquito::plan
