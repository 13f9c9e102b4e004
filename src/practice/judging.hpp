#pragma once

#include "practice/exercise.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// What the judges of exercises look at frames with.
namespace poquito::practice {

using proof::FrameFacts;

Outcome missing(const std::string& what);
Outcome failed(std::string why, std::vector<Fact> facts);
Outcome passed(std::string said, std::vector<Fact> facts);

/// The frames of a series that can be read.
std::vector<const FrameFacts*> frames_of(const Series& series);

/// What is missing: the first series with fewer frames; empty: none is.
std::string lacking(const std::vector<Series>& series, std::size_t each);
double stop_of(const FrameFacts& frame, const Series& series);
std::string f_text(double stop);
std::string number(double value, int digits = 2);
double luminance(const std::array<double, 3>& rgb);
double border_stops(const FrameFacts& frame);

/// Fine detail over that twice as wide, in a part of the frame; shares of its sides.
double fineness(const imaging::FrameScan& scan, double left, double top, double right, double bottom);

/// Rows in which detail stands out, by half of its best row: from and to, shares of the height; empty: nowhere.
struct Band {
    double from = 0, to = 0;
};
std::optional<Band> sharp_rows(const imaging::FrameScan& scan);
double median(std::vector<double> values);

/// From the lightest to the darkest frame, stops.
double scatter(const std::vector<const FrameFacts*>& frames);

/// What frames by fixed power say of the unit that lit them, against its record; nothing where they agree.
void teach_light(Outcome& outcome, const gear::Kit& kit, const Series& series);
bool missed(const FrameFacts& frame);

inline constexpr const char* no_stack =
    "These frames were not looked at as a stack: choose Stack at Depth, then judge again.";

/// What makes frames of a stack useless whatever they are focused on; empty: nothing does.
std::string spoilt(const proof::StackFacts& stack);

}  // namespace poquito::practice
