// Pictures from anywhere: what is damaged, endless, hostile or elsewhere is refused within bounds of memory and time,
// and no file takes the program down.
#include "proof/incoming.hpp"
#include "proof/inspection.hpp"
#include "proof/taken.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_file.hpp"
#include "storage/frame_reader.hpp"
#include "storage/picture_plan.hpp"
#include "support/folder.hpp"
#include "support/matchers.hpp"
#include "support/photographs.hpp"
#include "support/stacks.hpp"
#include "text/stored_path.hpp"

#include <arpa/inet.h>
#include <fcntl.h>
#include <poll.h>
#include <sys/resource.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <unistd.h>

#include <fmt/format.h>
#include <tiffio.h>

#include <fstream>
#include <thread>

using namespace poquito;
using test::Folder;
namespace fs = std::filesystem;

namespace {

/// Rows, and what was wrong.
struct Seen {
    int width = 0, height = 0, rows = 0;
    std::string problem;
};
Seen seen(const fs::path& path) {
    Seen seen;
    const auto read = storage::read_rows(path, {.begin =
                                                    [&](int width, int height) {
                                                        seen.width = width, seen.height = height;
                                                        return true;
                                                    },
                                                .row =
                                                    [&](const std::uint8_t*) {
                                                        ++seen.rows;
                                                        return true;
                                                    }});
    if (!read) seen.problem = text::message(read.error());
    return seen;
}

/// Black, packed to next to nothing, so many rows to a strip.
void write_tiff(const fs::path& path, std::uint32_t width, std::uint32_t height, std::uint32_t rows_a_strip) {
    TIFF* tiff = TIFFOpen(path.c_str(), "w");
    REQUIRE(tiff);
    TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, width);
    TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, height);
    TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, 8);
    TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, 1);
    TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_MINISBLACK);
    TIFFSetField(tiff, TIFFTAG_COMPRESSION, COMPRESSION_ADOBE_DEFLATE);
    TIFFSetField(tiff, TIFFTAG_ROWSPERSTRIP, rows_a_strip);
    const std::vector<std::uint8_t> line(width);
    for (std::uint32_t y = 0; y < height; ++y)
        REQUIRE(TIFFWriteScanline(tiff, const_cast<std::uint8_t*>(line.data()), y) == 1);
    TIFFClose(tiff);
}

/// MB that the largest process which has ended took.
double most_memory_of_children() {
    rusage usage{};
    getrusage(RUSAGE_CHILDREN, &usage);
    return static_cast<double>(usage.ru_maxrss) / 1024;
}

void write_text(const fs::path& path, const std::string& text) { REQUIRE(storage::replace_file(path, text)); }

std::string jpeg() {
    return storage::frame_file(test::scene().picture({.focus = 5}), {.camera = "Body", .time = {}}).value();
}

}  // namespace

TEST_CASE("a TIFF of 400 megapixels in half a megabyte is read a strip at a time", "[proof][door]") {
    const Folder folder;
    write_tiff(folder / "bomb.tif", 20'000, 20'000, 16);
    CHECK(fs::file_size(folder / "bomb.tif") < 2'000'000);
    const auto whole = seen(folder / "bomb.tif");
    CHECK(whole.problem.empty());
    CHECK(whole.rows == 20'000);
    CHECK(most_memory_of_children() < 400);
}

TEST_CASE("a TIFF of one strip that is larger than the memory it may take is refused", "[proof][door]") {
    const Folder folder;
    write_tiff(folder / "bomb.tif", 20'000, 20'000, 20'000);
    CHECK(seen(folder / "bomb.tif").problem == "bomb.tif: damaged: reading it takes more memory than it may");
    write_tiff(folder / "wider.tif", 30'000, 30'000, 16);
    CHECK(seen(folder / "wider.tif").problem.find("expected up to 400 million") != std::string::npos);
}

TEST_CASE("no bytes of a picture take the program down, whatever it calls itself", "[proof][door]") {
    const Folder folder;
    const auto good = jpeg();
    const auto at = [&](std::size_t i, const char* end) { return folder.path() / fmt::format("f{}{}", i, end); };
    std::size_t i = 0;
    for (const char* end : {".raf", ".cr3", ".dng", ".tif", ".nef", ".jpg"})
        for (const std::string& head : {std::string("II*\0\x08\0\0\0", 8), std::string("MM\0*\0\0\0\x08", 8),
                                        std::string("\0\0\0\x18"
                                                    "ftyp",
                                                    8),
                                        std::string("\xff\xd8\xff\xe1", 4)}) {
            auto bytes = head + good.substr(0, 4000);
            for (std::size_t k = head.size(); k < bytes.size(); k += 97)
                bytes[k] = static_cast<char>(0xFF - (k & 0xFF));
            const auto path = at(i++, end);
            write_text(path, bytes);
            INFO(path);
            const auto facts = proof::look_at(path);
            CHECK(test::codes(facts.findings) == std::vector{proof::Code::unreadable});
            (void)storage::exif_of_file(path);
            CHECK(storage::embedded_preview(path).size() < 4000);
            CHECK(!storage::plan_in_picture(bytes));
        }
    for (const char* name : {"empty.jpg", "empty.tif", "empty.dng"}) {
        write_text(folder / name, "");
        CHECK_FALSE(seen(folder / name).problem.empty());
    }
    // Many scans over a large picture take for ever: of a JPEG that says it has more than 200 no more are read.
    write_text(folder / "good.jpg", good);
    CHECK(seen(folder / "good.jpg").problem.empty());
}

TEST_CASE("only a regular file of this machine is a picture, and nobody else is asked for one", "[proof][door]") {
    const Folder folder;
    const int server = ::socket(AF_INET, SOCK_STREAM | SOCK_CLOEXEC, 0);
    REQUIRE(server >= 0);
    sockaddr_in address{};
    address.sin_family = AF_INET;
    address.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
    socklen_t length = sizeof address;
    REQUIRE(::bind(server, reinterpret_cast<sockaddr*>(&address), length) == 0);
    REQUIRE(::listen(server, 5) == 0);
    REQUIRE(::getsockname(server, reinterpret_cast<sockaddr*>(&address), &length) == 0);
    const auto host = fmt::format("http://127.0.0.1:{}", ntohs(address.sin_port));
    REQUIRE(::mkfifo((folder / "pipe.jpg").c_str(), 0600) == 0);
    for (const fs::path& path : {fs::path(host + "/one.jpg"), text::StoredPath::of_text(host + "/one.raf").path(),
                                 text::StoredPath::of_text("ftp://127.0.0.1/one.jpg").path(), folder / "pipe.jpg",
                                 folder.path(), fs::path("/dev/zero")}) {
        INFO(path);
        CHECK(seen(path).problem.find("no such file") != std::string::npos);
        CHECK_FALSE(storage::exif_of_file(path).known);
        CHECK(storage::embedded_preview(path).empty());
    }
    pollfd asked{.fd = server, .events = POLLIN, .revents = 0};
    CHECK(::poll(&asked, 1, 0) == 0);
    ::close(server);
}

TEST_CASE("frames of a run whose folder's name is not UTF-8 are found where they are", "[proof][door]") {
    const Folder folder;
    const auto place = folder.path() / "r\xe9sultats";
    fs::create_directory(place);
    write_text(place / "one-1-0001.jpg", jpeg());
    const shoot::RunRecord run{.id = "one-1",
                               .folder = text::StoredPath(place),
                               .planned = 1,
                               .frames = {{.index = 0, .file = "one-1-0001.jpg", .time = {}, .remark = {}}}};
    const auto taken = proof::taken_frames({shoot::CopyOnWrite<shoot::RunRecord>(run)});
    REQUIRE(taken.files == std::vector{place / "one-1-0001.jpg"});
    CHECK(proof::look_at(taken.files[0]).findings.empty());
}

TEST_CASE("what a JPEG says beside its picture is found wherever its segments stand", "[proof][door]") {
    const Folder folder;
    const auto good = jpeg();
    // A comment and filling bytes before it, as some programs leave them.
    const auto moved = good.substr(0, 2) +
                       std::string(
                           "\xff\xfe\x00\x05"
                           "abc\xff\xff\xff",
                           10) +
                       good.substr(3);
    for (const auto& bytes : {good, moved}) {
        write_text(folder / "one.jpg", bytes);
        CHECK(storage::exif_of_file(folder / "one.jpg").camera == "Body");
        CHECK(storage::exif_of(bytes).value().camera == "Body");
    }
    // Cut anywhere before the end of that segment, whose length stands before its name.
    const auto name = good.find("Exif");
    REQUIRE(name != std::string::npos);
    const auto length = static_cast<unsigned char>(good[name - 2]) * 256U + static_cast<unsigned char>(good[name - 1]);
    for (std::size_t cut = 0; cut < name - 2 + length; ++cut) {
        write_text(folder / "cut.jpg", good.substr(0, cut));
        CHECK_FALSE(storage::exif_of_file(folder / "cut.jpg").known);
    }
}

TEST_CASE("frames are told of one after the other by the thread that asked, however many look", "[proof][door]") {
    const Folder folder;
    std::vector<fs::path> files;
    for (int i = 0; i < 40; ++i) {
        files.push_back(folder.path() / fmt::format("{}.jpg", i));
        write_text(files.back(), "no picture");
    }
    std::size_t before = 0;
    const auto here = std::this_thread::get_id();
    const auto inspection = proof::inspect({.files = files}, [&](std::size_t done, std::size_t all) {
        CHECK(std::this_thread::get_id() == here);
        CHECK(all == files.size());
        CHECK((done == before + 1 || (done == all && before == all)));
        before = done;
        return true;
    });
    REQUIRE(inspection);
    CHECK(before == files.size());
    for (std::size_t i = 0; i < files.size(); ++i) CHECK(inspection->frames[i].file == files[i]);
    std::size_t told = 0;
    proof::look_at_all(files, [&](std::size_t, proof::FrameFacts) { return ++told < 5; });
    CHECK(told == 5);
}

TEST_CASE("a frame whose copy stalls is given again when it is whole, and what never comes holds nobody up",
          "[proof][watch]") {
    const Folder folder;
    proof::Incoming incoming(folder.path(), true);
    const auto grow = [&](const char* name, const std::string& text) {
        std::ofstream(folder / name, std::ios::app) << text;
    };
    grow("one.jpg", "half");
    grow("none.jpg", "");
    CHECK(incoming.whole().empty());
    CHECK(incoming.any_growing());
    CHECK(incoming.whole().empty());
    CHECK(incoming.whole() == std::vector{folder / "one.jpg"});
    // A file of no bytes is nothing to wait for, and none to look at.
    CHECK_FALSE(incoming.any_growing());
    CHECK(incoming.whole().empty());
    grow("one.jpg", ", and the rest");
    CHECK(incoming.whole().empty());
    CHECK(incoming.any_growing());
    (void)incoming.whole();
    CHECK(incoming.whole() == std::vector{folder / "one.jpg"});
    // One that goes while it grows.
    grow("two.jpg", "begins");
    (void)incoming.whole();
    CHECK(incoming.any_growing());
    fs::remove(folder / "two.jpg");
    CHECK(incoming.whole().empty());
    CHECK_FALSE(incoming.any_growing());
    // And the one of no bytes after all.
    grow("none.jpg", "late");
    (void)incoming.whole();
    (void)incoming.whole();
    CHECK(incoming.whole() == std::vector{folder / "none.jpg"});
    // What was there before is given only when it changes.
    proof::Incoming later(folder.path());
    for (int i = 0; i < 4; ++i) CHECK(later.whole().empty());
    grow("one.jpg", "!");
    (void)later.whole();
    (void)later.whole();
    CHECK(later.whole() == std::vector{folder / "one.jpg"});
}
