#include "advice/look_over.hpp"

#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "storage/shoot_file.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"
#include "text/text.hpp"

#include <algorithm>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::advice;

namespace {

std::vector<ProofPoint> points(const Shoot& shoot) {
    const auto plan = plan::plan_of(shoot.kit, shoot.shots[0], {});
    return look_over(plan, plan::assess(plan));
}

std::optional<ProofPoint> point(const Shoot& shoot, const std::string& id) {
    const auto all = points(shoot);
    const auto found = std::ranges::find(all, id, &ProofPoint::id);
    return found == all.end() ? std::nullopt : std::optional(*found);
}

bool tells(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

}  // namespace

TEST_CASE("a stack is looked over at both ends, between its frames and for what moved", "[advice][proof]") {
    auto shoot = test::plain_shoot();
    for (const char* id : {"first-frame", "last-frame", "neighbours", "nothing-moved"}) CHECK_FALSE(point(shoot, id));
    CHECK(point(shoot, "sharp-there"));
    auto& shot = shoot.shots[0];
    shot.capture.mode = CaptureMode::stack;
    for (const char* id : {"first-frame", "last-frame", "neighbours", "nothing-moved"}) CHECK(point(shoot, id));
    CHECK_FALSE(point(shoot, "sharp-there"));
    const auto report = plan::assess(shoot.kit, shot, {});
    CHECK(tells(point(shoot, "neighbours")->seen, text::length_text(*report.capture.step)));
    CHECK(tells(point(shoot, "first-frame")->otherwise, text::length_text(2 * *report.capture.step)));
    CHECK(tells(point(shoot, "first-frame")->seen, "nearest point"));
    CHECK(tells(point(shoot, "nothing-moved")->seen, "is the rail"));
    shot.capture.mover = Mover::ring;
    CHECK_FALSE(tells(point(shoot, "nothing-moved")->seen, "is the rail"));
    shot.capture.mover = Mover::hand;
    CHECK_FALSE(point(shoot, "first-frame"));
    CHECK(point(shoot, "every-plane"));
}

TEST_CASE("frames are compared for missed flashes only where flashes fire frame after frame", "[advice][proof]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.capture.mode = CaptureMode::stack;
    CHECK_FALSE(point(shoot, "every-frame-lit"));
    shot.lights = {{.flash = "flash", .position = {.distance = 500}, .power = 0.25}};
    REQUIRE(point(shoot, "every-frame-lit"));
    const auto report = plan::assess(shoot.kit, shot, {});
    const double pace = std::max(report.capture.interval, report.capture.recycle);
    CHECK(tells(point(shoot, "every-frame-lit")->otherwise, text::time_text(1.5 * pace)));
    shot.capture.mode = CaptureMode::single;
    CHECK_FALSE(point(shoot, "every-frame-lit"));
}

TEST_CASE("metal, its background and a small stop have points of their own", "[advice][proof]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.lights = {{.flash = "flash", .position = {.distance = 500, .azimuth = 30}}};
    CHECK_FALSE(point(shoot, "highlights"));
    shot.subject.traits = {"polished"};
    REQUIRE(point(shoot, "highlights"));
    CHECK(point(shoot, "highlights")->correction < 0);
    shot.background = Background{.distance = 4000, .reflectance = 0.02};
    CHECK(tells(point(shoot, "background")->seen, "black"));
    shot.background = Background{.distance = 30, .reflectance = 0.18};
    CHECK(tells(point(shoot, "background")->seen, "even"));
    CHECK_FALSE(point(shoot, "dust"));
    shot.exposure.f_number = 22;
    CHECK(point(shoot, "dust"));
}

TEST_CASE("every shot has something to look at, each once and with what to do about it", "[advice][proof]") {
    const auto demo = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    for (const auto& shot : demo.shots) {
        auto one = demo;
        one.shots = shoot::CopyOnWriteList<Shot>{shot};
        const auto all = points(one);
        CHECK(all.size() >= 3);
        for (const auto& each : all) {
            CHECK_FALSE(each.name.empty());
            CHECK_FALSE(each.otherwise.empty());
            CHECK(std::ranges::count(all, each.id, &ProofPoint::id) == 1);
        }
    }
}
