#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <QRectF>

#include <optional>
#include <vector>

class QPainter;

namespace poquito::desk {

/// What one frame of a stack holds sharp, mm behind the subject's nearest point.
struct Band {
    double plane = 0;
    double from = 0;
    double to = 0;
};
/// Of all frames. At most 400: more are not told apart on a screen.
std::vector<Band> bandsOf(const plan::Plan& plan, const plan::Report& report);

/// The subject's section in `field`, `low` to `high` mm of depth across it. Returns how many times as deep as high it
/// is drawn: 1, to scale.
double drawSection(QPainter& painter, const QRectF& field, const shoot::Shot& shot, const plan::Report& report,
                   double low, double high);

}  // namespace poquito::desk
