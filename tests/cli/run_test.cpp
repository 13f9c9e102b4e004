// The bench from the command line: killed at any moment, nothing is lost and nothing is taken twice.
#include "proof/inspection.hpp"
#include "run/journal.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_file.hpp"
#include "storage/frame_reader.hpp"
#include "storage/shoot_file.hpp"
#include "support/benches.hpp"

#include <algorithm>
#include <chrono>
#include <csignal>
#include <cstdlib>
#include <set>
#include <thread>

#include <fcntl.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace poquito;
namespace fs = std::filesystem;

namespace {

/// The program with its output thrown away; the child's id.
pid_t started(std::vector<std::string> arguments) {
    const char* program = std::getenv("POQUITO_CLI");  // set by ctest
    REQUIRE(program);
    arguments.insert(arguments.begin(), program);
    std::vector<char*> pointers;
    for (auto& argument : arguments) pointers.push_back(argument.data());
    pointers.push_back(nullptr);
    const pid_t child = ::fork();
    if (child != 0) return child;
    const int nowhere = ::open("/dev/null", O_WRONLY);
    ::dup2(nowhere, STDOUT_FILENO);
    ::dup2(nowhere, STDERR_FILENO);
    ::execv(pointers[0], pointers.data());
    ::_exit(127);
}

int waited(pid_t child) {
    int status = 0;
    ::waitpid(child, &status, 0);
    return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
}

struct Place {
    test::Folder folder;
    std::string shoot = (folder.path() / "twelve.poquito").string();
    std::string frames = (folder.path() / "frames").string();
    fs::path journal = folder.path() / "frames" / "one-1.journal";

    Place() { REQUIRE(storage::save_shoot(test::twelve_frames(), shoot)); }
    std::vector<std::string> run(std::vector<std::string> more = {}) const {
        std::vector<std::string> arguments = {"run", shoot, "one", frames, "--width", "48", "--speed", "1500"};
        arguments.insert(arguments.end(), more.begin(), more.end());
        return arguments;
    }
    run::RunState state() const {
        auto read = run::read_journal(journal);
        if (!read) FAIL(text::message(read.error()));
        return std::move(read).value();
    }
};

/// What the record says is on the disk, whole, and each frame is there once.
void check_record(const Place& place, const run::RunState& state) {
    std::set<int> seen;
    for (const auto& frame : state.taken) {
        CHECK(seen.insert(frame.index).second);
        const auto bytes = storage::read_file(fs::path(place.frames) / frame.file);
        REQUIRE(bytes);
        CHECK(storage::exif_of(bytes.value()).has_value());
        CHECK(bytes.value().ends_with("\xFF\xD9"));
    }
    CHECK(state.missing().size() + seen.size() == state.frames.size());
}

}  // namespace

TEST_CASE("killed at fifty moments of a run, it goes on at the next frame", "[cli][run][long]") {
    test::Random random(11);
    // How long a run takes here decides when to kill it.
    const auto begin = std::chrono::steady_clock::now();
    {
        const Place undisturbed;
        REQUIRE(waited(started(undisturbed.run())) == 0);
    }
    const auto whole = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin);
    int kills = 0, completed = 0;
    std::size_t kept_by_kills = 0;
    while (kills < 50) {
        const Place place;
        std::size_t before = 0;
        for (int attempt = 0; attempt < 200; ++attempt) {
            const pid_t child = started(place.run());
            // Longer and longer: a machine that has become busier since must come to an end as well.
            std::this_thread::sleep_for(whole * random.between(0.01, 1.1) * (1 + attempt / 40.0));
            const bool alive = ::waitpid(child, nullptr, WNOHANG) == 0;
            if (alive) {
                ::kill(child, SIGKILL);
                waited(child);
                ++kills;
            }
            if (!fs::exists(place.journal)) continue;
            const auto text = storage::read_file(place.journal).value();
            if (text.find('\n') == std::string::npos) {  // killed before its first line stood
                fs::remove(place.journal);
                continue;
            }
            const auto state = place.state();
            check_record(place, state);
            CHECK(state.taken.size() >= before);  // nothing that was kept is lost
            kept_by_kills += state.taken.size() - before;
            before = state.taken.size();
            if (state.end) break;
        }
        INFO(storage::read_file(place.journal).value());
        REQUIRE(place.state().end == shoot::RunEnd::complete);
        CHECK(place.state().taken.size() == 12);
        CHECK_FALSE(fs::exists(fs::path(place.frames) / "one-2.journal"));
        ++completed;
    }
    CHECK(completed >= 1);
    CHECK(kept_by_kills == 12u * static_cast<unsigned>(completed));
}

TEST_CASE("a run killed between its last frame and its end is ended by the same command", "[cli][run]") {
    const Place place;
    REQUIRE(waited(started(place.run())) == 0);
    auto text = storage::read_file(place.journal).value();
    text.erase(text.rfind('\n', text.size() - 2) + 1);
    REQUIRE(storage::replace_file(place.journal, text));
    REQUIRE_FALSE(place.state().end);
    CHECK(waited(started(place.run())) == 0);
    CHECK(place.state().end == shoot::RunEnd::complete);
    CHECK(place.state().taken.size() == 12);
    check_record(place, place.state());
}

TEST_CASE("a run that broke off ends with 3, and is gone on with by the same command", "[cli][run]") {
    const Place place;
    // Six mishaps of connection in a row are more than it mends by itself.
    std::vector<std::string> drops;
    for (int i = 0; i < 4; ++i) drops.insert(drops.end(), {"--trouble", "camera-drops@5"});
    CHECK(waited(started(place.run(drops))) == 3);
    CHECK_FALSE(place.state().end);
    check_record(place, place.state());
    CHECK(waited(started(place.run())) == 0);
    CHECK(place.state().end == shoot::RunEnd::complete);
    check_record(place, place.state());
    // The next one is a run of its own.
    CHECK(waited(started(place.run({"--tests"}))) == 0);
    CHECK(fs::exists(fs::path(place.frames) / "one-2-test.journal"));
}

TEST_CASE("an interrupt stops a run and keeps what was taken", "[cli][run]") {
    const Place place;
    auto slow = test::twelve_frames();
    slow.shots[0].capture.settle = 40;  // a frame takes two seconds of the wall clock
    REQUIRE(storage::save_shoot(slow, place.shoot));
    auto arguments = place.run();
    arguments.back() = "20";
    const pid_t child = started(arguments);
    // It hears of interrupts before it exposes.
    const auto exposed = [&] {
        const auto text = storage::read_file(place.journal);
        return text && text.value().find("\"exposed\"") != std::string::npos;
    };
    while (!exposed() && ::waitpid(child, nullptr, WNOHANG) == 0)
        std::this_thread::sleep_for(std::chrono::milliseconds(5));
    ::kill(child, SIGINT);
    CHECK(waited(child) == 0);
    const auto state = place.state();
    CHECK(state.end == shoot::RunEnd::stopped);
    CHECK(state.taken.size() < 12);
    check_record(place, state);
}

TEST_CASE("what cannot be run is refused", "[cli][run]") {
    const Place place;
    CHECK(waited(started({"run", place.shoot, "two", place.frames})) == 1);
    CHECK(waited(started(place.run({"--trouble", "earthquake@3"}))) == 2);
    CHECK(waited(started(place.run({"--dialect", "/no/such/file"}))) == 1);
    CHECK(waited(started({"log", place.shoot})) == 1);
    CHECK(waited(started({"order", place.shoot})) == 0);
    CHECK(waited(started({"stack", place.shoot, "one"})) == 0);
    CHECK(waited(started({"stack", place.shoot, "none"})) == 1);
}

TEST_CASE("whole stacks of the demo, as the bench takes them, are found whole", "[cli][run][proof][long]") {
    // A picture of the renderer's is another judge than made-up photographs: smooth grounds, no noise to hide behind.
    const auto [shot, width] =
        GENERATE(table<const char*, const char*>({{"ammonite-saddle", "480"}, {"tide-brooch", "480"}}));
    INFO(shot << " " << width);
    const test::Folder folder;
    REQUIRE(waited(started({"run", POQUITO_DATA "/winter-catalogue.poquito", shot, folder.path().string(), "--width",
                            width, "--speed", "100000"})) == 0);
    std::vector<fs::path> files;
    for (const auto& one : fs::directory_iterator(folder.path()))
        if (storage::may_be_frame(one.path())) files.push_back(one.path());
    std::ranges::sort(files);
    REQUIRE(files.size() > 10);
    const auto inspection = *proof::inspect({.files = files});
    CHECK(inspection.stack->gaps.empty());
    CHECK(inspection.stack->moved.empty());
    CHECK(inspection.stack->order.empty());
    CHECK_FALSE(inspection.stack->first_end_open);
    CHECK_FALSE(inspection.stack->last_end_open);
}

TEST_CASE("a rail simulated by one program is driven by another", "[cli][serial]") {
    const Place place;
    const char* program = std::getenv("POQUITO_CLI");
    REQUIRE(program);
    const auto line = place.folder.path() / "line";
    const pid_t server = ::fork();
    if (server == 0) {
        const int out = ::open(line.c_str(), O_WRONLY | O_CREAT, 0644);
        ::dup2(out, STDOUT_FILENO);
        ::execl(program, program, "rail", "--travel", "60", "--speed", "400", nullptr);
        ::_exit(127);
    }
    std::string device;
    for (int i = 0; i < 3000 && device.find('\n') == std::string::npos; ++i) {
        std::this_thread::sleep_for(std::chrono::milliseconds(20));
        if (const auto text = storage::read_file(line); text) device = text.value();
    }
    REQUIRE(device.starts_with("/dev/"));
    device.pop_back();
    CHECK(waited(started(place.run({"--rail", device}))) == 0);
    CHECK(place.state().end == shoot::RunEnd::complete);
    ::kill(server, SIGTERM);
    CHECK(waited(server) == 0);
    // Nobody at the other end any more.
    CHECK(waited(started(place.run({"--rail", device}))) == 3);
}

TEST_CASE("a folder whose name is not UTF-8 takes the frames and the journal", "[cli][run]") {
    Place place;
    place.frames = (place.folder.path() / "r\xe9sultats").string();
    place.journal = fs::path(place.frames) / "one-1.journal";
    CHECK(waited(started(place.run())) == 0);
    const auto state = place.state();
    CHECK(state.plan.folder == fs::path(place.frames));
    check_record(place, state);
    CHECK(state.missing().empty());
}

TEST_CASE("a run that is on in one program is not gone on with in another", "[cli][run]") {
    Place place;
    auto slow = place.run();
    slow[slow.size() - 1] = "0.5";  // times as fast as the wall clock
    const auto first = started(slow);
    while (!fs::exists(place.journal) || fs::file_size(place.journal) < 500)
        std::this_thread::sleep_for(std::chrono::milliseconds(5));
    CHECK(waited(started(place.run())) == 1);
    CHECK_FALSE(fs::exists(fs::path(place.frames) / "one-2.journal"));
    ::kill(first, SIGKILL);
    waited(first);
    // Its lock died with it.
    CHECK(waited(started(place.run())) == 0);
    check_record(place, place.state());
    CHECK(place.state().missing().empty());
}
