#pragma once

#include "light/position.hpp"
#include "shoot/subject.hpp"

#include <memory>

/// The face that the camera sees of a subject, and what light from a direction makes of it. Source: MODEL 6.
namespace poquito::plan {

/// What a source far away does to the face.
struct FaceLight {
    double front = 0;  // k: mean light of the face over that of the same form, untilted and lit from the camera
    double rim = 0;    // share of the face that it reaches, 0 to 1
};

/// A ball goes by Lambert's law, a flat subject by the cosine, other forms by a net over their relief, what they shade
/// of themselves left dark. Nets are kept from one use to the next; cheap where the shape has been before.
class Face {
  public:
    explicit Face(const shoot::Subject& subject);

    FaceLight lit_from(const light::Position& place) const;

    /// k' of light that comes through the subject to the face: of a flat one from behind it, else of the same light
    /// mirrored in the subject's plane; 0 for light from in front.
    double through_from(const light::Position& place) const;

    /// Mean light of the face by a source whose half angle has the sine `softness`, which reaches round edges as
    /// pictures draw it, over that of the same form lit from the camera by a small one.
    double softly_lit_from(const light::Position& place, double softness) const;

    struct Net;

  private:
    enum class Kind { ball, flat, relief };
    Kind kind_ = Kind::relief;
    double normal_[3] = {0, 0, -1};  // of a flat subject
    std::shared_ptr<const Net> net_;
    const shoot::Subject& subject_;
};

}  // namespace poquito::plan
