#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/folder.hpp"
#include "support/shoots.hpp"

#include <catch2/catch.hpp>

#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>
#include <csignal>
#include <cstdlib>

using namespace poquito;
using test::Folder;
namespace fs = std::filesystem;

namespace {

std::string content(const fs::path& path) { return std::get<std::string>(storage::read_file(path)); }

}  // namespace

TEST_CASE("a file is replaced whole, keeps its mode, and nothing is left beside it", "[storage][atomic]") {
    Folder folder;
    const auto path = folder / "a.poquito";
    REQUIRE_FALSE(storage::replace_file(path, "old"));
    fs::permissions(path, fs::perms::owner_read | fs::perms::owner_write);
    REQUIRE_FALSE(storage::replace_file(path, "new"));
    CHECK(content(path) == "new");
    CHECK(fs::status(path).permissions() == (fs::perms::owner_read | fs::perms::owner_write));
    CHECK(folder.files() == 1);
}

TEST_CASE("a link is followed", "[storage][atomic]") {
    Folder folder;
    REQUIRE_FALSE(storage::replace_file(folder / "real", "old"));
    fs::create_symlink(folder / "real", folder / "link");
    REQUIRE_FALSE(storage::replace_file(folder / "link", "new"));
    CHECK(fs::is_symlink(folder / "link"));
    CHECK(content(folder / "real") == "new");
}

TEST_CASE("what cannot be written or read says so and leaves all as it was", "[storage][atomic]") {
    Folder folder;
    const auto error = storage::replace_file(folder / "no" / "such" / "folder", "x");
    REQUIRE(error);
    CHECK(error->problem.find("No such file") != std::string::npos);
    const auto missing = storage::read_file(folder / "missing");
    REQUIRE(std::holds_alternative<storage::ReadError>(missing));
    CHECK(std::get<storage::ReadError>(missing).place.ends_with("missing"));
    CHECK(std::holds_alternative<storage::ReadError>(storage::read_file(folder / ".")));
    fs::create_directory(folder / "is-folder");
    CHECK(storage::replace_file(folder / "is-folder", "x"));
    CHECK(folder.files() == 1);
}

TEST_CASE("a kill at any moment of saving leaves the old or the new file whole", "[storage][atomic]") {
    Folder folder;
    const auto path = folder / "shoot.poquito";
    auto shoot = test::plain_shoot();
    for (int i = 0; i < 60; ++i) shoot.shots.push_back(shoot.shots.front()), shoot.shots.back().id += std::to_string(i);
    REQUIRE_FALSE(storage::save_shoot(shoot, path));
    const std::string old_text = content(path);
    auto changed = shoot;
    changed.title = "Changed";
    const std::string new_text = storage::write_shoot(changed);
    for (int round = 0; round < 60; ++round) {
        const pid_t child = ::fork();
        REQUIRE(child >= 0);
        if (child == 0) {
            for (int i = 0;; ++i) (void)storage::replace_file(path, i % 2 == 0 ? new_text : old_text);
        }
        ::usleep(static_cast<useconds_t>(300 + round * 137));
        ::kill(child, SIGKILL);
        ::waitpid(child, nullptr, 0);
        const auto found = content(path);
        REQUIRE((found == old_text || found == new_text));
    }
}

TEST_CASE("a new file has the mode that the user wanted when the program began, and saving touches no mask",
          "[storage][atomic]") {
    const mode_t begun = ::umask(0);  // as another thread might, in the middle of it
    Folder folder;
    REQUIRE_FALSE(storage::replace_file(folder / "new", "x"));
    struct stat made {};
    REQUIRE(::stat((folder / "new").c_str(), &made) == 0);
    CHECK((made.st_mode & 0777) == (0666 & ~begun));
    CHECK(::umask(begun) == 0);  // still what it was set to
}
