#pragma once

#include "light/position.hpp"

#include <optional>

/// Where a light looks, and how much of it goes there. mm and degrees.
namespace poquito::light {

/// Turned from the subject's centre: 0, 0 looks straight at it.
struct Aim {
    double turn = 0;  // degrees about the vertical, positive to its own right
    double tip = 0;   // degrees upwards

    bool operator==(const Aim&) const = default;
};

/// Degrees between where the light looks and the direction to a point on the axis `behind` mm behind the subject's
/// centre (0: the subject).
double off_beam(const Position& position, const Aim& aim, double behind);

/// Stops that point loses against one in the middle of the beam. A face that shines evenly falls off with the cosine;
/// a grid of full angle g (where half of the light is left) like a bell, 2^-((2 a / g)^2). Empty: none gets there.
std::optional<double> beam_loss(double off_beam, const std::optional<double>& grid);

inline constexpr const char* grid_formula = "(2 * a / g)^2";

}  // namespace poquito::light
