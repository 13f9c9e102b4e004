#include "optics/aperture.hpp"
#include "optics/trains.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using test::same;
using test::WithinAbs;

TEST_CASE("extension costs the stops of the handbook table", "[optics][aperture]") {
    // Langford, Basic Photography; Ray, Applied Photographic Optics: factors (1 + m)^2, symmetric lens (MODEL 4).
    const std::pair<double, double> handbook[] = {{0.25, 0.64}, {0.5, 1.17}, {1, 2.00}, {2, 3.17}, {4, 4.64}};
    for (const auto& [m, stops] : handbook) {
        const optics::Train train{.lens = {.focal_length = 50}, .tubes = 50 * m};
        CHECK_THAT(optics::exposure_loss(optics::focus_at_ring(train, 0), 8), WithinAbs(stops, 0.005));
    }
}

TEST_CASE("a symmetric lens at 1:1, marked f/8, works at f/16", "[optics][aperture]") {
    const optics::Train train{.lens = {.focal_length = 100, .closest_focus = 400, .max_magnification = 1}};
    CHECK_THAT(optics::working_f_number(optics::focus_at_ring(train, 1), 8), same(16));
}

TEST_CASE("a measured working f-number holds at closest focus and fades to the marked one at infinity",
          "[optics][aperture]") {
    const optics::Train train{.lens = {.max_aperture = 2.8, .max_magnification = 1, .closest_working_f_number = 5.6}};
    CHECK_THAT(optics::working_f_number(optics::focus_at_ring(train, 1), 2.8), same(5.6));
    CHECK_THAT(optics::working_f_number(optics::focus_at_ring(train, 1), 8), same(16));
    CHECK_THAT(optics::working_f_number(optics::focus_at_ring(train, 0.5), 2.8), same(4.2));
    CHECK_THAT(optics::working_f_number(optics::focus_at_ring(train, 0), 2.8), same(2.8));
}

TEST_CASE("tubes scale the working f-number as in MODEL 1, with and without a measured record", "[optics][aperture]") {
    // N_own (f_s (P + m_s) + T)/(f_s (P + m_s)); without the record that is N (1 + m_1/P).
    optics::Train train{
        .lens = {.focal_length = 60, .closest_focus = 60 * 4, .max_magnification = 1, .pupil_magnification = 1.5},
        .tubes = 30};
    const auto at = optics::focus_at_ring(train, 0.5);
    CHECK_THAT(optics::working_f_number(at, 4), same(4 * (1 + (0.5 + 0.5) / 1.5)));
    train.lens.closest_working_f_number = train.lens.max_aperture * 1.8;
    CHECK_THAT(optics::working_f_number(optics::focus_at_ring(train, 0.5), 4),
               same(4 * 1.4 * (60 * 2 + 30) / (60 * 2.0)));
}

TEST_CASE("a close-up lens never changes the working f-number, a converter multiplies it", "[optics][aperture]") {
    for (unsigned seed = 0; seed < 500; ++seed) {
        test::Random random(seed);
        optics::Train train = test::random_train(random);
        train.closeup_power = 0;
        train.converter.reset();
        const double ring = random.between(0, 1);
        const double bare = optics::working_factor(optics::focus_at_ring(train, ring));
        train.closeup_power = random.between(0.5, 10) / 1000;
        INFO("seed " << seed);
        CHECK_THAT(optics::working_factor(optics::focus_at_ring(train, ring)), same(bare));
        train.converter = optics::Converter{.factor = 2, .length = 40};
        CHECK_THAT(optics::working_factor(optics::focus_at_ring(train, ring)), same(2 * bare));
    }
}
