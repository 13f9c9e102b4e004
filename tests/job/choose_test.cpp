// The choice under a budget against every choice there is.
#include "job/choose.hpp"

#include "support/matchers.hpp"
#include "support/random.hpp"

#include <algorithm>

using namespace poquito;
using job::Candidates;
using job::choose;

namespace {

struct Found {
    int musts = 0;
    double worth = 0;
    int pictures = 0;

    bool beats(const Found& other) const {
        if (musts != other.musts) return musts > other.musts;
        if (std::abs(worth - other.worth) > 1e-9) return worth > other.worth;
        return pictures < other.pictures;
    }
};

/// Each view left out, alone, or with each later one that it may share with: all of them.
void try_all(const Candidates& views, std::size_t budget, std::size_t view, std::vector<bool>& shown, Found now,
             Found& best) {
    if (view == views.worth.size()) {
        // What has no picture is seen in those that show it as well.
        for (std::size_t i = 0; i < view; ++i)
            if (!shown[i] && std::ranges::any_of(views.covers, [&](const auto& cover) {
                    return cover.second == i && shown[cover.first];
                }))
                now.musts += views.must[i], now.worth += views.half_worth * views.worth[i];
        if (now.beats(best)) best = now;
        return;
    }
    if (shown[view]) return try_all(views, budget, view + 1, shown, now, best);
    try_all(views, budget, view + 1, shown, now, best);
    if (static_cast<std::size_t>(now.pictures) == budget) return;
    Found alone = now;
    alone.musts += views.must[view], alone.worth += views.worth[view], ++alone.pictures;
    shown[view] = true;
    try_all(views, budget, view + 1, shown, alone, best);
    shown[view] = false;
    for (const auto& [one, other] : views.pairs) {
        if (one != view || shown[other]) continue;
        Found both = now;
        both.musts += views.must[one] + views.must[other];
        both.worth += views.half_worth * (views.worth[one] + views.worth[other]);
        ++both.pictures;
        shown[view] = shown[other] = true;
        try_all(views, budget, view + 1, shown, both, best);
        shown[view] = shown[other] = false;
    }
}

Candidates random_views(test::Random& random, int most) {
    Candidates views{.worth = {}, .must = {}, .pairs = {}, .half_worth = random.coin() ? 0.75 : random.between(0.3, 1)};
    const int count = random.whole(0, most);
    for (int i = 0; i < count; ++i) {
        views.worth.push_back(random.coin(0.3) ? random.whole(0, 3) : random.between(0, 10));
        views.must.push_back(random.coin(0.3));
    }
    for (std::size_t i = 0; i < views.worth.size(); ++i)
        for (std::size_t j = i + 1; j < views.worth.size(); ++j)
            if (random.coin(0.35)) views.pairs.emplace_back(i, j);
    if (random.coin())
        for (std::size_t i = 0; i < std::min<std::size_t>(3, views.worth.size()); ++i)
            for (std::size_t j = 0; j < views.worth.size(); ++j)
                if (i != j && random.coin(0.3)) views.covers.emplace_back(i, j);
    return views;
}

}  // namespace

TEST_CASE("no choice of pictures within a budget is better than the chosen one", "[job][choose]") {
    for (unsigned seed = 0; seed < 400; ++seed) {
        test::Random random(seed);
        const auto views = random_views(random, 8);
        const auto budget = static_cast<std::size_t>(random.whole(0, 9));
        const auto choice = choose(views, budget);
        Found best;
        std::vector<bool> shown(views.worth.size(), false);
        try_all(views, budget, 0, shown, {}, best);
        CAPTURE(seed, budget, views.worth.size(), views.pairs.size());
        CHECK(choice.proven);
        CHECK_THAT(choice.worth, test::WithinAbs(best.worth, 1e-9));
        CHECK(choice.pictures.size() == static_cast<std::size_t>(best.pictures));
        const auto musts = std::ranges::count(views.must, true);
        CHECK(static_cast<std::ptrdiff_t>(choice.musts_left_out) == musts - best.musts);
        // What it says is what it chose: each view once, pairs that may share, no more than the budget.
        std::vector<std::size_t> all = choice.left_out;
        double worth = 0;
        for (const auto view : choice.covered) all.push_back(view), worth += views.worth[view] * views.half_worth;
        for (const auto& picture : choice.pictures) {
            REQUIRE((picture.size() == 1 || picture.size() == 2));
            if (picture.size() == 2)
                CHECK(std::ranges::count(views.pairs, std::pair(picture.front(), picture.back())) == 1);
            for (const auto view : picture) {
                all.push_back(view);
                worth += views.worth[view] * (picture.size() == 2 ? views.half_worth : 1);
            }
        }
        std::ranges::sort(all);
        CHECK(all.size() == views.worth.size());
        CHECK(std::ranges::adjacent_find(all) == all.end());
        CHECK(choice.pictures.size() <= budget);
        CHECK_THAT(choice.worth, test::WithinAbs(worth, 1e-9));
    }
}

TEST_CASE("where many views may share, the choice is good and says that it is not proven", "[job][choose]") {
    Candidates views{.worth = {}, .must = {}, .pairs = {}, .half_worth = 0.75};
    for (std::size_t i = 0; i < 30; ++i) {
        views.worth.push_back(1 + static_cast<double>(i % 7));
        views.must.push_back(i == 3);
        for (std::size_t j = 0; j < i; ++j) views.pairs.emplace_back(j, i);
    }
    const auto choice = choose(views, 12);
    CHECK_FALSE(choice.proven);
    CHECK(choice.pictures.size() == 12);
    CHECK(choice.musts_left_out == 0);
    Candidates apart = views;
    apart.pairs.clear();
    CHECK(choice.worth > choose(apart, 12).worth);  // sharing brings more in
    CHECK(choose(apart, 12).proven);
}
