#pragma once

#include "imaging/inspect/frame_scan.hpp"

#include <optional>
#include <vector>

/// Where the frames of a stack are focused and what lies how deep, from how detail comes and goes. Source: MODEL 11.
namespace poquito::imaging {

inline constexpr float unseen = -1;  // past the edge of a frame

/// What was seen of detail, or `unseen`: one map a frame, tile on tile, and what noise makes of it there.
struct DetailSeen {
    std::vector<CellMap> frames;
    CellMap noise;
};

/// Depths are in steps of the run: its median step is 1, its first frame lies at 0.
struct FocusPlanes {
    std::vector<double> frames;         // where each is focused
    std::vector<double> free_steps;     // each distance as the tiles near it have it, the others as they are
    std::vector<double> gains;          // and what such a tile gains by it over the usual one, of what a tile costs,
                                        // less what so many tiles may gain by chance
    double width = 1;                   // steps, off focus, at which detail has lost two thirds
    double detail = 1;                  // size of that detail: 1 the finest, 2 twice as wide
    CellMap depth;                      // of each tile; not a number where it has no detail to go by
    std::vector<std::size_t> sharpest;  // frame, a tile; as many as frames: in none
    double textured_share = 0;          // of the tiles

    double step(std::size_t after) const { return frames[after + 1] - frames[after]; }
    /// Steps from one frame to the next up to which no detail is lost between them, however even they are: where
    /// sharpness carries over many, as in small pictures. Half way detail has then kept four fifths or more.
    double lost() const;
    /// Share of the tiles with detail that lie more than one step before the first frame, and past the last one. What
    /// lies apart from the rest, far behind, is no part of the subject.
    double open_before() const;
    double open_behind() const;
};

/// px across of the disc that a point becomes where detail of that size has lost two thirds of what it has in focus,
/// through a lens that ends at `cutoff` cycles a pixel. Integrated over textures whose power falls with the third power
/// of frequency (common of what is close); within 15 % for the square to the fourth.
double disc_at_width(double detail, double cutoff);

/// Share of the tiles whose detail stands out of the noise in some frame.
double told_share(const DetailSeen& seen);

/// One curve for all tiles, its width, the distances between the frames and the depths of the tiles by least squares.
/// `wider`: detail of twice the size, against which fine detail is lost off focus. Empty: fewer than three frames, or
/// too little detail.
std::optional<FocusPlanes> focus_planes(const DetailSeen& seen, const DetailSeen& wider);

}  // namespace poquito::imaging
