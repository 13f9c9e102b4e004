#include "desk/drawing/tones.hpp"

#include "imaging/colour.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::desk {

QColor greyOf(double linear) {
    const int code = static_cast<int>(std::lround(255 * imaging::to_encoded(std::clamp(linear, 0.0, 1.0))));
    return {code, code, code};
}

}  // namespace poquito::desk
