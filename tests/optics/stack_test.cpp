#include "optics/stack.hpp"
#include "optics/diffraction.hpp"
#include "optics/trains.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using test::same;
using test::WithinRel;

namespace {
constexpr double wavelength = 550e-6;
}

TEST_CASE("the contrast rule stops where exactly the kept share is left", "[optics][stack]") {
    for (const double n : {4.0, 8.0, 14.0})
        for (const double kept : {0.05, 0.3, 0.8, 0.99}) {
            const optics::Imaging imaging{.magnification = 0.8, .working_f_number = n};
            const optics::ContrastRule rule{.blur_limit = 0.0078, .kept = kept, .wavelength = wavelength};
            const double depth = optics::contrast_depth(imaging, rule).value();
            optics::Defocus at{.frequency = 1 / (2 * rule.blur_limit), .working_f_number = n, .wavelength = wavelength};
            const double in_focus = optics::modulation_transfer(at);
            at.image_defocus = depth / 2 * imaging.magnification * imaging.magnification;
            INFO("f/" << n << ", kept " << kept);
            CHECK_THAT(optics::modulation_transfer(at), WithinRel(kept * in_focus, 1e-6));
            // The first such place: nearer in, more is left.
            for (double share = 0.02; share < 0.99; share += 0.02) {
                optics::Defocus nearer = at;
                nearer.image_defocus = at.image_defocus * share;
                CHECK(optics::modulation_transfer(nearer) > kept * in_focus);
            }
        }
}

TEST_CASE("with less than a tenth of the contrast in focus there is nothing to keep", "[optics][stack]") {
    const optics::Imaging imaging{.magnification = 2, .working_f_number = 30};
    CHECK_FALSE(optics::contrast_depth(imaging, {.blur_limit = 0.0078, .kept = 0.8, .wavelength = wavelength}));
}

TEST_CASE("a quarter wave at either end", "[optics][stack]") {
    // W20 = dz/(8 N^2) = lambda/4 at the sensor; m^2 takes it to the subject, both sides.
    const optics::Imaging imaging{.magnification = 0.5, .working_f_number = 8};
    CHECK_THAT(optics::quarter_wave_depth(imaging, wavelength), same(2 * (8 * 64 * wavelength / 4) / 0.25));
}

TEST_CASE("frames cover the span without a gap, and one fewer would not", "[optics][stack]") {
    for (unsigned seed = 0; seed < 2000; ++seed) {
        test::Random random(seed);
        const optics::Span span{.depth = random.coin(0.1) ? 0 : random.log_between(0.01, 50),
                                .frame_depth = random.log_between(0.01, 10),
                                .overlap = random.between(0, 0.9)};
        const auto steps = optics::plan_steps(span);
        const auto covered = [&](double frames) { return (frames - 1) * steps.step + span.frame_depth; };
        INFO("seed " << seed);
        CHECK(covered(steps.frames) >= span.depth * (1 - 1e-8));
        if (steps.frames > 1) CHECK(covered(steps.frames - 1) < span.depth);
        CHECK(steps.step <= span.frame_depth);
    }
    // Exactly three frames: rounding does not ask for a fourth.
    CHECK(optics::plan_steps({.depth = 0.3, .frame_depth = 0.1, .overlap = 0}).frames == 3);
}

TEST_CASE("the ring moves the sensor by m^2 step/|1 - m^2| for a unit-focusing lens", "[optics][stack]") {
    // MODEL 2, to first order in the step.
    const optics::Train train{.lens = {.focal_length = 60, .closest_focus = 240, .max_magnification = 1}};
    const auto at = optics::focus_at_ring(train, 0.5);
    const double step = 0.01, m = 0.5;
    const auto travel = optics::ring_travel(train, at, {.first = -step / 2, .last = step / 2}).value();
    const double extension = 60 * (travel.first_ring - travel.last_ring);
    CHECK_THAT(extension, WithinRel(m * m * step / (1 - m * m), 1e-3));
    CHECK(travel.scale_change < 0);  // focusing further away draws the lens in: everything gets smaller
    // Scale f (P + m): first order change of m over 1 + m.
    CHECK_THAT(travel.scale_change, WithinRel(-(travel.first_ring - travel.last_ring) / (1 + m), 1e-3));
    CHECK_THAT(travel.crop, WithinRel(-travel.scale_change, 1e-3));
}

TEST_CASE("the ring cannot make a stack at 1:1 nor past its closest focus", "[optics][stack]") {
    const optics::Train unity{.lens = {.focal_length = 50, .closest_focus = 225, .max_magnification = 2}};
    CHECK_FALSE(optics::ring_travel(unity, optics::focus_at_ring(unity, 0.5), {.first = -1, .last = 1}));
    const optics::Train closest{.lens = {.focal_length = 50, .closest_focus = 450, .max_magnification = 0.15}};
    CHECK_FALSE(optics::ring_travel(closest, optics::focus_at_ring(closest, 1), {.first = -1, .last = 1}));
}

TEST_CASE("however little contrast is to be kept, the rule finds where, at the first zero at the latest",
          "[optics][stack]") {
    for (const double limit : {0.004, 0.0078, 0.03})
        for (const double n : {2.8, 8.0, 12.0}) {
            const optics::Imaging imaging{.magnification = 0.8, .working_f_number = n};
            const auto depth = [&](double kept) {
                return optics::contrast_depth(imaging, {.blur_limit = limit, .kept = kept, .wavelength = wavelength});
            };
            if (!depth(0.5)) continue;
            INFO("f/" << n << ", limit " << limit);
            double before = 0;
            for (const double kept : {0.9, 0.5, 0.1, 1e-3, 1e-9, 1e-320}) {
                REQUIRE(depth(kept));
                CHECK(std::isfinite(*depth(kept)));
                CHECK(*depth(kept) >= before);
                before = *depth(kept);
            }
            // There the transfer passes through zero: it is of the other sign a little further out.
            optics::Defocus at{.frequency = 1 / (2 * limit), .working_f_number = n, .wavelength = wavelength};
            at.image_defocus = before / 2 * imaging.magnification * imaging.magnification * 1.001;
            CHECK(optics::optical_transfer(at) < 0);
            at.image_defocus *= 0.998;
            CHECK(optics::optical_transfer(at) > 0);
        }
}
