#pragma once

#include <optional>
#include <vector>

/// Flash durations in seconds, as ISO 2827 defines them: t0.5 above half of the peak, t0.1 above a tenth of it.
namespace poquito::light {

/// How the flash stops: `cut` off by a switch, or left to `decay` exponentially.
enum class Discharge { cut, decay };

struct Duration {
    double power = 1;    // fraction of full
    double t05 = 0.001;  // s

    bool operator==(const Duration&) const = default;
};

/// t0.5 at a power, between the entries of `table` on log-log axes; empty outside the table: it is never extrapolated.
/// Entries in any order, powers distinct, all above 0.
std::optional<double> duration_at(const std::vector<Duration>& table, double power);

/// The first power at which durations that grew with power begin to shrink, or the other way round; empty: they do one
/// of the two throughout.
std::optional<double> turning_point(std::vector<Duration> table);

/// t0.1 from t0.5: log2(10) = 3.32 times for an exponential decay, the same for one that is cut off.
double t01_from_t05(Discharge discharge, double t05);

inline constexpr const char* t01_decay_formula = "log2(10) * t_05";

}  // namespace poquito::light

// Written out once, in duration.cpp, not in every file that copies gear.
extern template class std::vector<poquito::light::Duration>;
