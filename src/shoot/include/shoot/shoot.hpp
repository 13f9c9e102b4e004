#pragma once

#include "shoot/shot.hpp"
#include "shoot/site.hpp"
#include "shoot/terms.hpp"
#include "shoot/values/copy_on_write_list.hpp"

#include <map>
#include <string>
#include <utility>
#include <vector>

/// The document: a shoot with its kit and its shots. Plain values, validated by storage on the way in: every id a shot
/// names is in the kit. Lengths in mm, times in s, light in stops; `unknown` as in kit.hpp.
namespace poquito::shoot {

/// Copies share their shots until one is changed.
using Shots = CopyOnWriteList<Shot>;

/// Powers of the groups that are called up together: one for portrait distance, one for close.
struct PowerSet {
    std::string name;
    std::vector<std::pair<std::string, double>> powers;  // group and fraction of full, by rising group
    std::string unknown;

    bool operator==(const PowerSet&) const = default;
};

/// What each change from one shot to the next takes, s. Where this photographer's own times are not known these are
/// what a practised one takes (common practice).
struct ChangePrices {
    double camera = 180;
    double lens = 120;
    double tubes = 90;  // converter, close-up lens, bellows and rings too
    double light = 240;
    double background = 90;
    double subject = 120;  // to place and dress one
    double turn = 30;      // to turn one round, for its next view
    std::string unknown;

    bool operator==(const ChangePrices&) const = default;
};

/// The day of the shoot, and the work on the frames that follows it.
struct Workday {
    double begin = 9 * 3600;  // s after midnight
    ChangePrices prices;
    // 1600 frames of stacks take most of a day (common practice), until this user measured it.
    double sorting = 5;          // s a frame
    double combining = 10;       // s a frame of a stack
    bool waiting_counts = true;  // for the order of shots: idle time is no better than work
    std::string unknown;

    bool operator==(const Workday&) const = default;
};

/// The runs of each shot, by its id, oldest first. They stand beside the plans: an edit does not touch ten thousand
/// frames, and no number of a plan depends on them.
using Runs = std::map<std::string, std::vector<CopyOnWrite<RunRecord>>>;
const std::vector<CopyOnWrite<RunRecord>>& runs_of(const Runs& runs, const std::string& shot);  // empty where none

struct Shoot {
    std::string title;
    gear::Kit kit;
    Workday workday;
    Site site;
    Terms terms;                    // of this purpose; a shot may have others
    std::optional<Output> purpose;  // what the pictures are for: what new shots count as sharp by
    std::vector<PowerSet> power_sets;
    std::vector<Outlet> outlets;
    Packing packing;
    Shots shots;
    Runs runs;
    std::string unknown;

    bool operator==(const Shoot&) const = default;
};

/// By which a shot of this shoot is planned. A white ground that an outlet of the shot asks for is wished, unless the
/// shot itself says otherwise.
Terms terms_of(const Shoot& shoot, const Shot& shot);

}  // namespace poquito::shoot

// Written out once, in shoot.cpp, not in every file that copies a shoot.
extern template class std::vector<poquito::shoot::PowerSet>;
extern template class std::vector<std::shared_ptr<poquito::shoot::Shot>>;
extern template class std::vector<poquito::shoot::CopyOnWrite<poquito::shoot::RunRecord>>;
