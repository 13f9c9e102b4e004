#pragma once

#include "gear/fwd.hpp"
#include "plan/stack/stack_plan.hpp"

#include <optional>
#include <string>
#include <vector>

/// What the steps of a camera's own focus bracketing really are: cameras number them from narrow to wide and say no
/// more. A step is a share of the ring's travel: that is what the motor turns, whatever stands between lens and camera.
namespace poquito::optics {
struct Train;
}
namespace poquito::plan {

/// ring_step = scale * setting^by_setting * N^by_stop, fitted by least squares in the logarithms.
struct StepFit {
    double scale = 0;
    double by_setting = 1;
    double by_stop = 0;
    double spread = 0;  // of one reading about the fit, one standard deviation, as a share
    std::size_t readings = 0;
    bool setting_fitted = false;  // else steps are taken as proportional to the setting (common practice)
    bool stop_fitted = false;     // else as not depending on the stop
    double only_stop = 0;         // where all readings are of one

    /// Expected step, and the share by which it is uncertain, one standard deviation, for one bracket to come.
    double ring_step(double setting, double f_number) const;
    double uncertainty(double setting, double f_number) const;

    double covariance[3][3] = {};  // of log scale, by_setting, by_stop, times spread^2
};
/// Of one camera and lens; empty without readings.
std::optional<StepFit> fit_steps(const std::vector<gear::StepReading>& readings, const std::string& lens);

/// Steps on a camera's scale where its record has none (common practice).
inline constexpr int usual_step_settings = 10;

/// What one reading is uncertain by where there are too few to tell: a rule is read to a tenth (common practice).
inline constexpr double reading_spread = 0.1;

/// mm at the subject that the plane of focus moves when the ring turns through all of its travel at the rate it has at
/// `ring`; negative: nearer when the ring turns towards closest focus. Minus infinity at infinity.
double travel_per_ring(const optics::Train& train, double ring);

/// The share of the ring's travel behind `travel` mm at the subject in `frames` frames. Empty where the ring cannot
/// move the plane that far.
std::optional<double> ring_step_of(const optics::Train& train, double ring, double travel, double frames);

/// The widest setting whose steps are not wider than `wanted`, a share of the ring's travel, in 39 of 40 brackets.
/// `f_number` is marked. Empty where nothing is known of this camera with this lens, or none is narrow enough.
std::optional<StepChoice> choose_step(const Plan& plan, double f_number, double wanted);

}  // namespace poquito::plan
