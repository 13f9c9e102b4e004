#pragma once

#include <optional>

/// How likely one frame is sharp where chance decides, and what follows for many. mm, s, Hz; chances 0 to 1. Source:
/// MODEL 8.
namespace poquito::optics {

/// A swing about a middle at a random phase: the share of phases whose whole path during the exposure stays within
/// `limit` at the sensor. Nothing moves, or nothing is large enough to be seen: 1.
struct SwingAcross {
    double magnification = 1;
    double amplitude = 0;  // at the subject, middle to extreme
    double frequency = 1;
    double exposure = 0;
    double limit = 0.01;
};
double sharp_share(const SwingAcross& swing);

/// A swing through focus at a random phase, focus in its middle: the share of its time within `half_depth` of it.
double share_within(double amplitude, double half_depth);

/// Hands that shift and turn the camera, on two axes alike and by the law of Gauss: `blur` is the root of the mean
/// square of what they make together, mm at the sensor.
double steady_share(double blur, double limit);

/// What comes down, or stands, by the law of Gauss about a middle: the share within `half` of it to either side, and of
/// what reaches not as far to one side as to the other. `deviation`: one standard deviation.
double scatter_within(double deviation, double half);
double scatter_between(double deviation, double nearer, double farther);

/// What is kept of a quality of which `measure` is lost, 0 to 1: nine tenths where the loss is felt, a tenth where it
/// spoils the picture, without an edge between them. Source: MODEL 13 (a logistic curve of the logarithm).
double kept_share(double measure, double felt, double spoilt);

/// Tries until one at least succeeds with `wanted` chance; infinite: none ever will.
double tries_for(double chance, double wanted = 0.95);
/// That one at least of so many does.
double chance_of_any(double chance, double tries);

/// What counting says: `kept` of `tried`, with the interval that holds the true share in nine of ten such counts
/// (Wilson 1927).
struct CountedShare {
    double share = 0;
    double least = 0;
    double greatest = 1;
};
std::optional<CountedShare> counted_share(int kept, int tried);  // empty: nothing was tried

inline constexpr const char* swing_formula = "2 / pi * asin(min(1, c / (2 * m * A * sin(pi * F * t))))";
inline constexpr const char* hands_formula = "1 - exp(-(c / b) ^ 2)";
inline constexpr const char* tries_formula = "log(1 - g) / log(1 - P)";

}  // namespace poquito::optics
