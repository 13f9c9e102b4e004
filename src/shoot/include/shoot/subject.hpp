#pragma once

#include "optics/tank.hpp"
#include "shoot/form/form.hpp"
#include "shoot/form/texture.hpp"
#include "shoot/values/copy_on_write.hpp"
#include "text/colour.hpp"

#include <optional>
#include <string>
#include <vector>

/// What is photographed: its size, its form, how it moves and what calls for care. mm, degrees.
namespace poquito::shoot {

/// It stands, floats or sinks in liquid behind a flat wall.
struct InTank {
    optics::Tank tank;
    std::string unknown;

    bool operator==(const InTank&) const = default;
};

struct Subject {
    double width = 30;
    double height = 20;
    double depth = 5;
    double reflectance = 0.18;                    // 0 to 1
    std::optional<double> highlight_reflectance;  // of its brightest part; empty: as all of it
    double transmittance = 0;                     // diffuse, of a petal, leaf, slice, jelly; with reflectance at most 1
    double speed = 0;                             // mm/s across the frame
    double sway_amplitude = 0;                    // mm, middle to extreme, of a swing in the wind or on a hand
    double sway_frequency = 1;                    // Hz
    std::optional<double> sway_depth;             // mm of it through focus; empty: half, for one turns its way across
    Form form = Form::ball;
    double tilt = 0;                                   // degrees, the top away from the camera
    double turn = 0;                                   // degrees, the right side away from the camera
    std::optional<text::Colour> colour;                // hue and strength; how bright it is, reflectance says
    std::optional<CopyOnWrite<HeightMap>> height_map;  // for Form::height_map
    Texture texture = Texture::usual;
    std::vector<std::string> traits;  // what calls for care: see subject_traits()
    std::optional<double> nearest;    // mm from the front of the lens that it lets one come; empty: any
    std::optional<InTank> tank;
    std::optional<std::string> library;  // entry of the library it was filled from
    std::string unknown;

    bool operator==(const Subject&) const = default;
};

/// mm that it swings through focus, middle to extreme.
double sway_through(const Subject& subject);

struct Trait {
    const char* id;
    const char* name;
};
/// living, person, food, liquid, polished, breakable, outdoors, electronic, dye.
const std::vector<Trait>& subject_traits();
bool has_trait(const Subject& subject, const std::string& id);

}  // namespace poquito::shoot
