#pragma once

namespace poquito::light {

/// The settings a flash offers: 2^(-n * step), n = 0, 1, 2, ... down to its least power.
struct PowerScale {
    double least = 1.0 / 128;  // fraction of full, in (0, 1]
    double step = 1.0 / 3;     // stops, above 0

    bool operator==(const PowerScale&) const = default;
};

/// The setting nearest in stops to the power wanted (above 0), ties to the brighter, never outside [least, 1].
double nearest_setting(const PowerScale& scale, double wanted);

inline constexpr const char* nearest_setting_formula = "2^(-n * step)";

}  // namespace poquito::light
