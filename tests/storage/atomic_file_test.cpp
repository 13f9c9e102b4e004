#include "storage/atomic_file.hpp"
#include "storage/safe_name.hpp"
#include "storage/shoot_file.hpp"
#include "support/folder.hpp"
#include "support/shoots.hpp"
#include "text/stored_path.hpp"

#include <catch2/catch.hpp>

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>
#include <csignal>
#include <cstdlib>

using namespace poquito;
using test::Folder;
namespace fs = std::filesystem;

namespace {

std::string content(const fs::path& path) { return storage::read_file(path).value(); }

}  // namespace

TEST_CASE("a file is replaced whole, keeps its mode, and nothing is left beside it", "[storage][atomic]") {
    Folder folder;
    const auto path = folder / "a.poquito";
    REQUIRE(storage::replace_file(path, "old"));
    fs::permissions(path, fs::perms::owner_read | fs::perms::owner_write);
    REQUIRE(storage::replace_file(path, "new"));
    CHECK(content(path) == "new");
    CHECK(fs::status(path).permissions() == (fs::perms::owner_read | fs::perms::owner_write));
    CHECK(folder.files() == 1);
}

TEST_CASE("only a file is read: a folder, a device and a pipe that nobody writes to are refused at once",
          "[storage][atomic]") {
    Folder folder;
    REQUIRE(::mkfifo((folder / "pipe").c_str(), 0600) == 0);
    for (const fs::path& path : {folder.path(), folder / "pipe", fs::path("/dev/zero")}) {
        const auto read = storage::read_file(path);
        INFO(path);
        REQUIRE(!read);
        CHECK(read.error().problem.starts_with("cannot read, it is a "));
    }
}

TEST_CASE("what a killed program left half written is swept away, what a living one writes is not",
          "[storage][atomic]") {
    Folder folder;
    const auto path = folder / "a.poquito";
    REQUIRE(storage::replace_file(path, "old"));
    const auto put = [&](const char* name) {
        const int file = ::open((folder / name).c_str(), O_CREAT | O_WRONLY, 0600);
        REQUIRE(file >= 0);
        return file;
    };
    ::close(put(".a.poquito.a1B2c3"));
    ::close(put(".b.poquito.a1B2c3"));    // of another file
    ::close(put(".a.poquito.longer12"));  // of nobody we know
    const int held = put(".a.poquito.Zz9Yy8");
    REQUIRE(::flock(held, LOCK_EX | LOCK_NB) == 0);
    REQUIRE(storage::replace_file(path, "new"));
    CHECK_FALSE(fs::exists(folder / ".a.poquito.a1B2c3"));
    CHECK(fs::exists(folder / ".b.poquito.a1B2c3"));
    CHECK(fs::exists(folder / ".a.poquito.longer12"));
    CHECK(fs::exists(folder / ".a.poquito.Zz9Yy8"));
    ::close(held);
    CHECK(!storage::load_shoot(path));  // opening it is a start too
    CHECK_FALSE(fs::exists(folder / ".a.poquito.Zz9Yy8"));
    CHECK(content(path) == "new");
}

TEST_CASE("a file gets another name, but never that of a file that is there", "[storage][atomic]") {
    Folder folder;
    REQUIRE(storage::replace_file(folder / "one", "1"));
    REQUIRE(storage::replace_file(folder / "two", "2"));
    CHECK(storage::rename_file(folder / "one", folder / "two") == std::errc::file_exists);
    CHECK(content(folder / "one") == "1");
    CHECK(content(folder / "two") == "2");
    CHECK_FALSE(storage::rename_file(folder / "one", folder / "three"));
    CHECK(content(folder / "three") == "1");
    CHECK(storage::rename_file(folder / "one", folder / "four") == std::errc::no_such_file_or_directory);
}

TEST_CASE("whoever puts another file in its place leaves another mark", "[storage][atomic]") {
    Folder folder;
    const auto path = folder / "a";
    CHECK_FALSE(storage::mark_of(path));
    REQUIRE(storage::replace_file(path, "same"));
    const auto mark = storage::mark_of(path);
    REQUIRE(mark);
    CHECK(content(path) == "same");
    CHECK(storage::mark_of(path) == mark);
    REQUIRE(storage::replace_file(path, "same"));
    CHECK(storage::mark_of(path) != mark);
}

TEST_CASE("names of files say what they can of any text, and stay where they are put", "[storage][names]") {
    CHECK(storage::safe_name("tide-brooch_2") == "tide-brooch_2");
    CHECK(storage::safe_name("../victim") == "x--victim");
    CHECK(storage::safe_name("/etc/passwd") == "xetc-passwd");
    CHECK(storage::safe_name("..") == "x-");
    CHECK(storage::safe_name("").size() == 1);
    CHECK(storage::safe_name("-rf") == "xrf");
    CHECK(storage::safe_name(".hidden") == "xhidden");
    const auto one = storage::safe_name(std::string(300, 'a')), other = storage::safe_name(std::string(301, 'a'));
    CHECK(one.size() <= 80);
    CHECK(one != other);
    CHECK(shoot::file_of({.folder = text::StoredPath("r\xe9sultats")}, {.file = "one-1.jpg"}) ==
          fs::path("r\xe9sultats/one-1.jpg"));
}

TEST_CASE("a link is followed", "[storage][atomic]") {
    Folder folder;
    REQUIRE(storage::replace_file(folder / "real", "old"));
    fs::create_symlink(folder / "real", folder / "link");
    REQUIRE(storage::replace_file(folder / "link", "new"));
    CHECK(fs::is_symlink(folder / "link"));
    CHECK(content(folder / "real") == "new");
}

TEST_CASE("what cannot be written or read says so and leaves all as it was", "[storage][atomic]") {
    Folder folder;
    const auto written = storage::replace_file(folder / "no" / "such" / "folder", "x");
    REQUIRE(!written);
    CHECK(written.error().problem.find("No such file") != std::string::npos);
    const auto missing = storage::read_file(folder / "missing");
    REQUIRE(!missing);
    CHECK(missing.error().place.ends_with("missing"));
    CHECK(!storage::read_file(folder / "."));
    fs::create_directory(folder / "is-folder");
    CHECK(!storage::replace_file(folder / "is-folder", "x"));
    CHECK(folder.files() == 1);
}

TEST_CASE("a kill at any moment of saving leaves the old or the new file whole", "[storage][atomic]") {
    Folder folder;
    const auto path = folder / "shoot.poquito";
    auto shoot = test::plain_shoot();
    for (int i = 0; i < 60; ++i) shoot.shots.push_back(shoot.shots.front()), shoot.shots.back().id += std::to_string(i);
    REQUIRE(storage::save_shoot(shoot, path));
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
    REQUIRE(storage::replace_file(folder / "new", "x"));
    struct stat made {};
    REQUIRE(::stat((folder / "new").c_str(), &made) == 0);
    CHECK((made.st_mode & 0777) == (0666 & ~begun));
    CHECK(::umask(begun) == 0);  // still what it was set to
}
