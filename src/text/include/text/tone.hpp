#pragma once

#include <string>

namespace poquito::text {

/// How light a tone is, for people: "2.4 stops above middle grey". `stops` against a reflectance of 18 % as it is to be
/// exposed.
std::string tone_text(double stops);

}  // namespace poquito::text
