#pragma once

#include "shoot/change/view_set.hpp"
#include "shoot/shot.hpp"
#include "shoot/site.hpp"

#include <array>
#include <cstddef>

/// What files and the command line call each value of an enumeration, in its order; here and nowhere else.
namespace poquito::shoot {

template <typename Enumeration>
inline constexpr std::array<const char*, 0> names = {};

template <>
inline constexpr std::array names<Form> = {"ball",   "dome", "ring",   "leaf",   "slab",  "box",
                                           "grains", "bowl", "insect", "bottle", "folds", "height-map"};
template <>
inline constexpr std::array names<Texture> = {"",         "stone",     "hairs", "pores", "weave", "veins",
                                              "crystals", "scratches", "print", "ticks"};  // usual: not in the file
template <>
inline constexpr std::array names<FocusBy> = {"ring", "magnification"};
template <>
inline constexpr std::array names<Support> = {"", "hand", "small-head", "sturdy-head"};  // unstated: not in the file
template <>
inline constexpr std::array names<Lever> = {"power", "distance", "stop", "iso"};
template <>
inline constexpr std::array names<BlurRule> = {"pixel", "diagonal", "output", "stated"};
template <>
inline constexpr std::array names<OutputKind> = {"print", "delivery"};
template <>
inline constexpr std::array names<CaptureMode> = {"single", "stack"};
template <>
inline constexpr std::array names<DepthRule> = {"blur", "quarter-wave", "contrast"};
template <>
inline constexpr std::array names<Mover> = {"ring", "rail", "hand"};
template <>
inline constexpr std::array names<AmbientKind> = {"even", "window", "sky"};
template <>
inline constexpr std::array names<Sky> = {"clear", "hazy", "cloudy", "overcast", "shade"};
template <>
inline constexpr std::array names<BackgroundKind> = {"card", "scene"};
template <>
inline constexpr std::array names<OwnAt> = {"subject", "background"};
template <>
inline constexpr std::array names<Act> = {"fall", "thrown", "splash", "sinks"};
template <>
inline constexpr std::array names<Trigger> = {"beam", "sound", "hand"};
template <>
inline constexpr std::array names<Moment> = {"place", "top", "coming-down"};
template <>
inline constexpr std::array names<TryIs> = {"frame", "rocking", "bracket"};
template <>
inline constexpr std::array names<Orientation> = {"landscape", "portrait"};
template <>
inline constexpr std::array names<StagedRole> = {"repeat", "prop", "plate", "cloth", "card", "scale"};
template <>
inline constexpr std::array names<Lock> = {"camera", "framing", "stop", "light", "ground"};
template <>
inline constexpr std::array names<PlateRole> = {"hero", "piece", "support", "clean", "shadow", "flash", "ambient"};
template <>
inline constexpr std::array names<Ground> = {"any", "plain", "white"};
template <>
inline constexpr std::array names<Face> = {"front", "back", "left", "right", "top", "bottom", "part"};
template <>
inline constexpr std::array names<Verdict> = {"keep", "redo"};
template <>
inline constexpr std::array names<WantedGround> = {"", "black", "dark", "as-it-is", "light", "white"};
template <>
inline constexpr std::array names<WantedLight> = {"", "flash", "ambient", "both"};
template <>
inline constexpr std::array names<WantedMovement> = {"", "frozen", "drawn"};
template <>
inline constexpr std::array names<WantedContrast> = {"", "soft", "hard"};
template <>
inline constexpr std::array names<Loss> = {"depth", "iso", "motion", "background", "time"};
template <>
inline constexpr std::array names<RunEnd> = {"complete", "stopped", "broken"};

template <typename Enumeration>
const char* name_of(Enumeration value) {
    return names<Enumeration>.at(static_cast<std::size_t>(value));
}

}  // namespace poquito::shoot
