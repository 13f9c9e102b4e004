#pragma once

#include <optional>

/// The way of what is thrown or falls, in the plane of the frame: x to the right and y up from where it leaves, mm, s.
/// Free flight without air resistance. Source: MODEL 8.
namespace poquito::light {

struct Toss {
    double speed = 0;   // mm/s as it leaves; 0: it falls
    double angle = 90;  // degrees above the horizontal; past 90 it goes to the left, below 0 downwards
};

/// Where it is, and how it moves there.
struct TrajectoryPoint {
    double x = 0, y = 0;
    double across = 0, up = 0;  // mm/s

    double speed() const;
};
TrajectoryPoint point_at(const Toss& toss, double time);

/// When it turns, and how high that is; 0 where it never rises.
double top_time(const Toss& toss);
double top_height(const Toss& toss);

/// When it passes a height over where it leaves: as it goes up and as it comes down. Both empty: it never gets there;
/// at the very top both are the same.
struct Passes {
    std::optional<double> rising, falling;

    std::optional<double> first() const { return rising ? rising : falling; }
};
Passes passes(const Toss& toss, double height);

/// The speed that carries it so high at that angle; empty: none does.
std::optional<double> speed_to_rise(double height, double angle);

inline constexpr const char* top_time_formula = "v * sin(u) / g";
inline constexpr const char* top_height_formula = "(v * sin(u)) ^ 2 / (2 * g)";

}  // namespace poquito::light
