#pragma once

#include "log/entry.hpp"

#include <optional>
#include <string>
#include <vector>

/// What cases teach: simple statistics by their names, each with the number of its cases and an interval.
namespace poquito::log {

/// What practice says before there is a case, worth as many cases as it says.
struct Prior {
    double value = 0;
    double cases = 0;
};

/// A mean of what scatters alike: Student's interval for nine of ten. With a prior it is drawn towards that, by the
/// weight of its cases against those there are.
struct Mean {
    std::size_t cases = 0;
    double value = 0;
    double low = 0, high = 0;  // without bound from one case alone
    double spread = 0;         // one standard deviation; 0 from one case
};
/// Empty: neither cases nor a prior.
std::optional<Mean> mean_of(const std::vector<double>& cases, std::optional<Prior> prior = {});

/// A share of tries: the mean of the beta distribution that they and the prior make, and its middle nine of ten.
/// Without a prior one hit and one miss are worth half a case each (Jeffreys).
struct Share {
    double kept = 0, tried = 0;
    double value = 0;
    double low = 0, high = 1;
};
Share share_of(double kept, double tried, std::optional<Prior> prior = {});

/// The value that most have, of those within a twentieth of one another; empty: none.
std::optional<double> most_used(const std::vector<double>& values);

enum class Topic {
    exposure,  // of a light against its record, stops
    flash,     // frames that it keeps up with
    steps,     // mm from plane to plane of a camera's own bracket
    odds,      // of a frame
    change,    // minutes of a change
    work,      // s a frame of sorting and combining
    keepers,   // sequences kept, of those looked at
    pace,      // shots kept an hour
    stop,      // kept most, against planned
    depth,     // that a stack showed, over the planned one
    approach   // that a class was kept most by
};
inline constexpr int topics = 11;
struct Lesson {
    Topic topic = Topic::exposure;
    std::string about;  // "Compact flash in a softbox, coin"
    std::string text;   // for people, with the interval
    std::size_t cases = 0;
    double value = 0;
    double low = 0, high = 0;
    std::string what;  // of a change: which price it is; of work: "sorting", "combining"; of an
                       // approach or odds: which; of a flash: "behind" where it fell behind
    // What it is said of, as entries have it; empty where it is not by that.
    std::string subject_class, unit, modifier, lens;
};

/// Of all entries of a book, most cases first within each topic. Those that say too little are left out: one case of an
/// exposure, five tries of odds (common practice).
std::vector<Lesson> lessons_of(const std::vector<Entry>& entries);

}  // namespace poquito::log
