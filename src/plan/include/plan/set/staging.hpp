#pragma once

#include "plan/fwd.hpp"
#include "shoot/staging.hpp"

#include <optional>
#include <string>
#include <vector>

/// Where the other things of a picture come to lie in it, how blurred they are, what they hide, and whether they draw
/// the eye. mm, degrees, shares. Source: MODEL 9.
namespace poquito::plan {

/// A place on the table as the camera sees it, from the subject's centre: right, up, and away along its axis.
struct SeenPlace {
    double right = 0;
    double up = 0;
    double away = 0;
};

/// The centre of a thing: what stands has its foot on the table that the subject stands on, what lies is under both, or
/// on what lay there before it.
SeenPlace seen_place(const Plan& plan, const shoot::Staged& thing);

/// The thing as the camera sees it: what stands is seen from above by as much as the camera looks down, what lies by
/// what that leaves to the vertical.
shoot::Subject seen_subject(const Plan& plan, const shoot::Staged& thing);

/// How large the image of a thing is that lies `away` mm behind the subject's centre, to that in the plane of focus.
double scale_at(const Plan& plan, double away);

struct StagedReport {
    std::string id;
    SeenPlace place;
    double left = 0, top = 0, width = 0, height = 0;  // its box, shares of the frame from its top left
    double behind_focus = 0;                          // mm from the plane of focus to its middle
    std::optional<double> blur;                       // mm at the sensor, of its middle; empty: it makes no disc
    std::optional<double> blur_share;                 // of the frame's width
    double cut_off = 0;                               // share of its box outside the frame
    double hides = 0;                                 // share of the subject's box that it stands before
    double hidden = 0;                                // share of its own box that the subject stands before
    bool readable = false;                            // its own detail is still told apart
    bool draws_the_eye = false;                       // readable, and brighter or more coloured than the subject
};
/// One a thing, in the shot's order; empty where nothing has a size.
std::vector<StagedReport> report_staging(const Plan& plan, const Report& report);

}  // namespace poquito::plan
