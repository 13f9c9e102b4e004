// The text protocol over a real pseudo-terminal.
#include "devices/serial_rail.hpp"
#include "devices/sim/motion_controller.hpp"
#include "support/benches.hpp"
#include "support/matchers.hpp"

#include <fcntl.h>
#include <unistd.h>

#include <chrono>
#include <filesystem>
#include <thread>

using namespace poquito;
using namespace poquito::devices;
using namespace poquito::run;
using test::WithinAbs;

namespace {

struct Line {
    InstantClock clock;
    World world{.clock = clock};
    SimulatedRail rail{world, {.travel = 40, .step = 0.001, .backlash = 0.05, .speed = 2}};
    MotionController controller{rail};
    MotionDialect dialect{.timeout = 2, .travel = 40};
};

}  // namespace

TEST_CASE("a rail behind a serial line goes where it is told", "[bench][serial]") {
    Line line;
    REQUIRE_FALSE(line.controller.device().empty());
    SerialRail rail(line.controller.device(), line.dialect);
    CHECK(rail.move_to(1)->kind == FaultKind::not_connected);
    REQUIRE_FALSE(rail.connect());
    REQUIRE_FALSE(rail.home());
    CHECK_THAT(rail.position().value(), WithinAbs(0, 1e-9));
    for (const double to : {12.3456, 0.001, 40.0, 39.9995}) {
        REQUIRE_FALSE(rail.move_to(to));
        CHECK_THAT(rail.position().value(), WithinAbs(to, 0.0006));
    }
    CHECK(rail.move_to(41)->kind == FaultKind::out_of_travel);
    rail.disconnect();
    CHECK(rail.home()->kind == FaultKind::not_connected);
    REQUIRE_FALSE(rail.connect());
    CHECK_THAT(rail.position().value(), WithinAbs(39.9995, 0.0006));
}

TEST_CASE("refusals, silence and a pulled plug are told apart", "[bench][serial]") {
    Line line;
    line.dialect.timeout = 0.2;
    line.dialect.travel = 60;  // believed longer than it is
    {
        SerialRail rail(line.controller.device(), line.dialect);
        REQUIRE_FALSE(rail.connect());
        REQUIRE_FALSE(rail.home());
        const auto refused = rail.move_to(50);
        REQUIRE(refused);
        CHECK(refused->kind == FaultKind::refused);
        CHECK(refused->text.find("0 to 40") != std::string::npos);
        REQUIRE_FALSE(rail.move_to(10));  // and goes on
        auto strange = line.dialect;
        strange.setup = {"G999"};
        SerialRail other(line.controller.device(), strange);
        CHECK(other.connect()->kind == FaultKind::refused);
    }
    SerialRail rail(line.controller.device(), line.dialect);
    REQUIRE_FALSE(rail.connect());
    line.controller.fall_silent();
    CHECK(rail.position().error().kind == FaultKind::timed_out);
    line.controller.unplug();
    CHECK(rail.position().error().kind == FaultKind::not_connected);
    CHECK(SerialRail("/dev/no-such-line", {}).connect()->kind == FaultKind::not_connected);
}

TEST_CASE("a halt from another thread ends a movement over the line", "[bench][serial]") {
    WallClock clock(1);
    World world{.clock = clock};
    SimulatedRail simulated(world, {.travel = 40, .step = 0.001, .speed = 2});
    MotionController controller(simulated);
    SerialRail rail(controller.device(), {.timeout = 5, .travel = 40});
    REQUIRE_FALSE(rail.connect());
    REQUIRE_FALSE(rail.home());
    // 40 mm take twenty seconds of the wall clock; halted when it has gone two.
    std::thread person([&] {
        while (world.carriage < 2) std::this_thread::sleep_for(std::chrono::milliseconds(5));
        rail.halt();
    });
    const auto fault = rail.move_to(40);
    person.join();
    REQUIRE(fault);
    CHECK(fault->text.find("halted") != std::string::npos);
    CHECK(world.carriage >= 2);
    CHECK(world.carriage < 35);
    // It holds until the line is connected again, however often it is told to go on.
    const double stood = world.carriage;
    CHECK(rail.move_to(5)->text.find("halted") != std::string::npos);
    CHECK(rail.home()->text.find("halted") != std::string::npos);
    CHECK(world.carriage == stood);
    REQUIRE_FALSE(rail.connect());
    REQUIRE_FALSE(rail.move_to(5));
    CHECK_THAT(rail.position().value(), WithinAbs(5, 1e-6));
}

TEST_CASE("a halt that comes before the movement keeps the rail where it is", "[bench][serial]") {
    Line line;
    SerialRail rail(line.controller.device(), line.dialect);
    REQUIRE_FALSE(rail.connect());
    REQUIRE_FALSE(rail.home());
    REQUIRE_FALSE(rail.move_to(3));
    rail.halt();
    CHECK(rail.move_to(20)->kind == FaultKind::refused);
    CHECK_THAT(line.world.carriage, WithinAbs(3, 0.06));
    // The simulated rail keeps to the same.
    SimulatedRail direct(line.world, {.travel = 40, .step = 0.001});
    REQUIRE_FALSE(direct.connect());
    REQUIRE_FALSE(direct.home());
    direct.halt();
    CHECK(direct.move_to(20)->kind == FaultKind::refused);
    CHECK(direct.home()->kind == FaultKind::refused);
    CHECK(line.world.carriage == 0);
    REQUIRE_FALSE(direct.connect());
    REQUIRE_FALSE(direct.move_to(2));
}

TEST_CASE("a stop after a lost line writes into no other file", "[bench][serial]") {
    Line line;
    line.dialect.timeout = 0.2;
    SerialRail rail(line.controller.device(), line.dialect);
    REQUIRE_FALSE(rail.connect());
    line.controller.unplug();
    CHECK(rail.position().error().kind == FaultKind::not_connected);
    // Files opened now take the first numbers that are free, the line's among them.
    test::Folder folder;
    std::vector<int> files;
    for (int i = 0; i < 8; ++i)
        files.push_back(
            ::open((folder.path() / ("f" + std::to_string(i))).c_str(), O_WRONLY | O_CREAT | O_CLOEXEC, 0600));
    rail.halt();
    rail.disconnect();
    rail.halt();
    for (const int file : files) ::close(file);
    for (int i = 0; i < 8; ++i) CHECK(std::filesystem::file_size(folder.path() / ("f" + std::to_string(i))) == 0);
}

TEST_CASE("a rail that dropped behind its controller stays away until a session begins anew", "[bench][serial]") {
    Line line;
    SerialRail rail(line.controller.device(), line.dialect);
    REQUIRE_FALSE(rail.connect());
    REQUIRE_FALSE(rail.home());
    {
        const std::lock_guard lock(line.world.mutex);  // the controller looks at them on its own thread
        line.world.mishaps = {{.kind = MishapKind::rail_drops}};
    }
    CHECK(rail.move_to(3));
    CHECK(rail.move_to(4));  // nobody connected it
    CHECK(line.world.carriage == 0);
    REQUIRE_FALSE(rail.connect());
    REQUIRE_FALSE(rail.move_to(4));
    CHECK_THAT(line.world.carriage, WithinAbs(4, 0.06));
}

TEST_CASE("the line is not handed on to other programs", "[bench][serial]") {
    Line line;
    SerialRail rail(line.controller.device(), line.dialect);
    REQUIRE_FALSE(rail.connect());
    int found = 0;
    for (const auto& entry : std::filesystem::directory_iterator("/proc/self/fd")) {
        std::error_code gone;
        if (std::filesystem::read_symlink(entry.path(), gone) != line.controller.device()) continue;
        ++found;
        CHECK((::fcntl(std::stoi(entry.path().filename()), F_GETFD) & FD_CLOEXEC) != 0);
    }
    CHECK(found >= 1);
}

TEST_CASE("a whole run over the serial line", "[bench][serial][run]") {
    test::BenchRun run(test::twelve_frames(), {.picture_width = 48, .serial = true});
    auto journal = Journal::create(run.journal_path(), run.plan).value();
    Runner runner(run.devices->bench(), run.clock, journal, run.fresh(), {.hold_on_fault = false});
    std::vector<double> stood;
    auto before = Phase::starting;
    CHECK(runner.run([&] {
        const auto phase = runner.status().phase;
        if (phase == Phase::exposing && before != phase) stood.push_back(run.devices->world().carriage);
        before = phase;
    }) == Phase::complete);
    REQUIRE(stood.size() == 12);
    for (std::size_t i = 1; i < 12; ++i)
        CHECK_THAT(stood[i] - stood[i - 1], WithinAbs(*run.plan.frames[i].rail - *run.plan.frames[i - 1].rail, 0.011));
}

TEST_CASE("dialects are read with a place for what is wrong", "[bench][serial]") {
    const auto problem = [](const char* json) {
        const auto read = read_dialect(json);
        return !read ? text::message(read.error()) : std::string();
    };
    CHECK(read_dialect("{}").value() == MotionDialect{});
    const MotionDialect other{.setup = {"UNITS MM"},
                              .move = "MOVE {position} AT {feed}",
                              .finish = "",
                              .home = "",
                              .where = "POS?",
                              .position_after = "P=",
                              .ok = "DONE",
                              .baud = 9600,
                              .travel = 33};
    CHECK(read_dialect(write_dialect(other)).value() == other);
    CHECK(filled(other.move, 1.25, 60) == "MOVE 1.2500 AT 60.0000");
    CHECK(problem("{\"move\": \"G1\"}").find("move") == 0);
    CHECK(problem("{\"ok\": \"\"}").find("ok") == 0);
    CHECK(problem("{\"speed_mm_s\": 0}").find("speed_mm_s") == 0);
    CHECK(problem("{\"setup\": [\"G21\", 3]}").find("setup[1]") == 0);
    CHECK(problem("{\"sped\": 3}").find("sped") != std::string::npos);
    CHECK(problem("{\"home\": \"a\\nb\"}").find("one line") != std::string::npos);
    CHECK(problem("{").find("line 1") != std::string::npos);
}
