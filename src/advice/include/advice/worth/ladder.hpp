#pragma once

#include "plan/report.hpp"
#include "shoot/terms.hpp"

#include <string>
#include <vector>

/// The same shot at a row of values, to be looked at side by side.
namespace poquito::advice {

enum class LadderOf { aperture, focus, magnification, background, shutter, iso, lights };
struct LadderKind {
    LadderOf of;
    const char* id;
    const char* name;
};
const std::vector<LadderKind>& ladder_kinds();

/// Values worth comparing, in order: full stops of the lens, places through the subject's depth, doublings or halvings
/// about what is set. Empty where the shot has nothing of the kind.
std::vector<double> ladder_values(const plan::Plan& plan, LadderOf of);

/// The shot with that value in place of its own: f-number, mm of focus offset, magnification, mm to the background, s,
/// ISO; of lights: 0 as it is, 1 and up that light of the list alone, all_flashes_off, and muted(i) all but one.
shoot::Shot at_rung(const shoot::Shot& shot, LadderOf of, double value);
double own_value(const plan::Plan& plan, LadderOf of);
std::string rung_text(const shoot::Shot& shot, LadderOf of, double value);
inline constexpr double all_flashes_off = -1;
inline constexpr double muted(std::size_t light) { return -2 - static_cast<double>(light); }

struct Rung {
    double value = 0;
    shoot::Shot shot;
    plan::Report report;
    std::optional<double> ends_blur;  // mm at the sensor: defocus at the subject's farther end with diffraction
    double light_needed = 0;          // stops more than the shot as it is
    /// Of the shot so; over stops and magnifications with the light made up for, as they are shown. 0 to 1.
    double worth = 0;
    bool is_own = false;   // nearest to what is set
    bool is_best = false;  // worth most, where that is more than a tie over what is set
};
std::vector<Rung> climb(const plan::Plan& plan, LadderOf of, const std::vector<double>& values);

/// Defocus at the subject's farther end and the Airy disc, root of the sum of squares, mm at the sensor. Empty at
/// infinity.
std::optional<double> blur_at_ends(const plan::Report& report);

}  // namespace poquito::advice
