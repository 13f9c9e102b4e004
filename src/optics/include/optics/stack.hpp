#pragma once

#include "optics/depth.hpp"
#include "optics/diffraction.hpp"
#include "optics/focus.hpp"

/// Depth of one frame, the steps of a stack, and what moving the focus does. mm on the subject side unless said
/// otherwise. Source: MODEL 2.
namespace poquito::optics {

/// 4 lambda N_w^2 / m^2: a quarter wave of defocus at either end.
double quarter_wave_depth(const Imaging& imaging, double wavelength);

struct ContrastRule {
    double blur_limit = 0.01;  // mm at the sensor; contrast is judged at 1/(2 c)
    double kept = 0.8;         // share of the in-focus contrast, in (0, 1)
    double wavelength = default_wavelength;
};
/// Both sides of the focus together, up to the first place where the contrast falls to the kept share. Empty where the
/// in-focus contrast is below 0.1: there is nothing to keep.
std::optional<double> contrast_depth(const Imaging& imaging, const ContrastRule& rule);

struct Span {
    double depth = 0;        // what has to be sharp, lead and tail included; at least 0
    double frame_depth = 1;  // above 0
    double overlap = 0;      // share of the frame depth, in [0, 1)
};
struct Steps {
    double step = 0;
    double frames = 1;  // a whole number; a double because absurd plans exceed any integer
};
Steps plan_steps(const Span& span);

/// What the focus ring does over a stack with the sensor fixed, by exact conjugates.
struct RingTravel {
    double first_ring = 0;
    double last_ring = 0;
    double scale_change = 0;  // size of a fixed point's image in the last frame over the first, minus 1
    double crop = 0;          // share of the frame width lost when the frames are brought to one scale
};
struct FocusTravel {
    double first = 0;  // plane of focus of the first frame from the planned one, mm; negative: nearer
    double last = 0;
};
/// Empty where the ring cannot bring the plane of focus to both ends.
std::optional<RingTravel> ring_travel(const Train& train, const FocusedTrain& at, const FocusTravel& travel);

inline constexpr const char* quarter_wave_formula = "4 * lambda * N_w^2 / m^2";
inline constexpr const char* step_formula = "F * (1 - o)";
inline constexpr const char* frames_formula = "max(1, ceil((d + lead + tail - F) / step - 1e-9) + 1)";
inline constexpr const char* contrast_depth_formula = "2 * dz / m^2";
inline constexpr const char* crop_formula = "1 - min(r, 1 / r)";

}  // namespace poquito::optics
