#pragma once

#include "plan/plan.hpp"

#include <optional>

/// The light that is there anyway, as the plan has it: what panel, lens and hood take of it, how it falls off, what the
/// room gives back. Stops relative to correct; shares 0 to 1. Source: MODEL 6.
namespace poquito::plan {

/// At the subject, what its panel takes counted; empty: there is none.
std::optional<double> ambient_at_subject(const Plan& plan);

/// Stops that the face towards the camera loses to lens and hood; 0 or negative, empty: it loses everything.
std::optional<double> shaded_by_lens(const Plan& plan);

/// At the axis point `behind` mm behind the subject's centre, over what it is at the subject: 1 for light from far
/// away.
double ambient_falloff(const Plan& plan, double behind);

/// At the background, over what it is at the subject: it falls off with the subject's light, and what stands clear of a
/// panel's shadow has none of what the panel takes.
double ambient_at_background(const Plan& plan);

/// Where it comes from and how wide it is, degrees: as the panel has it where there is one. Even light has neither.
struct AmbientSource {
    light::Position place;
    double size = 180;
};
std::optional<AmbientSource> ambient_source(const shoot::Ambient& ambient);

/// The share of the reading that walls, table and ground give back from all around: as stated, else as usual for its
/// kind.
double room_share(const shoot::Ambient& ambient);

/// Kinds of room and what they give back of a window's light (common practice).
struct Room {
    const char* name;
    double share;
};
const std::vector<Room>& rooms();

/// Kelvin: as stated, else as usual for its kind (common practice).
double kelvin_of(const shoot::Ambient& ambient);

}  // namespace poquito::plan
