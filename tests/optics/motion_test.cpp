#include "optics/motion.hpp"
#include "support/matchers.hpp"

#include <algorithm>

using namespace poquito;
using test::same;
using test::WithinRel;

TEST_CASE("steady movement blurs by magnification, speed and time", "[optics][motion]") {
    CHECK_THAT(optics::motion_blur({.magnification = 0.5, .speed = 100, .exposure = 0.01}), same(0.5));
}

TEST_CASE("a swing blurs as much as the worst window of its path", "[optics][motion]") {
    const double amplitude = 2, frequency = 1.5, m = 0.7;
    for (const double exposure : {0.001, 0.05, 0.2, 0.3, 0.5, 2.0}) {
        // Brute force: the widest stretch of a sine seen in any window of that length.
        double worst = 0;
        for (int start = 0; start < 400; ++start) {
            const double begin = start / 400.0 / frequency;
            double low = 1e9, high = -1e9;
            for (int i = 0; i <= 400; ++i) {
                const double x = amplitude * std::sin(2 * M_PI * frequency * (begin + exposure * i / 400));
                low = std::min(low, x);
                high = std::max(high, x);
            }
            worst = std::max(worst, m * (high - low));
        }
        INFO("exposure " << exposure);
        CHECK_THAT(optics::oscillation_blur(
                       {.magnification = m, .amplitude = amplitude, .frequency = frequency, .exposure = exposure}),
                   WithinRel(worst, 1e-3));
    }
}
