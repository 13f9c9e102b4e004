#pragma once

#include <cstddef>
#include <utility>
#include <vector>

/// The best pictures within a number of them, where two views may share one. Knows nothing of what the views are.
namespace poquito::job {

struct Candidates {
    std::vector<double> worth;                               // of each view alone, 0 or more
    std::vector<bool> must;                                  // is shown before any other
    std::vector<std::pair<std::size_t, std::size_t>> pairs;  // that may share a picture, the smaller index first
    /// The first, where it is taken, shows the second as well.
    std::vector<std::pair<std::size_t, std::size_t>> covers = {};
    double half_worth = 1;  // of what a view is worth, on half a picture or as part of another one
};

struct Choice {
    std::vector<std::vector<std::size_t>> pictures;  // one view or two each, by their smaller index
    std::vector<std::size_t> covered;   // that have no picture of their own, and are seen in one that was taken
    std::vector<std::size_t> left_out;  // that are not seen at all
    double worth = 0;
    std::size_t musts_left_out = 0;
    bool proven = true;  // no choice is better: fewest musts left out, then most worth, then fewest pictures
};

/// At most `budget` pictures. By dynamic programming over the sets of views that pairs and covers join, for each way to
/// take those that cover others, and over how many pictures each set gets; where more than `most_joined` views are
/// joined, or more than `most_covering` of them cover, those of the least worth are given up until they are not, and
/// the choice is not proven.
Choice choose(const Candidates& views, std::size_t budget);
inline constexpr std::size_t most_joined = 16;
inline constexpr std::size_t most_covering = 6;

}  // namespace poquito::job
