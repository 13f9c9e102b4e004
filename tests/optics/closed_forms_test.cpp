// The closed forms of MODEL 1 and 2 for a forward lens, written out again from the text and held against what the
// ray matrices give, over generated gear.
#include "optics/depth.hpp"
#include "optics/trains.hpp"
#include "support/matchers.hpp"

#include <utility>

using namespace poquito;
using test::same;
using test::WithinAbs;
using test::WithinRel;

namespace {

/// MODEL 1, letter by letter.
struct ClosedForms {
    double f_s, m_s, m_1, m, e, p, A, N_w;
    std::optional<double> w;

    ClosedForms(const optics::Train& train, double ring, double N) {
        const auto& lens = train.lens;
        const double M = lens.max_magnification, L = lens.closest_focus, f = lens.focal_length, T = train.tubes;
        const double D = train.closeup_power, P = lens.pupil_magnification,
                     k = train.converter ? train.converter->factor : 1;
        const bool unit = lens.focusing == optics::Focusing::unit;
        const double h = unit ? L - f * (2 + M + 1 / M) : lens.hiatus;
        const double f_c = (L - h) / (2 + M + 1 / M);
        f_s = unit ? f : f + ring * (f_c - f);
        m_s = ring * M;
        const double v = f_s * (1 + m_s) + T;
        m_1 = m_s + T / f_s;
        const double S = train.flange + T + lens.length + (unit ? f * m_s : 0);
        e = S - v - h;
        m = k * (m_1 * (1 - D * e) + D * f_s * (1 + m_1));
        if (m_1 > 0)
            w = 1 / (D + 1 / (f_s * (1 + 1 / m_1) - e));
        else if (D > 0)
            w = 1 / D;
        const double N_own = lens.closest_working_f_number
                                 ? N * (1 + ring * (*lens.closest_working_f_number / lens.max_aperture - 1))
                                 : N * (1 + m_s / P);
        N_w = N_own * (f_s * (P + m_s) + T) / (f_s * (P + m_s)) * k;
        A = f_s * (1 + m_s / P) / N_own;
        p = e - f_s * (1 - 1 / P);
    }
};

}  // namespace

TEST_CASE("reach and working aperture of a forward lens are those of MODEL 1", "[optics][closed]") {
    const double N = 4;
    for (unsigned seed = 0; seed < 4000; ++seed) {
        test::Random random(seed);
        const auto train = test::random_train(random);
        const double ring = random.coin(0.2) ? random.whole(0, 1) : random.between(0, 1);
        const auto at = optics::focus_at_ring(train, ring);
        const ClosedForms model(train, ring, N);
        INFO("seed " << seed);
        REQUIRE(optics::is_plain(train));
        CHECK_THAT(at.focal_length, same(model.f_s));
        CHECK_THAT(at.lens_magnification, same(model.m_s));
        CHECK_THAT(at.extended_magnification, same(model.m_1));
        CHECK_THAT(at.magnification, same(model.m));
        CHECK(std::abs(at.principal - model.e) < 1e-9 * (1 + std::abs(model.e)));
        REQUIRE(at.working_distance.has_value() == model.w.has_value());
        // Near infinity w is the reciprocal of something small; near 1/D = e a difference of like numbers.
        if (model.w) CHECK_THAT(*at.working_distance, WithinRel(*model.w, 1e-7));
        CHECK_THAT(optics::working_f_number(at, N), same(model.N_w));
        const auto pupil = optics::entrance_pupil(at, N);
        CHECK_THAT(pupil.diameter, same(model.A));
        CHECK_THAT(pupil.scale, same(1 - model.p * train.closeup_power));
    }
}

TEST_CASE("a tube behind a thin converter adds T/(k f) + m (k - 1)^2 T/(k E)", "[optics][closed]") {
    // MODEL 1, in parentheses after the converter.
    for (unsigned seed = 0; seed < 1000; ++seed) {
        test::Random random(seed);
        auto train = test::random_train(random);
        train.closeup_power = 0;
        train.converter = optics::Converter{.factor = random.between(1.2, 3), .length = random.between(10, 50)};
        const auto without = optics::focus_at_ring(train, 0.6);
        train.rear_tubes = random.between(5, 80);
        const auto with = optics::focus_at_ring(train, 0.6);
        const double k = train.converter->factor, E = train.converter->length, T = train.rear_tubes;
        INFO("seed " << seed);
        CHECK_THAT(
            with.magnification - without.magnification,
            WithinRel(T / (k * with.focal_length) + with.extended_magnification * (k - 1) * (k - 1) * T / (k * E),
                      1e-9));
        CHECK_THAT(with.front, same(without.front + T));
        CHECK(with.magnification > without.magnification);
    }
}

TEST_CASE("the order of converter and tube matters: in front of the converter a tube counts k times",
          "[optics][closed]") {
    optics::Train train{.lens = {.focal_length = 100, .closest_focus = 410, .max_magnification = 1},
                        .tubes = 25,
                        .converter = optics::Converter{.factor = 2, .length = 40}};
    const double in_front = optics::focus_at_ring(train, 0).magnification;
    CHECK_THAT(in_front, same(2 * 0.25));
    train.rear_tubes = std::exchange(train.tubes, 0);
    const double behind = optics::focus_at_ring(train, 0).magnification;
    CHECK_THAT(behind, same(25 / (2.0 * 100)));  // the whole train is 200 mm long: T over its focal length
    CHECK(behind < in_front);
}

TEST_CASE("a reversed lens magnifies and keeps its distance as MODEL 1 says", "[optics][closed][reversed]") {
    for (unsigned seed = 0; seed < 2000; ++seed) {
        test::Random random(seed);
        optics::Train train{.lens = test::random_lens(random), .flange = random.between(15, 47)};
        train.lens.closest_working_f_number.reset();
        train.lens.flange = random.between(15, 60);
        train.facing = optics::Facing::reversed;
        train.reversing_ring = random.between(2, 12);
        const auto& lens = train.lens;
        const double f = lens.focal_length, P = lens.pupil_magnification, M = lens.max_magnification;
        const double h =
            lens.focusing == optics::Focusing::unit ? lens.closest_focus - f * (2 + M + 1 / M) : lens.hiatus;
        const double m = (train.flange + train.reversing_ring + *lens.flange + lens.length - h) / f - 2;
        const auto at = optics::focus_at_ring(train, 0);
        INFO("seed " << seed);
        CHECK(std::abs(at.magnification - m) < 1e-9 * (1 + std::abs(m)));
        if (m < 0.01) continue;
        CHECK_THAT(at.working_distance.value(), same(*lens.flange + f / m));
        CHECK(*at.working_distance >= *lens.flange);  // never closer than its own flange distance (common practice)
        CHECK_THAT(optics::working_f_number(at, 8), same(8 * (1 / P + m)));
        CHECK_THAT(optics::entrance_pupil(at, 8).diameter, same(P * f / 8));
        CHECK_THAT(at.front, same(train.flange + train.reversing_ring + lens.length));
        CHECK_FALSE(optics::has_infinity(train));
    }
}

TEST_CASE("a reversed 28 mm lens with P = 2 at m = 2.82, marked f/8, works at f/26.6", "[optics][reversed]") {
    // MODEL 4, ray matrices: 8 (1/2 + 2.82) = 26.56.
    optics::Train train{.lens = {.focal_length = 28,
                                 .closest_focus = 250,
                                 .max_magnification = 0.13,
                                 .focusing = optics::Focusing::internal,
                                 .pupil_magnification = 2,
                                 .length = 45},
                        .flange = 44,
                        .facing = optics::Facing::reversed};
    train.reversing_ring = (2.82 + 2) * 28 - 44 - 44 - 45;
    const auto at = optics::focus_at_ring(train, 0);
    CHECK_THAT(at.magnification, same(2.82));
    CHECK_THAT(optics::working_f_number(at, 8), WithinAbs(26.6, 0.05));
}

TEST_CASE("a reversed lens on a lens at infinity magnifies f_a/f_b at its own flange distance",
          "[optics][closed][coupled]") {
    for (unsigned seed = 0; seed < 2000; ++seed) {
        test::Random random(seed);
        optics::Train train{.lens = test::random_lens(random), .flange = random.between(15, 47)};
        train.front_lens = optics::FrontLens{.lens = test::random_lens(random),
                                             .f_number = random.log_between(1.4, 11),
                                             .coupling = random.between(0, 8),
                                             .own_flange = random.between(15, 47)};
        const auto& front = *train.front_lens;
        const double m = train.lens.focal_length / front.lens.focal_length;
        const auto at = optics::focus_at_ring(train, 0);
        INFO("seed " << seed);
        CHECK_THAT(at.magnification, same(m));
        CHECK_THAT(at.working_distance.value(), same(front.own_flange));
        const double N_a = random.log_between(2, 16);
        CHECK_THAT(optics::working_f_number(at, N_a), same(std::max(N_a, m * front.f_number)));
        CHECK_THAT(at.front, same(train.flange + train.lens.length + front.coupling + front.lens.length));
        CHECK_FALSE(optics::has_infinity(train));
    }
}

TEST_CASE("a lens from another mount keeps infinity by an adapter of the difference, or loses it", "[optics][reach]") {
    optics::Train train{.lens = {.focal_length = 50, .length = 40}, .flange = 18};
    train.lens.flange = 44;
    CHECK(optics::has_infinity(train));
    CHECK(optics::focus_at_ring(train, 0).magnification == 0);
    CHECK_THAT(optics::focus_at_ring(train, 0).front, same(84));
    train.flange = 50;  // 6 mm too far from the sensor: as on a tube of 6 mm
    CHECK_FALSE(optics::has_infinity(train));
    CHECK_THAT(optics::focus_at_ring(train, 0).magnification, same(6.0 / 50));
}

TEST_CASE("readings rule at their ring positions, linearly between them", "[optics][reach]") {
    optics::Lens lens{.max_magnification = 1};
    CHECK(optics::lens_magnification(lens, 0.3) == 0.3);
    lens.readings = {{.ring = 0.5, .magnification = 0.6}};
    CHECK_THAT(optics::lens_magnification(lens, 0.25), same(0.3));
    CHECK_THAT(optics::lens_magnification(lens, 0.5), same(0.6));
    CHECK_THAT(optics::lens_magnification(lens, 0.75), same(0.8));
    CHECK_THAT(optics::lens_magnification(lens, 1), same(1));
    lens.readings.push_back({.ring = 1, .magnification = 1.1});
    CHECK_THAT(optics::lens_magnification(lens, 0.75), same(0.85));
    CHECK_THAT(optics::lens_magnification(lens, 1), same(1.1));
}
