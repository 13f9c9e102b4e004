#include "optics/motion.hpp"

#include <boost/math/constants/constants.hpp>

#include <algorithm>
#include <cmath>

namespace poquito::optics {

double motion_blur(const SteadyMotion& motion) { return motion.magnification * motion.speed * motion.exposure; }

double oscillation_blur(const Oscillation& oscillation) {
    const double half_turns = std::min(oscillation.frequency * oscillation.exposure, 0.5);
    return 2 * oscillation.amplitude * oscillation.magnification *
           std::sin(boost::math::double_constants::pi * half_turns);
}

}  // namespace poquito::optics
