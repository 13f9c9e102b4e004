#include "storage/picture_plan.hpp"

#include "shoot/change/edit.hpp"
#include "support/shoots.hpp"

#include <catch2/catch.hpp>

using namespace poquito;
using namespace storage;

namespace {

/// One black pixel: the smallest PNG (ISO/IEC 15948), made once with a general-purpose library.
const std::string png(
    "\x89\x50\x4e\x47\x0d\x0a\x1a\x0a\x00\x00\x00\x0d\x49\x48\x44\x52\x00\x00\x00\x01\x00\x00\x00\x01\x08\x00\x00\x00"
    "\x00\x3a\x7e\x9b\x55\x00\x00\x00\x0a\x49\x44\x41\x54\x78\x9c\x63\x60\x00\x00\x00\x02\x00\x01\x48\xaf\xa4\x71\x00"
    "\x00\x00\x00\x49\x45\x4e\x44\xae\x42\x60\x82",
    67);

}  // namespace

TEST_CASE("a picture brings its plan back, whatever the shot", "[storage][picture]") {
    for (unsigned seed = 0; seed < 40; ++seed) {
        auto shoot = test::random_shoot(seed);
        shoot.shots.front().name = "Ammonite \"<&>\" \u00e9 \u2014 ]]>";
        if (seed % 2 == 0)
            shoot.shots.front().subject.height_map =
                shoot::HeightMap{.width = 3, .height = 2, .heights = {0, 1, 128, 255, 7, 9}};
        const auto picture = png_with_plan(png, shoot, 0);
        REQUIRE(picture);
        const auto plan = plan_in_picture(picture.value());
        if (!plan) FAIL(message(plan.error()));
        CHECK(plan.value() == shoot::alone(shoot, 0));
    }
}

TEST_CASE("pictures without a plan say so", "[storage][picture]") {
    const auto problem = [](const std::string& bytes) { return message(plan_in_picture(bytes).error()); };
    CHECK(problem(png) == "no plan in this picture, expected one that Poquito saved");
    CHECK(problem("") == "not a picture that can be read, expected a PNG that Poquito saved");
    CHECK(problem("GIF89a nonsense").find("not a picture") == 0);
    CHECK(problem(png.substr(0, 40)).find("expected") != std::string::npos);
    const auto shoot = test::random_shoot(1);
    CHECK(!png_with_plan("no png", shoot, 0));
    // A plan that was tampered with is refused with its place.
    auto picture = png_with_plan(png, shoot, 0).value();
    const auto at = picture.find("poquito-shoot");
    REQUIRE(at != std::string::npos);
    picture.replace(at, 13, "poquito-shoes");
    const auto tampered = problem(picture);
    CHECK((tampered.find("plan: format") == 0 || tampered.find("expected") != std::string::npos));
}
