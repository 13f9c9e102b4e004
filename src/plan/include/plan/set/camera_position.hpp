#pragma once

#include "plan/fwd.hpp"

#include <optional>

/// Where the camera stands: how high, how far, on what, and what that lets into the picture from behind. mm, kg;
/// shares of the frame. Source: MODEL 9.
namespace poquito::plan {

/// The line at which the table ends, or the horizon, as the camera sees it behind the subject.
struct FarEdge {
    bool horizon = false;
    double place = 0;  // share of the frame from its top
    double blur = 0;   // share of the frame's height that it is blurred over
    /// Share of the subject's height, from its foot, at which it runs behind it; below 0 or above 1: past it.
    double up_the_subject = 0;
};

/// A sheet of paper or cloth that runs from under the subject up the wall behind it, so that no edge shows.
struct Sweep {
    double width = 0;   // that the frame takes of it, where it takes most
    double before = 0;  // that it has to come forward of the subject's centre
    double up = 0;      // how high it has to reach on the wall
    double radius = 0;  // of its curve
    double length = 0;  // of the sheet: flat, curve and wall
};

/// On a stand of the kit.
struct OnStand {
    double too_high = 0;              // mm that its lowest is above what is needed; 0: it goes so low
    double too_low = 0;               // mm that its highest falls short; 0: it reaches
    double middle = 0;                // level, from the subject's centre to the stand's own, its arm out
    std::optional<double> legs_free;  // between legs and the table's edge; below 0 they meet. Empty: not known
    std::optional<double> carried;    // kg of camera and lenses; empty: no weight is known
    std::optional<double> bag;        // kg on its foot that keep it from tipping; empty: it stands, or is not known
};

struct CameraPositionReport {
    std::optional<double> over_floor;  // of the sensor's middle; empty: at infinity
    std::optional<double> away;        // level, from the subject's centre to the sensor
    std::optional<FarEdge> edge;       // empty: not in the frame
    std::optional<Sweep> sweep;        // what a backdrop without an edge takes; empty: the frame sees no table
    std::optional<OnStand> stand;      // empty: no stand is named
};
CameraPositionReport report_camera_position(const Plan& plan, const Report& report);

/// How far out past the middle of feet so far from it a load of that weight may hang before the stand tips, with a leg
/// under the arm and nothing counted for the stand itself: what has to hang on its middle, kg; 0: it stands.
double bag_for(double load, double arm, double feet);

}  // namespace poquito::plan
