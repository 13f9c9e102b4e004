#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/shoots.hpp"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <sys/wait.h>
#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <sstream>
#include <string>
#include <vector>

using namespace poquito;
namespace fs = std::filesystem;

namespace {

struct Outcome {
    int status = -1;
    std::string out;
    std::string err;
};

/// A shell line, so that redirections count too.
Outcome run(const std::string& arguments) {
    const fs::path folder = fs::temp_directory_path() / ("poquito-cli-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    const auto out = folder / "out", err = folder / "err";
    const char* program = std::getenv("POQUITO_CLI");  // set by ctest
    REQUIRE(program);
    const int status =
        std::system((std::string(program) + " " + arguments + " >" + out.string() + " 2>" + err.string()).c_str());
    Outcome outcome{
        .status = WEXITSTATUS(status), .out = storage::read_file(out).value(), .err = storage::read_file(err).value()};
    fs::remove_all(folder);
    return outcome;
}

const std::string demo = POQUITO_DATA "/winter-catalogue.poquito";

}  // namespace

TEST_CASE("report prints one JSON object with every shot", "[cli]") {
    const auto outcome = run("report " + demo);
    CHECK(outcome.status == 0);
    CHECK(outcome.err.empty());
    const auto report = nlohmann::json::parse(outcome.out);
    CHECK(report.at("shots").size() == storage::load_shoot(demo).value().shots.size());
}

TEST_CASE("bad input: status 1, one line on standard error, nothing on standard output", "[cli]") {
    const auto path = fs::temp_directory_path() / ("poquito-bad-" + std::to_string(::getpid()));
    auto shoot = test::plain_shoot();
    shoot.shots[0].exposure.iso = -100;
    REQUIRE(storage::save_shoot(shoot, path));
    for (const auto& [file, message] : {std::pair<std::string, std::string>{
                                            path.string(), "shots[0].exposure.iso: got -100, expected 1 to 10000000\n"},
                                        {"/no/such/file", "/no/such/file: cannot read, No such file or directory\n"},
                                        {"/", "/: cannot read, it is a folder\n"}}) {
        const auto outcome = run("report " + file);
        CHECK(outcome.status == 1);
        CHECK(outcome.out.empty());
        CHECK(outcome.err == message);
    }
    fs::remove(path);
}

TEST_CASE("the sun is printed for any place and day, what it does not do as null", "[cli][sun]") {
    // The published example of tests/sun, at the pressure of the contract.
    const auto outcome =
        run("sun --latitude 39.742476 --longitude=-105.1786 --date 2003-10-17 --time 12:30:30 --utc-offset=-7");
    REQUIRE(outcome.status == 0);
    const auto sun = nlohmann::json::parse(outcome.out);
    CHECK(std::abs(sun.at("azimuth_deg").get<double>() - 194.340) < 0.002);
    CHECK(std::abs(sun.at("elevation_deg").get<double>() - 39.892) < 0.002);
    CHECK(sun.at("rise").get<std::string>().starts_with("06:12:4"));
    CHECK(sun.at("noon") == "11:46:05");
    REQUIRE(sun.at("golden").size() == 2);
    CHECK(sun.at("golden")[0][0] < sun.at("golden")[0][1]);
    // Polar night and day; without a time there is no place in the sky.
    const auto night = nlohmann::json::parse(run("sun --latitude 78 --longitude 16 --date 2026-12-21").out);
    CHECK(night.at("elevation_deg").is_null());
    CHECK(night.at("rise").is_null());
    CHECK(night.at("golden").empty());
    const auto light = nlohmann::json::parse(run("sun --latitude 78 --longitude 16 --date 2026-06-21").out);
    CHECK(light.at("set").is_null());
    CHECK_FALSE(light.at("noon").is_null());
    // What goes on over midnight is cut there.
    const auto late =
        nlohmann::json::parse(run("sun --latitude 65 --longitude 25 --date 2026-06-21 --utc-offset 3").out);
    CHECK(late.at("golden").back()[1] == "23:59:59");
    CHECK(late.at("golden").front()[0] == "00:00:00");
    CHECK(run("sun --latitude 91 --longitude 0 --date 2026-06-21").status == 2);
    CHECK(run("sun --latitude 9 --longitude 0 --date 2026-02-30").err ==
          "--date: got \"2026-02-30\", expected a day as 2026-11-28\n");
    CHECK(run("sun --latitude 9 --longitude 0 --date 2026-02-03 --time 25:00").status == 1);
}

TEST_CASE("what the command line runs is entered in the user's logbook, unless it is told not to", "[cli][log]") {
    const fs::path folder = fs::temp_directory_path() / ("poquito-log-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    const auto file = folder / "one.poquito", book = folder / "log.json";
    auto shoot = test::plain_shoot();
    shoot.shots[0].ambient = shoot::Ambient{.ev100 = 8};
    REQUIRE(storage::save_shoot(shoot, file));
    const auto data = "XDG_DATA_HOME=" + (folder / "data").string();
    const auto with_data = [&](const std::string& arguments) {
        const char* program = std::getenv("POQUITO_CLI");
        return std::system((data + " " + program + " " + arguments + " >/dev/null 2>&1").c_str());
    };
    const auto frames = (folder / "frames").string();
    CHECK(with_data("run " + file.string() + " one " + frames + " --width 48 --speed 1000 --no-book") == 0);
    CHECK_FALSE(fs::exists(folder / "data"));
    CHECK(with_data("run " + file.string() + " one " + frames + " --width 48 --speed 1000") == 0);
    CHECK(with_data("inspect --shoot " + file.string() + " --shot one " + frames + "/one-1-0001.jpg") == 0);
    CHECK(with_data("book --export " + book.string()) == 0);
    const auto log = nlohmann::json::parse(storage::read_file(book).value());
    REQUIRE(log.at("entries").size() == 2);
    std::vector<std::string> kinds;
    for (const auto& entry : log.at("entries")) kinds.push_back(entry.at("kind"));
    std::ranges::sort(kinds);
    CHECK(kinds == std::vector<std::string>{"inspection", "run"});
    for (const auto& entry : log.at("entries"))
        if (entry.at("kind") == "run") CHECK_FALSE(entry.at("exposed")[0].at("picture").get<std::string>().empty());
    fs::remove_all(folder);
}

TEST_CASE("usage errors: status 2", "[cli]") {
    for (const char* arguments : {"", "dance", "report", "report a b c", "--nonsense",
                                  "sheet " POQUITO_DATA "/winter-catalogue.poquito out.txt"}) {
        INFO(arguments);
        const auto outcome = run(arguments);
        CHECK(outcome.status == 2);
        CHECK(outcome.out.empty());
        CHECK_FALSE(outcome.err.empty());
    }
}

TEST_CASE("help and version", "[cli]") {
    CHECK(run("--help").status == 0);
    CHECK(run("--help").out.find("report") != std::string::npos);
    CHECK(run("report --help").status == 0);
    CHECK(run("--version").status == 0);
    CHECK(run("--version").out.starts_with("poquito-cli "));
}

TEST_CASE("sheet writes the run sheet as HTML", "[cli]") {
    const auto path = fs::temp_directory_path() / ("poquito-sheet-" + std::to_string(::getpid()) + ".html");
    CHECK(run("sheet " + demo + " " + path.string()).status == 0);
    CHECK(storage::read_file(path).value().starts_with("<!DOCTYPE html>"));
    fs::remove(path);
    CHECK(run("sheet " + demo + " /no/such/folder/a.html").status == 1);
}

TEST_CASE("the order of many shots ends when its time is over, with the best so far and word of it", "[cli]") {
    const auto path = fs::temp_directory_path() / ("poquito-many-" + std::to_string(::getpid()));
    auto shoot = test::plain_shoot();
    const auto one = shoot.shots[0];
    for (int i = 0; i < 150; ++i) {
        shoot.shots.push_back(one);
        shoot.shots.back().id = "s" + std::to_string(i);
        if (i % 3 == 0) shoot.shots.back().rig.tubes = {"t20"};
        if (i % 5 == 0) shoot.shots.back().background = shoot::Background{.reflectance = 0.1 + 0.01 * (i % 7)};
    }
    REQUIRE(storage::save_shoot(shoot, path));
    const auto outcome = run("order " + path.string() + " --seconds 0.2");
    CHECK(outcome.status == 0);
    CHECK(outcome.err.find("the best order found so far") != std::string::npos);
    CHECK(std::ranges::count(outcome.out, '\n') == 152);
    CHECK(run("order " + path.string() + " --seconds -1").status == 2);
    fs::remove(path);
}

TEST_CASE("the version is that of the build", "[cli]") {
    CHECK(run("--version").out == "poquito-cli " POQUITO_VERSION "\n");
}

TEST_CASE("plan prints whole plans best first, and takes one into another file", "[cli][plans]") {
    const fs::path folder = fs::temp_directory_path() / ("poquito-plan-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    const auto printed = run("plan " + demo + " toffee-tin");
    REQUIRE(printed.status == 0);
    const auto document = nlohmann::json::parse(printed.out);
    CHECK(document.at("format") == "poquito-plans");
    const auto& plans = document.at("plans");
    REQUIRE(plans.size() >= 3);
    bool good = true;
    for (const auto& plan : plans) {
        for (const char* key : {"school", "f_number", "shutter_s", "iso", "frames", "power", "front_total_stops",
                                "gives_up", "keeps_limits"})
            CHECK(plan.contains(key));
        const bool fits = plan.at("keeps_limits").get<bool>() && !plan.at("stopped").get<bool>();
        CHECK((good || !fits));
        good = good && fits;
    }
    const auto before = storage::read_file(demo).value();
    const auto out = (folder / "taken.poquito").string();
    REQUIRE(run("plan " + demo + " toffee-tin --take 2 --out " + out).status == 0);
    CHECK(storage::read_file(demo).value() == before);
    const auto taken = storage::load_shoot(out).value();
    const auto shot = std::ranges::find(taken.shots, "toffee-tin", &shoot::Shot::id);
    REQUIRE(shot != taken.shots.end());
    CHECK(shot->exposure.f_number == plans[1].at("f_number").get<double>());
    CHECK(shot->exposure.shutter == plans[1].at("shutter_s").get<double>());
    // Everything else is as it was.
    auto restored = taken;
    const auto original = storage::load_shoot(demo).value();
    for (std::size_t i = 0; i < original.shots.size(); ++i)
        if (std::as_const(original.shots)[i].id == "toffee-tin") restored.shots[i] = std::as_const(original.shots)[i];
    CHECK(restored == original);

    CHECK(run("plan " + demo + " nobody").status == 1);
    CHECK(run("plan " + demo + " toffee-tin --take 99 --out " + out).status == 1);
    CHECK(run("plan " + demo + " toffee-tin --take 1").status == 2);
    CHECK(run("plan " + out + " toffee-tin --take 1 --out " + out).status == 1);
    CHECK(run("plan").status == 2);
    fs::remove_all(folder);
}

TEST_CASE("frames are inspected, and what cannot be is said", "[cli]") {
    CHECK(run("inspect").status == 2);
    CHECK(run("inspect --shoot " + demo + " a.jpg").status == 2);  // of which shot?
    const auto none = run("inspect /nowhere/a.jpg /nowhere/b.jpg");
    CHECK(none.status == 1);
    CHECK(none.out.empty());
    CHECK(none.err.find("no such file") != std::string::npos);
    const fs::path folder = fs::temp_directory_path() / ("poquito-frames-" + std::to_string(::getpid()));
    CHECK(run("run " + demo + " salt-crystal " + folder.string() + " --width 240 --speed 100000").status == 0);
    std::string frames;
    for (const auto& entry : fs::directory_iterator(folder))
        if (entry.path().extension() == ".jpg") frames += " " + entry.path().string();
    REQUIRE_FALSE(frames.empty());
    const auto seen = run("inspect --singles --shoot " + demo + " --shot salt-crystal" + frames + " /nowhere/a.jpg");
    CHECK(seen.status == 0);
    const auto json = nlohmann::json::parse(seen.out);
    CHECK(json["format"] == "poquito-inspection");
    CHECK(json["stack"].is_null());
    CHECK(json["frames"].back()["findings"][0]["code"] == "unreadable");
    for (const auto& frame : json["frames"])  // as planned, whatever else
        for (const auto& finding : frame["findings"]) CHECK(finding["code"] != "settings");
    CHECK(seen.err.find("frames") != std::string::npos);
    // Watched: those that are there, and the stack they would make.
    CHECK(run("inspect --watch --until-quiet 3" + frames + " x.jpg").status == 1);  // no folder
    CHECK(run("inspect --until-quiet 3 " + folder.string()).status == 2);
    fs::copy_file(frames.substr(1), folder / "second.jpg");
    const auto watched = run("inspect --watch --until-quiet 2.5 " + folder.string());
    CHECK(watched.status == 0);
    std::istringstream lines(watched.out);
    std::vector<nlohmann::json> told;
    for (std::string line; std::getline(lines, line);) told.push_back(nlohmann::json::parse(line));
    REQUIRE(told.size() == 3);
    CHECK(told[0].contains("sharpness"));
    CHECK(told[1]["file"].get<std::string>().ends_with("second.jpg"));
    CHECK(told[2].contains("stack"));
    fs::remove_all(folder);
}

TEST_CASE("what does not arrive on a full device is an error of every command", "[cli]") {
    const char* program = std::getenv("POQUITO_CLI");
    REQUIRE(program);
    const fs::path folder = fs::temp_directory_path() / ("poquito-full-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    const auto book = " --book " + (folder / "book.db").string();
    REQUIRE(
        run("run " + demo + " flint-lichen " + folder.string() + " --width 24 --speed 1000000 --tests" + book).status ==
        0);
    for (const std::string& command :
         {"report " + demo, "stack " + demo + " tide-brooch", "plan " + demo + " tide-brooch",
          "book --words lichen" + book, "order " + demo + " --seconds 0.2",
          "inspect --singles " + (folder / "*.jpg").string(),
          std::string("sun --latitude 50 --longitude 0 --date 2026-06-21")}) {
        INFO(command);
        const auto error = folder / "err";
        const int status =
            std::system((std::string(program) + " " + command + " >/dev/full 2>" + error.string()).c_str());
        CHECK(WEXITSTATUS(status) == 1);
        const auto said = storage::read_file(error).value();
        CHECK((said.find("cannot be written") != std::string::npos || said.find("poquito-cli: ") != std::string::npos));
    }
    fs::remove_all(folder);
}

TEST_CASE("a path that was named as the logbook and is none is refused, and nothing is done", "[cli][log]") {
    const fs::path folder = fs::temp_directory_path() / ("poquito-named-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    const auto mine = folder / "mine.poquito";
    fs::copy_file(demo, mine);
    const auto before = storage::read_file(mine).value();
    for (const std::string& command :
         {std::string("book --book "),
          "run " + demo + " flint-lichen " + (folder / "frames").string() + " --speed 1000000 --book ",
          "inspect --shoot " + demo + " --shot tide-brooch " + demo + " --book "}) {
        INFO(command);
        const auto outcome = run(command + mine.string());
        CHECK(outcome.status == 1);
        CHECK(outcome.err.find("expected a logbook: it is left alone") != std::string::npos);
        CHECK(storage::read_file(mine).value() == before);
    }
    CHECK_FALSE(fs::exists(folder / "frames"));
    CHECK(std::distance(fs::directory_iterator(folder), fs::directory_iterator()) == 1);
    fs::remove_all(folder);
}

TEST_CASE("ids from elsewhere name files of their folder, and a picture that is there stays", "[cli][outlets]") {
    const fs::path around = fs::temp_directory_path() / ("poquito-deliver-" + std::to_string(::getpid()));
    const auto folder = around / "out";
    fs::create_directories(folder / "finished");
    auto shoot = storage::load_shoot(demo).value();
    REQUIRE_FALSE(shoot.outlets.empty());
    const auto hostile = [&](const std::string& outlet, const std::string& name) {
        auto made = shoot;
        const auto was = made.outlets.front().id;
        made.outlets.resize(1);
        made.outlets.front().id = outlet;
        made.outlets.front().least_short_px.reset();
        made.shots.erase(1, made.shots.size());
        auto& shot = made.shots[0];
        shot.id = name;
        shot.capture = {};
        shot.view = shoot::View{.thing = "Thing", .name = name};
        shot.plate.reset(), shot.follows.reset();
        shot.timing.after.clear();
        shot.deliveries = {{.outlet = outlet, .beside = {}, .unknown = {}}};
        made.runs.clear();
        const auto file = around / "hostile.poquito";
        REQUIRE(storage::save_shoot(made, file));
        return run("deliver " + file.string() + " " + folder.string());
    };
    const auto count = [&](const fs::path& where) {
        return std::ranges::count_if(fs::recursive_directory_iterator(where),
                                     [](const auto& entry) { return entry.is_regular_file(); });
    };
    const fs::path picture = fs::path(POQUITO_DATA).parent_path() / "docs" / "screenshots" / "3-depth.png";
    fs::copy_file(picture, folder / "finished" / "hero.png");
    CHECK(hostile("../victim", "hero").status == 0);
    CHECK(count(around) == 3);  // shoot, finished picture, cut
    CHECK(count(folder) == 2);
    CHECK_FALSE(fs::exists(around / "victim"));
    // A second time it is there already, and stays until one says otherwise.
    const auto again = hostile("../victim", "hero");
    CHECK(again.status == 1);
    CHECK(again.err.find("is there already") != std::string::npos);
    CHECK(run("deliver --overwrite " + (around / "hostile.poquito").string() + " " + folder.string()).status == 0);
    CHECK(hostile((around / "absolute").string(), "hero").status == 0);
    CHECK_FALSE(fs::exists(around / "absolute"));
    CHECK(count(folder) == 3);
    fs::remove_all(around);
}

TEST_CASE("a shot with an id of 300 letters is run like any other", "[cli][run]") {
    const fs::path folder = fs::temp_directory_path() / ("poquito-long-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    auto shoot = test::plain_shoot();
    shoot.shots[0].id = std::string(300, 'a');
    const auto file = folder / "long.poquito";
    REQUIRE(storage::save_shoot(shoot, file));
    const auto outcome = run("run " + file.string() + " " + shoot.shots[0].id + " " + (folder / "frames").string() +
                             " --no-book --width 24 --speed 1000000");
    INFO(outcome.err);
    CHECK(outcome.status == 0);
    fs::remove_all(folder);
}
