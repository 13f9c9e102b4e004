#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/shoots.hpp"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <sys/wait.h>
#include <cstdlib>
#include <filesystem>

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
    Outcome outcome{.status = WEXITSTATUS(status),
                    .out = std::get<std::string>(storage::read_file(out)),
                    .err = std::get<std::string>(storage::read_file(err))};
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
    CHECK(report.at("shots").size() == std::get<shoot::Shoot>(storage::load_shoot(demo)).shots.size());
}

TEST_CASE("bad input: status 1, one line on standard error, nothing on standard output", "[cli]") {
    const auto path = fs::temp_directory_path() / ("poquito-bad-" + std::to_string(::getpid()));
    auto shoot = test::plain_shoot();
    shoot.shots[0].exposure.iso = -100;
    REQUIRE_FALSE(storage::save_shoot(shoot, path));
    for (const auto& [file, message] :
         {std::pair<std::string, std::string>{path.string(), "shots[0].exposure.iso: got -100, expected above 0\n"},
          {"/no/such/file", "/no/such/file: cannot read, No such file or directory\n"},
          {"/", "/: cannot read, it is a folder\n"}}) {
        const auto outcome = run("report " + file);
        CHECK(outcome.status == 1);
        CHECK(outcome.out.empty());
        CHECK(outcome.err == message);
    }
    fs::remove(path);
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
    CHECK(std::get<std::string>(storage::read_file(path)).starts_with("<!DOCTYPE html>"));
    fs::remove(path);
    CHECK(run("sheet " + demo + " /no/such/folder/a.html").status == 1);
}
