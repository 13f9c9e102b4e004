// A session: what window and command line share. The runner below it has tests of its own.
#include "run/session.hpp"

#include "plan/assess.hpp"
#include "plan/plan.hpp"

#include "support/benches.hpp"

#include <algorithm>
#include <fstream>

using namespace poquito;
using namespace poquito::run;

namespace {

constexpr double fast = 1e6;  // times the wall clock

Session& session(Session::Made& made) {
    if (!made) FAIL(text::message(made.error()));
    return *made.value();
}
text::Error error_of(const Session::Made& made) {
    REQUIRE(!made);
    return made.error();
}
bool empty(const std::filesystem::path& folder) { return std::filesystem::is_empty(folder); }

}  // namespace

TEST_CASE("a session takes a shot from nothing to its record", "[run][session]") {
    const test::Folder folder;
    const auto shoot = test::twelve_frames();
    auto made = Session::begin({.plan = plan::plan_of(shoot.kit, shoot.shots[0], {})},
                               {.journals = folder.path(), .frames_apart = true}, {.speed = fast, .picture_width = 48});
    auto& run = session(made);
    CHECK_FALSE(run.is_test());
    CHECK(run.plan().folder == folder.path() / run.plan().id);
    CHECK(run.run() == Phase::complete);
    const auto entry = log_entry(run.runner().state());
    CHECK(entry.frames.size() == 12);
    CHECK(entry.end == shoot::RunEnd::complete);
    CHECK(entry.remark.empty());
    for (const auto& frame : entry.frames) CHECK(std::filesystem::exists(run.plan().folder / frame.file));
    CHECK_FALSE(broken_run(folder.path(), shoot.shots[0].id, false));
}

TEST_CASE("a session of test frames says so in the log", "[run][session]") {
    const test::Folder folder;
    const auto shoot = test::twelve_frames();
    auto made = Session::begin({.plan = plan::plan_of(shoot.kit, shoot.shots[0], {}), .tests = true},
                               {.journals = folder.path()}, {.speed = fast, .picture_width = 48});
    auto& run = session(made);
    CHECK(run.is_test());
    CHECK(run.run() == Phase::complete);
    CHECK(log_entry(run.runner().state()).frames.size() == 3);
    CHECK(log_entry(run.runner().state()).remark == "test frames");
}

TEST_CASE("a session that broke off is found, and gone on with", "[run][session]") {
    const test::Folder folder;
    const auto shoot = test::twelve_frames();
    const RunOptions gives_up{.hold_on_fault = false, .reconnects = 0};
    devices::DeviceSettings settings{.speed = fast, .picture_width = 48};
    settings.mishaps = {{.kind = devices::MishapKind::camera_drops, .frame = 5}};
    {
        auto made = Session::begin({.plan = plan::plan_of(shoot.kit, shoot.shots[0], {})}, {.journals = folder.path()},
                                   settings, gives_up);
        CHECK(session(made).run() == Phase::broken);
    }
    const auto broken = broken_run(folder.path(), shoot.shots[0].id, false);
    REQUIRE(broken);
    CHECK_FALSE(broken_run(folder.path(), shoot.shots[0].id, true));
    CHECK_FALSE(broken_run(folder.path(), "another", false));
    settings.mishaps.clear();
    auto made = Session::go_on(*broken, shoot, settings, gives_up);
    auto& run = session(made);
    const auto before = run.runner().state().done();
    CHECK(before > 0);
    CHECK(before < 12);
    CHECK(run.run() == Phase::complete);
    CHECK(log_entry(run.runner().state()).frames.size() == 12);
}

TEST_CASE("what cannot begin says where the trouble is, and leaves nothing behind", "[run][session]") {
    const test::Folder folder;
    auto shoot = test::twelve_frames();
    const auto begin = [&](const devices::DeviceSettings& settings) {
        return Session::begin({.plan = plan::plan_of(shoot.kit, shoot.shots[0], {})}, {.journals = folder.path()},
                              settings);
    };
    CHECK(error_of(begin({.dialect_file = "/no/such/file"})).place.find("/no/such/file") != std::string::npos);
    const auto dialect = folder.path() / "dialect.json";
    std::ofstream(dialect) << "{\"move\": 1}";
    CHECK(error_of(begin({.dialect_file = dialect})).place.find("dialect.json") != std::string::npos);
    std::filesystem::remove(dialect);
    CHECK(empty(folder.path()));
    // A stack that nobody takes.
    shoot.shots[0].subject.depth = 500;
    shoot.shots[0].exposure.f_number = 2.8;
    shoot.shots[0].rig.focus = {.by = shoot::FocusBy::magnification, .value = 1};
    if (plan::assess(shoot.kit, shoot.shots[0], {}).capture.frames > plan::most_frames)
        CHECK(error_of(begin({})).place == "shot " + shoot.shots[0].id);
    CHECK(empty(folder.path()));
    CHECK(error_of(Session::go_on(folder.path() / "none.journal", shoot, {})).place.find("none.journal") !=
          std::string::npos);
}

TEST_CASE("a run exposes as its shoot wishes", "[run][session]") {
    auto shoot = test::twelve_frames();
    shoot.shots[0].lights[0].power.reset();  // it finds its own
    shoot.shots[0].lights[0].metered.reset();
    const auto& shot = std::as_const(shoot.shots)[0];
    const auto powers = [&] {
        return make_run_plan(plan::plan_of(shoot.kit, shot, shoot::terms_of(shoot, shot)), "one", {}).powers;
    };
    const auto usual = powers();
    shoot.terms.wishes.brighter = 1;
    const auto brighter = powers();
    REQUIRE_FALSE(usual.empty());
    REQUIRE(usual.size() == brighter.size());
    for (std::size_t i = 0; i < usual.size(); ++i) CHECK(brighter[i] > 1.5 * usual[i]);
}
