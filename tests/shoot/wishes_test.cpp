// What the picture is to look like: what a shot says goes over what its shoot says, member by member.
#include "shoot/wishes.hpp"

#include "shoot/shoot.hpp"
#include "support/random.hpp"
#include "support/runner.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using namespace poquito::shoot;

TEST_CASE("what a shot wishes goes over what its shoot wishes, member by member", "[shoot][wishes]") {
    const Wishes shoots{.ground = WantedGround::black, .softness = 0.1, .brighter = 0.3, .coloured_light = true};
    const Wishes own{.ground = WantedGround::white, .lit_by = WantedLight::flash};
    const auto both = overlaid(own, shoots);
    CHECK(both.ground == WantedGround::white);
    CHECK(both.softness == 0.1);
    CHECK(both.lit_by == WantedLight::flash);
    CHECK(both.brighter == 0.3);
    CHECK(both.coloured_light);
    CHECK(overlaid({}, shoots) == shoots);
    CHECK(overlaid(own, {}) == own);
}

TEST_CASE("what is granted is what is wished afterwards, and a shot says no more than it has to", "[shoot][wishes]") {
    for (unsigned number = 0; number < 500; ++number) {
        INFO(number);
        test::Random random(number);
        const auto wanted = test::random_wishes(random);
        auto own = test::random_wishes(random), shoots = test::random_wishes(random);
        grant(wanted, own, shoots);
        CHECK(overlaid(own, shoots) == wanted);
        if (wanted.ground == shoots.ground) CHECK(own.ground == WantedGround::unsaid);
        if (wanted.softness == shoots.softness) CHECK_FALSE(own.softness);
    }
}

TEST_CASE("an outlet's white ground is wished where the shot says nothing else", "[shoot][wishes]") {
    auto shoot = test::plain_shoot();
    shoot.outlets = {{.id = "shop", .name = "Shop", .ground = Ground::white, .first = {}, .unknown = {}}};
    shoot.terms.wishes.ground = WantedGround::dark;
    auto& shot = shoot.shots[0];
    CHECK(terms_of(shoot, shot).wishes.ground == WantedGround::dark);
    shot.deliveries = {{.outlet = "shop", .beside = {}, .unknown = {}}};
    CHECK(terms_of(shoot, shot).wishes.ground == WantedGround::white);
    shot.wishes.ground = WantedGround::as_it_is;
    CHECK(overlaid(shot.wishes, terms_of(shoot, shot).wishes).ground == WantedGround::as_it_is);
    shot.wishes = {};
    shoot.outlets[0].ground = Ground::plain;
    CHECK(terms_of(shoot, shot).wishes.ground == WantedGround::dark);
}

TEST_CASE("wishes are told in the words of the page, and what is unsaid is not", "[shoot][wishes]") {
    CHECK(words_of({}).empty());
    const Wishes all{.ground = WantedGround::black,
                     .softness = 0.08,
                     .lit_by = WantedLight::flash,
                     .movement = WantedMovement::drawn,
                     .contrast = WantedContrast::soft,
                     .brighter = -0.7,
                     .coloured_light = true,
                     .passes_frame = true,
                     .unknown = {}};
    const std::vector<std::string> words{
        "black ground",  "soft behind by 8 % of the frame", "flash alone",    "movement drawn",
        "soft contrast", "\u22120.7 stops on purpose",      "coloured light", "past the frame's edges"};
    CHECK(words_of(all) == words);
}
