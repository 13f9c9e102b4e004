#pragma once

#include "light/beam.hpp"
#include "light/fall.hpp"
#include "light/position.hpp"
#include "text/colour.hpp"

#include <optional>
#include <string>

/// The light that is there, the lights that are set, and what stands behind the subject. mm, degrees, stops.
namespace poquito::shoot {

/// A sheet of diffuser held between window or sun and the subject.
struct Panel {
    double loss = 1;        // stops
    double width = 500;     // mm
    double distance = 300;  // mm from the subject's centre
    std::string unknown;

    bool operator==(const Panel&) const = default;
};

/// Where the light that is there anyway comes from.
enum class AmbientKind { even, window, sky };
struct Ambient {
    double ev100 = 8;  // as a dome meter at the subject, turned to the camera, reads without the panel
    AmbientKind kind = AmbientKind::even;
    light::Position position{
        .distance = 1000, .azimuth = 0, .elevation = 30};  // of window or sun; its direction counts
    double size = 60;                // degrees that it is wide, seen from the subject: how soft it is
    std::optional<double> distance;  // mm to a window, whose light falls off; empty: far away
    std::optional<Panel> panel;
    std::optional<double> room;    // of a window: the share of the reading that walls and table give back; empty: usual
    std::optional<double> kelvin;  // empty: as usual for its kind
    double drift = 0;              // stops an hour that it grows or fades while one works
    std::string unknown;

    bool operator==(const Ambient&) const = default;
};

/// Light that goes by way of a card, a wall or a ceiling; `position` is then where that stands.
struct Bounce {
    double from_lamp = 500;    // mm, lamp to surface
    double reflectance = 0.8;  // 0 to 1
    double diameter = 300;     // mm, of the surface or of the patch of it that is lit
    std::string unknown;

    bool operator==(const Bounce&) const = default;
};

/// A card, cloth or mirror that sends the light that is there back at the subject.
struct Reflector {
    double reflectance = 0.9;  // 0 to 1
    double diameter = 300;     // mm
    std::string unknown;

    bool operator==(const Reflector&) const = default;
};

/// Where a light's own stops are read.
enum class OwnAt { subject, background };

/// One source of the set: a flash or a lamp of the kit, or what sends light back.
struct Light {
    std::optional<Reflector> reflector;  // there: neither flash nor lamp
    std::string flash;                   // empty: a lamp
    std::optional<std::string> lamp;     // empty: a flash
    std::optional<std::string> modifier;
    light::Position position;
    std::optional<double> power;  // fraction of full; empty: automatic, flashes only
    light::Aim aim;
    bool on_lens = false;             // hangs on the lens's front: distance and direction follow from it
    double ratio = 0;                 // of a twin: stops of the tube to the camera's right over the other
    bool second_layer = false;        // of the modifier's diffuser
    std::optional<Bounce> bounce;     // empty: straight at the subject
    std::optional<double> metered;    // of automatic flash by the camera's meter: its compensation, stops
    std::optional<double> own_stops;  // of automatic flash: set to these, whatever the others give
    OwnAt own_at = OwnAt::subject;
    double gel = 0;                    // mired that a gel before it adds: positive warmer
    bool off = false;                  // stands on the set and stays dark
    std::optional<std::string> group;  // "A", "B" or "C"; empty: a letter of its own
    std::string unknown;

    bool operator==(const Light&) const = default;
};

/// A plain card, or a place with detail and highlights.
enum class BackgroundKind { card, scene };
struct Background {
    double distance = 300;      // behind the subject's centre
    double reflectance = 0.18;  // 0 to 1
    double detail = 10;         // size of the detail one might recognise in it, mm
    BackgroundKind kind = BackgroundKind::card;
    std::optional<text::Colour> colour;  // hue and strength, as a subject's
    std::optional<double> own_ev100;     // spot reading of a light of its own: screen, lit card, window, sky, water
    double gradient = 0;                 // stops that its upper edge, in the frame, is brighter than the lower
    std::optional<double> width;         // mm; empty: as large as it has to be
    std::optional<double> height;
    std::string unknown;

    bool operator==(const Background&) const = default;
};

}  // namespace poquito::shoot
