#include "light/store.hpp"

#include "support/matchers.hpp"

#include <cmath>

using namespace poquito::light;
using Catch::Matchers::WithinAbs;

namespace {

/// Frame by frame, as a capacitor of that size would: written apart from the formula. As many as are asked for: all.
int counted(const RapidFire& fire, int most) {
    double held = fire.store;
    for (int frame = 0; frame < most; ++frame) {
        if (held < fire.power - 1e-9) return frame;
        held = std::fmin(fire.store, held - fire.power + fire.every / fire.recycle);
    }
    return most;
}

}  // namespace

TEST_CASE("a flash in a fast bracket starves after as many frames as the check values say", "[light][store]") {
    // MODEL 12, arithmetic: ten and thirty are common practice at an unstated cadence.
    CHECK(whole_flashes({.power = 1.0 / 16, .every = 0.1, .recycle = 2.5, .store = 1}) == 42.0);
    CHECK(whole_flashes({.power = 1.0 / 16, .every = 0.1, .recycle = 4, .store = 0.5}) == 12.0);
    CHECK(whole_flashes({.power = 1.0 / 32, .every = 0.1, .recycle = 4, .store = 0.5}) == 76.0);
    CHECK(whole_flashes({.power = 0.6, .every = 10, .recycle = 4, .store = 0.5}) == 0.0);
    CHECK_FALSE(whole_flashes({.power = 1.0 / 64, .every = 0.1, .recycle = 4, .store = 0.5}));
}

TEST_CASE("whole flashes are those of a store that is emptied frame by frame", "[light][store]") {
    for (const double store : {0.5, 0.8, 1.0, 2.0})
        for (const double recycle : {0.7, 2.0, 5.0})
            for (const double every : {0.05, 0.1, 0.33, 1.0})
                for (double power = 1; power > 1.0 / 200; power *= 0.71) {
                    const RapidFire fire{.power = power, .every = every, .recycle = recycle, .store = store};
                    const auto whole = whole_flashes(fire);
                    INFO("U " << store << ", T " << recycle << ", D " << every << ", p " << power);
                    CHECK(counted(fire, 3000) == (whole && *whole < 3000 ? static_cast<int>(*whole) : 3000));
                }
}

TEST_CASE("the pace for a count of flashes is just slow enough", "[light][store]") {
    for (const double power : {0.5, 0.25, 1.0 / 16})
        for (const double count : {2.0, 9.0, 40.0, 300.0}) {
            RapidFire fire{.power = power, .recycle = 3, .store = 0.7};
            fire.every = pace_for(fire, count).value();
            CHECK(whole_flashes(fire).value_or(1e9) >= count);
            if (fire.every < 0.002) continue;
            fire.every -= 0.001;
            CHECK(whole_flashes(fire).value_or(1e9) < count + 1e-9 + (count > 100 ? 40 : 0));
        }
    CHECK_FALSE(pace_for({.power = 0.9, .store = 0.5}, 4));
    CHECK(pace_for({.power = 0.9, .store = 1}, 1) == 0.0);
}

TEST_CASE("one count of whole flashes brackets what the unit stores", "[light][store]") {
    for (const double store : {0.45, 0.8, 1.0, 1.7}) {
        const RapidFire fire{.power = 1.0 / 16, .every = 0.1, .recycle = 2.5, .store = store};
        const double count = whole_flashes(fire).value();
        const auto range = observed_store(fire, count).value();
        CHECK(range.least <= store + 1e-9);
        CHECK(store < range.most);
        CHECK_THAT(range.middle(), WithinAbs(store, (range.most - range.least) / 2 + 1e-9));
    }
    CHECK_FALSE(observed_store({.power = 1.0 / 64, .every = 0.1, .recycle = 4}, 30));
}
