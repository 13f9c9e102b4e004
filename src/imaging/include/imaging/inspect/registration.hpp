#pragma once

#include "imaging/inspect/grey_image.hpp"

#include <optional>

/// Where a picture lies on another of the same scene. Source: MODEL 11.
namespace poquito::imaging {

/// Takes a place of one picture to the same thing's in the other, both from their middles: turned, scaled, shifted.
struct Similarity {
    double dx = 0;  // pixels of the pictures that were compared
    double dy = 0;
    double turn = 0;   // rad, from across towards down
    double scale = 1;  // of the other against the one

    Place operator()(const Place& from) const;
    /// First `one`, then `other`.
    friend Similarity operator*(const Similarity& other, const Similarity& one);
    Similarity inverse() const;
};

/// The two have been made alike in local contrast, so that light and blur tell as little as they can.
struct Registrable {
    GreyImage fine;
    GreyImage rough;  // of a quarter of the pixels each way or so, for the first guess
};
Registrable registrable(const GreyImage& picture);

struct Registration {
    Similarity similarity;
    double likeness = 0;  // correlation where they lie on one another, -1 to 1
};
/// Empty: nothing to go by in one of them. `guess`: where to begin.
std::optional<Registration> registered(const Registrable& from, const Registrable& to, const Similarity& guess = {});

}  // namespace poquito::imaging
