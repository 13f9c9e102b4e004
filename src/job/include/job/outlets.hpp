#pragma once

#include "job/assessed.hpp"
#include "shoot/shoot.hpp"

#include <optional>
#include <string>
#include <vector>

/// Which pictures of a thing go where, and what is left of each when it is cut. Shares of the frame, px of the file.
namespace poquito::job {

/// Generic outlets to begin from (common practice).
std::vector<shoot::Outlet> usual_outlets();

/// One picture of one outlet, cut from one frame: all of it, or half where two share one.
struct OutletCut {
    double left = 0, top = 0, width = 1, height = 1;
    int width_px = 0, height_px = 0;  // as delivered: made smaller where the outlet takes no more
    double kept = 1;                  // share of the frame's pixels that the cut keeps
    /// The least share of the cut's side that is free between thing and edge; below 0 the thing is cut off. Empty: at
    /// infinity there is no size.
    std::optional<double> margin;
    std::vector<std::string> problems;  // it is not taken so
    std::vector<std::string> cautions;  // it is, and something is lost
};
OutletCut cut_for(const Assessed& shot, const shoot::Outlet& outlet, const shoot::Delivery& delivery);

/// What that outlet gets of a shot now; null: it does not get it.
const shoot::Delivery* delivery_of(const shoot::Shot& shot, const std::string& outlet);

struct OutletPicture {
    std::vector<std::size_t> shots;  // one, or two side by side; indices into the shoot's
};
struct OutletChoice {
    std::vector<OutletPicture> pictures;  // in the order in which they are shown
    std::vector<std::size_t> covered;     // that are seen in another one of them, the thing turned for it
    std::vector<std::size_t> left_out;    // that there is no room for
    std::vector<std::size_t> unfit;       // whose cut the outlet does not take
    std::size_t musts_left_out = 0;
    double worth = 0;
    bool proven = true;
};
/// The best that the outlet can get of the thing: what must be shown, then the most worth, then few pictures. A view on
/// half a picture counts for three quarters (common practice).
OutletChoice choose_pictures(const shoot::Shoot& shoot, const AllAssessed& shots, const shoot::Outlet& outlet,
                             const std::string& thing);

/// What it gets of the thing now, in the order of its pictures.
OutletChoice delivered(const shoot::Shoot& shoot, const AllAssessed& shots, const shoot::Outlet& outlet,
                       const std::string& thing);

/// A picture as it is delivered: what is cut from which shots, beside one another from the left, and its size at most.
struct OutletFile {
    struct Part {
        std::size_t shot = 0;
        double left = 0, top = 0, width = 1, height = 1;  // shares of its frame
    };
    std::string name;  // "b-017-03-label", without an ending: the thing's number, its place, its view
    std::vector<Part> parts;
    std::optional<double> most_long_px;  // of the whole picture
};
/// In the order in which they are shown.
std::vector<OutletFile> files_for(const shoot::Shoot& shoot, const AllAssessed& shots, const shoot::Outlet& outlet,
                                  const std::string& thing);

/// Goes as far away as it takes for the outlet's cut to hold the thing with its margin, and the share of it that the
/// shot filled of its own frame or less.
void frame_for(shoot::Shoot& shoot, std::size_t shot, const shoot::Outlet& outlet);

/// Writes it to the shots. Cuts that were moved by hand stay as they are.
void deliver(shoot::Shoot& shoot, const std::string& outlet, const std::string& thing, const OutletChoice& choice);

}  // namespace poquito::job
