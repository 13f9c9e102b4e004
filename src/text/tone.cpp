#include "text/tone.hpp"

#include <fmt/format.h>

#include <cmath>

namespace poquito::text {

std::string tone_text(double stops) {
    return fmt::format("{:.1f} stops {} middle grey", std::abs(stops), stops < 0 ? "below" : "above");
}

}  // namespace poquito::text
