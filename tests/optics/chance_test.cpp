// The laws of chance against simulations that know none of them.
#include "optics/chance.hpp"
#include "support/matchers.hpp"

#include <boost/math/distributions/binomial.hpp>

#include <algorithm>
#include <cmath>
#include <random>

using namespace poquito;
using test::same;
using test::WithinAbs;

namespace {

/// Follows the swing in small steps from each of many phases.
double followed(const optics::SwingAcross& swing) {
    constexpr int phases = 4000, steps = 200;
    int within = 0;
    for (int p = 0; p < phases; ++p) {
        const double begin = (p + 0.5) / phases;  // of a period
        double low = 1e9, high = -1e9;
        for (int i = 0; i <= steps; ++i) {
            const double x =
                std::sin(2 * M_PI * (begin + swing.frequency * swing.exposure * i / static_cast<double>(steps)));
            low = std::min(low, x), high = std::max(high, x);
        }
        within += swing.magnification * swing.amplitude * (high - low) <= swing.limit;
    }
    return within / static_cast<double>(phases);
}

}  // namespace

TEST_CASE("a frame of a swing is sharp as often as following the swing finds it", "[optics][chance]") {
    for (const double amplitude : {0.3, 2.0, 9.0})
        for (const double frequency : {0.7, 1.5, 4.0})
            for (const double exposure : {1.0 / 1000, 1.0 / 150, 1.0 / 30, 0.1, 0.3, 0.9})
                for (const double limit : {0.008, 0.03, 0.4}) {
                    const optics::SwingAcross swing{.magnification = 0.5,
                                                    .amplitude = amplitude,
                                                    .frequency = frequency,
                                                    .exposure = exposure,
                                                    .limit = limit};
                    CAPTURE(amplitude, frequency, exposure, limit);
                    CHECK_THAT(optics::sharp_share(swing), WithinAbs(followed(swing), 0.012));
                }
    CHECK(optics::sharp_share({.amplitude = 0, .exposure = 1}) == 1);
    CHECK(optics::sharp_share({.amplitude = 5, .exposure = 0}) == 1);
    CHECK(optics::sharp_share({.magnification = 0, .amplitude = 5, .exposure = 1}) == 1);
}

TEST_CASE("MODEL 12: a swing of 2 mm at half size takes 23 tries at 1/150 s, 11 at 1/300 s", "[optics][chance]") {
    const auto share = [](double exposure) {
        return optics::sharp_share(
            {.magnification = 0.5, .amplitude = 2, .frequency = 1, .exposure = exposure, .limit = 0.0082});
    };
    CHECK_THAT(share(1.0 / 150), WithinAbs(0.125, 0.0005));
    CHECK_THAT(share(1.0 / 300), WithinAbs(0.256, 0.0005));
    CHECK(optics::tries_for(share(1.0 / 150)) == 23);
    CHECK(optics::tries_for(share(1.0 / 300)) == 11);
}

TEST_CASE("swings through focus, hands and landings against drawing them", "[optics][chance]") {
    std::mt19937 draw(7);
    std::normal_distribution<double> gauss;
    std::uniform_real_distribution<double> phase(0, 2 * M_PI);
    constexpr int draws = 200000;
    const auto share = [&](const auto& good) {
        int count = 0;
        for (int i = 0; i < draws; ++i) count += good();
        return count / static_cast<double>(draws);
    };
    const auto close = [](double drawn) { return WithinAbs(drawn, 4 * std::sqrt(0.25 / draws) + 1e-9); };
    for (const double half : {0.2, 0.9, 3.5}) {
        CAPTURE(half);
        CHECK_THAT(optics::share_within(2.5, half),
                   close(share([&] { return std::abs(2.5 * std::sin(phase(draw))) <= half; })));
        CHECK_THAT(optics::scatter_within(2.5, half),
                   close(share([&] { return std::abs(2.5 * gauss(draw)) <= half; })));
        CHECK_THAT(optics::scatter_between(2.5, half, 1), close(share([&] {
                       const double at = 2.5 * gauss(draw);
                       return at >= -half && at <= 1;
                   })));
        // Two axes, each with half of the mean square.
        CHECK_THAT(optics::steady_share(2.5, half), close(share([&] {
                       const double one = 2.5 / std::sqrt(2.0);
                       return std::hypot(one * gauss(draw), one * gauss(draw)) <= half;
                   })));
    }
    CHECK(optics::steady_share(0, 0.01) == 1);
    CHECK(optics::scatter_within(0, 1) == 1);
    CHECK(optics::share_within(0, 0.1) == 1);
}

TEST_CASE("tries for a chance, and the chance of so many, undo one another", "[optics][chance]") {
    for (const double chance : {0.001, 0.02, 0.12, 0.5, 0.9}) {
        const double tries = optics::tries_for(chance);
        CHECK(optics::chance_of_any(chance, tries) >= 0.95 - 1e-12);
        CHECK(optics::chance_of_any(chance, tries - 1) < 0.95);
    }
    CHECK(optics::tries_for(0.95) == 1);
    CHECK(optics::tries_for(1) == 1);
    CHECK(std::isinf(optics::tries_for(0)));
    CHECK(optics::chance_of_any(0, 100) == 0);
    CHECK(optics::chance_of_any(1, 1) == 1);
}

TEST_CASE("what is counted has Wilson's interval", "[optics][chance]") {
    CHECK_FALSE(optics::counted_share(0, 0));
    // Its ends are the shares from which the count is 1.645 standard deviations away: solved for anew.
    constexpr double z = 1.6448536269514722;
    for (const auto& [kept, tried] : {std::pair(0, 10), {3, 10}, {12, 100}, {50, 50}}) {
        const auto counted = *optics::counted_share(kept, tried);
        CAPTURE(kept, tried);
        CHECK(counted.share == kept / static_cast<double>(tried));
        for (const double end : {counted.least, counted.greatest})
            CHECK_THAT(std::pow(counted.share - end, 2), same(z * z * end * (1 - end) / tried));
        CHECK(counted.least <= counted.share);
        CHECK(counted.greatest >= counted.share);
    }
    // 90 % of counts from a known chance hold it (by the binomial law, to which the interval is an approximation).
    const boost::math::binomial_distribution<double> law(80, 0.3);
    double held = 0;
    for (int kept = 0; kept <= 80; ++kept) {
        const auto counted = *optics::counted_share(kept, 80);
        if (counted.least <= 0.3 && 0.3 <= counted.greatest) held += boost::math::pdf(law, kept);
    }
    CHECK_THAT(held, WithinAbs(0.9, 0.03));
}
