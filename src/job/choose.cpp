#include "job/choose.hpp"

#include <algorithm>
#include <cstdint>
#include <limits>
#include <map>
#include <numeric>
#include <tuple>

namespace poquito::job {
namespace {

/// What is compared: musts shown, then worth, then how few pictures it takes.
struct Value {
    int musts = 0;
    double worth = 0;
    int pictures = 0;

    Value operator+(const Value& other) const {
        return {musts + other.musts, worth + other.worth, pictures + other.pictures};
    }
};

/// Sums in another order differ in their last digits.
bool better(const Value& one, const Value& other) {
    constexpr double same = 1e-9;
    if (one.musts != other.musts) return one.musts > other.musts;
    if (std::abs(one.worth - other.worth) > same) return one.worth > other.worth;
    return one.pictures < other.pictures;
}

using Picture = std::vector<std::size_t>;
using Pictures = std::vector<Picture>;

/// Views that pairs join, directly or through others.
struct Group {
    std::vector<std::size_t> views;
    std::vector<std::pair<std::size_t, std::size_t>> pairs;   // places in `views`
    std::vector<std::pair<std::size_t, std::size_t>> covers;  // places in `views`
};

/// What is taken of the views that cover others, and what these show of the rest.
struct Covering {
    std::uint32_t must_take = 0;  // places of the group
    std::uint32_t must_skip = 0;
    std::uint32_t seen = 0;  // by what is taken
};

class GroupChoice {
  public:
    GroupChoice(const Candidates& all, const Group& group, const Covering& covering)
        : all_(all), group_(group), covering_(covering), beside_(group.views.size()) {
        for (const auto& [one, other] : group.pairs) beside_[one].push_back(other);
    }

    /// The best with exactly so many pictures; empty `value`: there are not so many.
    struct Best {
        Value value;
        Pictures pictures;
        bool exists = true;
    };
    Best best(std::size_t pictures) {
        const auto found = at((std::uint32_t{1} << group_.views.size()) - 1, pictures);
        Best best{.value = found.value, .pictures = {}, .exists = found.exists};
        if (!found.exists) return best;
        auto left = (std::uint32_t{1} << group_.views.size()) - 1;
        for (std::size_t rest = pictures; left != 0;) {
            const auto step = at(left, rest);
            const auto first = lowest(left);
            left &= ~(std::uint32_t{1} << first);
            if (step.taken == skipped) continue;
            --rest;
            Picture picture{group_.views[first]};
            if (step.taken != alone) {
                left &= ~(std::uint32_t{1} << step.taken);
                picture.push_back(group_.views[static_cast<std::size_t>(step.taken)]);
            }
            best.pictures.push_back(std::move(picture));
        }
        return best;
    }

  private:
    static constexpr int skipped = -1, alone = -2;
    struct Step {
        Value value;
        int taken = skipped;  // how the lowest view of the set is taken: with which other one
        bool exists = true;
    };

    static std::size_t lowest(std::uint32_t set) { return static_cast<std::size_t>(__builtin_ctz(set)); }
    Value value_of(std::size_t view, double share) const {
        const auto at = group_.views[view];
        return {.musts = all_.must[at], .worth = all_.worth[at] * share, .pictures = 0};
    }

    Step at(std::uint32_t left, std::size_t pictures) {
        if (left == 0) return {.value = {}, .taken = skipped, .exists = pictures == 0};
        const auto key = std::pair(left, pictures);
        if (const auto known = known_.find(key); known != known_.end()) return known->second;
        const auto first = lowest(left);
        const auto without = left & ~(std::uint32_t{1} << first);
        const auto own = std::uint32_t{1} << first;
        Step best = at(without, pictures);
        best.taken = skipped;
        if (best.exists && (covering_.seen & own) != 0) best.value = best.value + value_of(first, all_.half_worth);
        if ((covering_.must_take & own) != 0) best.exists = false;
        const auto offer = [&](const Step& rest, Value value, int taken) {
            if (!rest.exists) return;
            value = value + rest.value;
            value.pictures += 1;
            if (!best.exists || better(value, best.value)) best = {.value = value, .taken = taken, .exists = true};
        };
        if (pictures > 0 && (covering_.must_skip & own) == 0) {
            offer(at(without, pictures - 1), value_of(first, 1), alone);
            for (const auto other : beside_[first]) {
                const auto bit = std::uint32_t{1} << other;
                if ((without & bit) == 0 || (covering_.must_skip & bit) != 0) continue;
                offer(at(without & ~bit, pictures - 1),
                      value_of(first, all_.half_worth) + value_of(other, all_.half_worth), static_cast<int>(other));
            }
        }
        known_.emplace(key, best);
        return best;
    }

    const Candidates& all_;
    const Group& group_;
    Covering covering_;
    std::vector<std::vector<std::size_t>> beside_;  // of each, those behind it that it may share with
    std::map<std::pair<std::uint32_t, std::size_t>, Step> known_;
};

using Joined = std::pair<std::size_t, std::size_t>;

/// What is worth most first, so that the rest is given up first.
std::vector<Joined> by_worth(const Candidates& views, std::vector<Joined> joined) {
    std::ranges::stable_sort(joined, std::ranges::greater(), [&](const auto& pair) {
        return std::tuple(views.must[pair.first] + views.must[pair.second],
                          views.worth[pair.first] + views.worth[pair.second]);
    });
    return joined;
}

/// Covers of at most `most_covering` views; false: some were given up for it.
bool covers_of(const Candidates& views, std::vector<Joined>& covers) {
    std::vector<std::size_t> covering;
    for (const auto& cover : by_worth(views, views.covers)) {
        if (std::ranges::count(covering, cover.first) == 0) {
            if (covering.size() == most_covering) return false;
            covering.push_back(cover.first);
        }
        covers.push_back(cover);
    }
    return true;
}

/// Groups of at most `most_joined` views; false: pairs or covers were given up for it.
bool groups_of(const Candidates& views, std::vector<Group>& groups) {
    const std::size_t count = views.worth.size();
    std::vector<Joined> covers;
    bool all = covers_of(views, covers);
    const auto pairs = by_worth(views, views.pairs);
    std::vector<std::size_t> leader(count), size(count, 1);
    std::iota(leader.begin(), leader.end(), std::size_t{0});
    const auto leader_of = [&](std::size_t view) {
        while (leader[view] != view) view = leader[view] = leader[leader[view]];
        return view;
    };
    const auto joined = [&](const std::vector<Joined>& wanted) {
        std::vector<Joined> kept;
        for (const auto& pair : wanted) {
            const auto one = leader_of(pair.first), other = leader_of(pair.second);
            if (one != other && size[one] + size[other] > most_joined) {
                all = false;
                continue;
            }
            if (one != other) leader[other] = one, size[one] += size[other];
            kept.push_back(pair);
        }
        return kept;
    };
    const auto kept = joined(pairs), kept_covers = joined(covers);
    std::map<std::size_t, std::size_t> place;  // of each leader's group
    std::vector<std::size_t> within(count);
    for (std::size_t view = 0; view < count; ++view) {
        const auto [found, fresh] = place.try_emplace(leader_of(view), groups.size());
        if (fresh) groups.emplace_back();
        auto& group = groups[found->second];
        within[view] = group.views.size();
        group.views.push_back(view);
    }
    for (const auto& [one, other] : kept) groups[place[leader_of(one)]].pairs.emplace_back(within[one], within[other]);
    for (const auto& [one, other] : kept_covers)
        groups[place[leader_of(one)]].covers.emplace_back(within[one], within[other]);
    return all;
}

/// Every way to take those of a group that cover others.
std::vector<Covering> coverings_of(const Group& group) {
    std::vector<std::size_t> covering;
    for (const auto& [one, other] : group.covers)
        if (std::ranges::count(covering, one) == 0) covering.push_back(one);
    std::vector<Covering> all;
    for (std::uint32_t way = 0; way < (std::uint32_t{1} << covering.size()); ++way) {
        Covering made;
        for (std::size_t k = 0; k < covering.size(); ++k) {
            const auto own = std::uint32_t{1} << covering[k];
            const bool taken = ((way >> k) & 1U) != 0;
            (taken ? made.must_take : made.must_skip) |= own;
            if (!taken) continue;
            for (const auto& [one, other] : group.covers)
                if (one == covering[k]) made.seen |= std::uint32_t{1} << other;
        }
        all.push_back(made);
    }
    return all;
}

/// The best of a group for each number of pictures, over all ways to cover.
std::vector<GroupChoice::Best> bests_of(const Candidates& views, const Group& group, std::size_t budget) {
    std::vector<GroupChoice::Best> bests(std::min(budget, group.views.size()) + 1);
    for (auto& best : bests) best.exists = false;
    for (const Covering& covering : coverings_of(group)) {
        GroupChoice choice(views, group, covering);
        for (std::size_t n = 0; n < bests.size(); ++n) {
            auto one = choice.best(n);
            if (one.exists && (!bests[n].exists || better(one.value, bests[n].value))) bests[n] = std::move(one);
        }
    }
    return bests;
}

}  // namespace

Choice choose(const Candidates& views, std::size_t budget) {
    std::vector<Group> groups;
    Choice choice;
    choice.proven = groups_of(views, groups);
    budget = std::min(budget, views.worth.size());
    struct Sum {
        Value value;
        Pictures pictures;
        bool exists = false;
    };
    std::vector<Sum> sums(budget + 1);
    sums[0].exists = true;
    for (const Group& group : groups) {
        const auto bests = bests_of(views, group, budget);
        std::vector<Sum> next(budget + 1);
        for (std::size_t had = 0; had <= budget; ++had) {
            if (!sums[had].exists) continue;
            for (std::size_t n = 0; n < bests.size() && had + n <= budget; ++n) {
                if (!bests[n].exists) continue;
                const Value value = sums[had].value + bests[n].value;
                auto& to = next[had + n];
                if (to.exists && !better(value, to.value)) continue;
                to.exists = true, to.value = value, to.pictures = sums[had].pictures;
                to.pictures.insert(to.pictures.end(), bests[n].pictures.begin(), bests[n].pictures.end());
            }
        }
        sums = std::move(next);
    }
    const Sum* best = nullptr;
    for (const Sum& sum : sums)
        if (sum.exists && (!best || better(sum.value, best->value))) best = &sum;
    if (best) choice.pictures = best->pictures, choice.worth = best->value.worth;
    std::ranges::sort(choice.pictures);
    std::vector<bool> shown(views.worth.size(), false);
    for (const auto& picture : choice.pictures)
        for (const auto view : picture) shown[view] = true;
    for (std::size_t view = 0; view < shown.size(); ++view) {
        if (shown[view]) continue;
        if (std::ranges::any_of(views.covers,
                                [&](const auto& cover) { return cover.second == view && shown[cover.first]; })) {
            choice.covered.push_back(view);
            continue;
        }
        choice.left_out.push_back(view);
        choice.musts_left_out += views.must[view];
    }
    return choice;
}

}  // namespace poquito::job
