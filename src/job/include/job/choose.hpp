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
    double half_worth = 1;                                   // of what a view is worth, on half a picture
};

struct Choice {
    std::vector<std::vector<std::size_t>> pictures;  // one view or two each, by their smaller index
    std::vector<std::size_t> left_out;
    double worth = 0;
    std::size_t musts_left_out = 0;
    bool proven = true;  // no choice is better: fewest musts left out, then most worth, then fewest pictures
};

/// At most `budget` pictures. By dynamic programming over the sets of views that pairs join, and over how many pictures
/// each of them gets; where pairs join more than `most_joined` views, pairs of the least worth are given up until they
/// do not, and the choice is not proven.
Choice choose(const Candidates& views, std::size_t budget);
inline constexpr std::size_t most_joined = 16;

}  // namespace poquito::job
