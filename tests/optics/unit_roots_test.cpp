#include "optics/unit_roots.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <algorithm>
#include <vector>

using namespace poquito;
using optics::Quartic;
using test::WithinAbs;

TEST_CASE("every root of a generated polynomial in 0 to 1 is found, by rising place", "[optics][roots]") {
    for (unsigned seed = 0; seed < 3000; ++seed) {
        test::Random random(seed);
        // Linear factors with roots inside and outside, well apart.
        Quartic p = {random.between(0.5, 2) * (random.coin() ? 1 : -1), 0, 0, 0, 0};
        std::vector<double> inside, all;
        for (int i = random.whole(0, 4); i > 0; --i) {
            const double root = random.between(-1, 2);
            if (std::ranges::any_of(all, [&](double other) { return std::abs(other - root) < 0.02; })) continue;
            if (std::min(std::abs(root), std::abs(root - 1)) < 0.01) continue;
            all.push_back(root);
            p = optics::product(p, {-root, 1, 0, 0, 0});
            if (root > 0 && root < 1) inside.push_back(root);
        }
        std::ranges::sort(inside);
        const auto found = optics::unit_roots(p);
        INFO("seed " << seed);
        REQUIRE(found.count == inside.size());
        for (std::size_t i = 0; i < inside.size(); ++i) CHECK_THAT(found.at[i], WithinAbs(inside[i], 1e-9));
        if (optics::has_one_sign(p)) CHECK(inside.empty());
    }
}

TEST_CASE("one sign is seen where there plainly is one", "[optics][roots]") {
    CHECK(optics::has_one_sign({1, 0, 0, 0, 0}));
    CHECK(optics::has_one_sign({-1, -2, -3, -4, -5}));
    CHECK_FALSE(optics::has_one_sign({-1, 2, 0, 0, 0}));
    CHECK_FALSE(optics::has_one_sign({0, 1, 0, 0, 0}));
}
