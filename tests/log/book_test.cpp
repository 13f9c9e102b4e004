// The logbook: what goes in comes back, is found, is forgotten; and what becomes of it when programs are killed, disks
// are full and files are not what they seem.
#include "log/book.hpp"

#include "log/exchange.hpp"
#include "storage/atomic_file.hpp"
#include "support/folder.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <fmt/format.h>
#include <SQLiteCpp/Database.h>

#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <chrono>
#include <csignal>
#include <ctime>
#include <filesystem>
#include <fstream>
#include <thread>

using namespace poquito;
using log::Book;
using log::Entry;
using log::Kind;
namespace fs = std::filesystem;

namespace {

Book opened(const fs::path& path, std::string* word = nullptr) {
    auto result = Book::open(path);
    if (!result) {
        INFO(text::message(result.error()));
        REQUIRE(false);
    }
    auto& all = result.value();
    if (word) *word = all.word;
    return std::move(all.book);
}

void put(Book& book, const std::vector<Entry>& entries, std::size_t* added = nullptr) {
    const auto done = book.add(entries, added);
    INFO((done ? "" : text::message(done.error())));
    REQUIRE(done);
}

template <typename Value>
Value got(text::Expected<Value> result) {
    if (!result) {
        INFO(text::message(result.error()));
        REQUIRE(false);
    }
    return std::move(result).value();
}

Entry run(int number, int frames = 5) {
    Entry entry;
    entry.uid = "run:" + std::to_string(number);
    entry.kind = Kind::run;
    entry.time = fmt::format("2026-11-{:02}T10:{:02}:00", 1 + number / 60 % 28, number % 60);
    entry.shoot = "Saltmarsh";
    entry.shot = "shot-" + std::to_string(number);
    entry.name = "Shot " + std::to_string(number);
    entry.frames = frames;
    for (int i = 0; i < frames; ++i)
        entry.exposed.push_back(
            {.index = i, .file = text::StoredPath(fmt::format("f{}.jpg", i)), .plane = i * 0.1, .time = entry.time});
    return entry;
}

Entry random_entry(unsigned seed) {
    test::Random random(seed);
    const std::array<std::string, 5> texts = {"", "Größe \"M\", zweiteilig", "line\nbreak; comma, too", "Łódź",
                                              "a'b -- c"};
    const auto text = [&] { return texts[static_cast<std::size_t>(random.whole(0, 4))]; };
    const auto number = [&] { return random.coin() ? std::optional(random.between(-5, 5)) : std::nullopt; };
    Entry entry = run(static_cast<int>(seed), random.whole(0, 3));
    entry.kind = static_cast<Kind>(random.whole(0, log::kinds - 1));
    for (auto* member : {&entry.shoot, &entry.name, &entry.subject_class, &entry.words, &entry.place, &entry.light,
                         &entry.support, &entry.camera, &entry.lens, &entry.unit, &entry.modifier, &entry.approach,
                         &entry.verdict, &entry.what, &entry.remark, &entry.wind, &entry.causes})
        *member = text();
    for (auto* member : {&entry.f_number, &entry.planned_f_number, &entry.magnification, &entry.stops, &entry.minutes,
                         &entry.value, &entry.planned, &entry.scale, &entry.off, &entry.power, &entry.cadence})
        *member = number();
    if (random.coin()) entry.kept = random.whole(0, 9), entry.tried = random.whole(9, 90);
    if (random.coin()) entry.held = random.whole(0, 9);
    for (auto& frame : entry.exposed)
        if (random.coin())
            for (int i = 0; i < 20; ++i) frame.picture += static_cast<char>(random.whole(0, 255));
    if (random.coin()) entry.plan = "{\"format\": \"poquito-shoot\"}\n";
    if (random.coin())
        for (int i = 0; i < 50; ++i) entry.picture += static_cast<char>(random.whole(0, 255));
    if (!entry.exposed.empty()) entry.exposed[0].plane.reset();
    return entry;
}

std::string bytes_of(const fs::path& path) {
    std::ifstream file(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(file), {}};
}

}  // namespace

TEST_CASE("an entry comes back from the book, from JSON and, but for frames and plan, from CSV as it went", "[log]") {
    const test::Folder folder;
    auto book = opened(folder / "log" / "logbook.db");
    std::vector<Entry> entries;
    for (unsigned seed = 0; seed < 60; ++seed) entries.push_back(random_entry(seed));
    std::size_t added = 0;
    put(book, entries, &added);
    CHECK(added == entries.size());
    const auto all = got(book.search({.most = 1000}));
    REQUIRE(all.size() == entries.size());
    for (const auto& found : all) {
        auto back = *got(book.entry(found.id));
        const auto wanted = std::ranges::find(entries, back.uid, &Entry::uid);
        REQUIRE(wanted != entries.end());
        back.id = 0;
        CHECK(back == *wanted);
    }
    CHECK(got(log::read_json(log::write_json(entries))) == entries);
    auto plain = entries;
    for (auto& entry : plain) entry.exposed.clear(), entry.plan.clear(), entry.picture.clear();
    CHECK(got(log::read_csv(log::write_csv(entries))) == plain);
    CHECK(got(log::read_csv("\xEF\xBB\xBF" + log::write_csv(plain))) == plain);
    // Brought in twice it is there once.
    put(book, entries, &added);
    CHECK(added == 0);
    CHECK(got(book.count({})) == entries.size());
    CHECK_FALSE(got(book.entry(99999)));
}

TEST_CASE("what is no log is refused with its place", "[log]") {
    const auto refusal = [](const auto& result) { return result ? std::string() : text::message(result.error()); };
    CHECK(refusal(log::read_json("{")).find("line 1") == 0);
    CHECK(refusal(log::read_json(R"({"format": "poquito-log", "version": 1, "entries": [{"kind": "walk"}]})")) ==
          "entries[0].kind: got \"walk\", expected run, proof, count, correction, calibration, change, note or "
          "inspection");
    CHECK(refusal(log::read_json(R"({"format": "poquito-log", "version": 2, "entries": []})")).find("version") == 0);
    CHECK(refusal(log::read_csv("a,b\r\n1,2\r\n")) == "line 1: got no column kind or time, expected both");
    CHECK(refusal(log::read_csv("kind,time,stops\r\nrun,t,1\r\nrun,t,\"1,5\"\r\n")) ==
          "line 3, stops: got \"1,5\", expected a number with a decimal point, or nothing");
    CHECK(refusal(log::read_csv("")).find("line 1") == 0);
    // One without an id of its own gets one, the same for the same.
    const auto once = log::read_csv("kind,time,shot\r\nnote,2026-11-28T10:00:00,a\r\n").value();
    const auto again = log::read_csv("kind,time,shot\r\nnote,2026-11-28T10:00:00,a\r\n").value();
    CHECK_FALSE(once[0].uid.empty());
    CHECK(once == again);
}

TEST_CASE("words of one day in a list from elsewhere are as many as they are, each once however often it is read",
          "[log]") {
    const test::Folder folder;
    auto book = opened(folder / "logbook.db");
    const auto list =
        got(log::read_csv("kind,time,name,kept,tried\ncount,2026-05-01,bee,3,20\n"
                          "count,2026-05-01,wasp,1,9\ncount,2026-05-01,hoverfly,7,8\n"
                          "count,2026-05-01,hoverfly,7,9\ncount,2026-05-01,wasp,1,9\n"));
    std::size_t added = 0;
    put(book, list, &added);
    CHECK(added == 4);  // the fifth says nothing that the second did not
    put(book, list, &added);
    CHECK(added == 0);
    CHECK(got(book.count({.words = "hoverfly"})) == 2);
}

TEST_CASE("no cell of the log's table is taken for a formula", "[log]") {
    auto entry = run(1);
    entry.name = "=1+1", entry.remark = "@home", entry.place = "-x", entry.stops = -0.5;
    const auto table = log::write_csv({entry});
    for (const char* bad : {",=", ",@", ",-x", ",\"="}) CHECK(table.find(bad) == std::string::npos);
    CHECK(table.find(",-0.5") != std::string::npos);  // a number is none
    const auto back = got(log::read_csv(table));
    CHECK(back[0].name == entry.name);
    CHECK(back[0].remark == entry.remark);
    CHECK(back[0].place == entry.place);
}

TEST_CASE("entries are found by words and their beginnings, class, gear, verdict and day, newest first", "[log]") {
    const test::Folder folder;
    auto book = opened(folder / "logbook.db");
    std::vector<Entry> entries;
    for (int i = 0; i < 40; ++i) {
        auto entry = run(i, 1);
        entry.subject_class = i % 2 == 0 ? "coin" : "insect";
        entry.words = i == 7 ? "Xanthoria parietina, Kümmel \"wild\"" : i % 4 == 1 ? "bee on sea-lavender" : "";
        entry.camera = i % 3 == 0 ? "APS-C body, 24 MP" : "Full-frame body, 45 MP";
        entry.verdict = i % 5 == 0 ? "redo" : "keep";
        entry.time = fmt::format("2026-{:02}-10T09:00:00", 1 + i % 12);
        entries.push_back(entry);
    }
    put(book, entries);
    const auto count = [&](const log::Query& query) { return got(book.count(query)); };
    CHECK(count({}) == 40);
    CHECK(count({.words = "xanth"}) == 1);
    CHECK(count({.words = "kummel"}) == 1);  // without its dots too
    CHECK(count({.words = "lavender bee"}) == 10);
    CHECK(count({.words = "\"wild\""}) == 1);
    CHECK(count({.words = "bee OR coin"}) == 0);  // words, not a language
    CHECK(count({.words = "' ; DROP TABLE entries"}) == 0);
    CHECK(count({.kind = Kind::proof}) == 0);
    CHECK(count({.subject_class = "coin"}) == 20);
    CHECK(count({.gear = "APS-C body, 24 MP"}) == 14);
    CHECK(count({.verdict = "redo"}) == 8);
    CHECK(count({.from = "2026-03-10", .to = "2026-03-10"}) == 4);
    CHECK(count({.from = "2026-03-11"}) == 40 - 12);
    const auto page = got(book.search({.most = 5, .after = 5}));
    CHECK(page.size() == 5);
    const auto all = got(book.search({}));
    CHECK(std::ranges::is_sorted(all, std::ranges::greater(), &Entry::time));
    CHECK(page[0].id == all[5].id);
    CHECK(got(book.classes()) == std::vector<std::string>{"coin", "insect"});
}

TEST_CASE("words and days are typed in one line", "[log]") {
    const auto query = log::query_of(" bee 2026-11  gusty ");
    CHECK(query.words == "bee gusty");
    CHECK(query.from == "2026-11");
    CHECK(query.to == "2026-11");
    CHECK(log::query_of("2026x f/8 10 90 mm").words == "2026x f/8 10 90 mm");
    const test::Folder folder;
    auto book = opened(folder / "logbook.db");
    std::vector<Entry> entries;
    for (const char* time :
         {"2025-12-31T23:00:00", "2026-01-01T00:00:00", "2026-01-31T12:00:00", "2026-02-01T00:00:00"}) {
        auto& entry = entries.emplace_back(run(static_cast<int>(entries.size())));
        entry.time = time;
    }
    put(book, entries);
    CHECK(got(book.count(log::query_of("2026"))) == 3);
    CHECK(got(book.count(log::query_of("2026-01"))) == 2);
    CHECK(got(book.count(log::query_of("2026-01-31"))) == 1);
    CHECK(got(book.count(log::query_of("2024"))) == 0);
}

TEST_CASE("what was within a fortnight of a day in other years is due again", "[log]") {
    const test::Folder folder;
    auto book = opened(folder / "logbook.db");
    std::vector<Entry> entries;
    for (const char* day :
         {"2024-12-30", "2025-01-05", "2025-01-20", "2025-06-01", "2026-01-02", "2024-02-29", "2023-03-10"}) {
        auto entry = run(static_cast<int>(entries.size()), 0);
        entry.time = std::string(day) + "T10:00:00";
        entries.push_back(entry);
    }
    put(book, entries);
    const auto days = [&](const char* today) {
        std::vector<std::string> all;
        for (const auto& entry : got(book.search({.season = today}))) all.push_back(entry.time.substr(0, 10));
        return all;
    };
    CHECK(days("2026-01-03") == std::vector<std::string>{"2025-01-05", "2024-12-30"});
    CHECK(days("2027-12-27") == std::vector<std::string>{"2026-01-02", "2025-01-05", "2024-12-30"});
    CHECK(days("2025-03-05") == std::vector<std::string>{"2024-02-29", "2023-03-10"});
    CHECK(days("2026-06-15") == std::vector<std::string>{"2025-06-01"});
    CHECK(days("2026-06-16").empty());
}

TEST_CASE("what is forgotten is gone from the file too", "[log]") {
    const test::Folder folder;
    const auto path = folder / "logbook.db";
    {
        auto book = opened(path);
        auto secret = run(1);
        secret.words = "whereabouts-of-the-orchid";
        secret.exposed[0].file = text::StoredPath("orchid-secret.jpg");
        put(book, {run(0), secret, run(2)});
        const auto found = got(book.search({.words = "whereabouts"}));
        REQUIRE(found.size() == 1);
        REQUIRE(book.forget(found[0].id));
        CHECK(got(book.count({})) == 2);
        CHECK(got(book.count({.words = "orchid"})) == 0);
        CHECK_FALSE(got(book.entry(found[0].id)));
    }
    for (const char* end : {"", "-wal"}) {
        const auto bytes = bytes_of(path.string() + end);
        CHECK(bytes.find("whereabouts-of-the-orchid") == std::string::npos);
        CHECK(bytes.find("orchid-secret") == std::string::npos);
    }
}

TEST_CASE("an old book is brought up to date after a copy, a later one is left alone", "[log]") {
    const test::Folder folder;
    const auto path = folder / "logbook.db";
    log::make_old_book(path, 1);
    std::string word;
    {
        auto book = opened(path, &word);
        CHECK(word.find("logbook-before-3.db is as it was") != std::string::npos);
        CHECK(fs::exists(folder / "logbook-before-3.db"));
        put(book, {random_entry(3)});
    }
    auto book = opened(path, &word);
    CHECK(word.empty());
    CHECK(got(book.count({})) == 1);
}

TEST_CASE("a file that is damaged or no database is set aside with a word, and a new book begun", "[log]") {
    const test::Folder folder;
    const auto path = folder / "logbook.db";
    std::string word;
    REQUIRE(storage::replace_file(path, "this is no database, though it has some length to it and more to come"));
    {
        auto book = opened(path, &word);
        CHECK(word.find("set aside as logbook-set-aside.db") != std::string::npos);
        CHECK(bytes_of(folder / "logbook-set-aside.db").find("this is no database") == 0);
        for (int i = 0; i < 300; ++i) put(book, {run(i)});
    }
    // A hole in the middle of it.
    auto bytes = bytes_of(path);
    REQUIRE(bytes.size() > 20000);
    std::fill_n(bytes.begin() + 8192, 8192, '\x5a');
    std::ofstream(path, std::ios::binary) << bytes;
    {
        auto book = opened(path, &word);
        CHECK(word.find("logbook.db") == 0);
        CHECK(word.find("logbook-set-aside-2.db") != std::string::npos);
        CHECK(got(book.count({})) == 0);
        put(book, {run(1)});
    }
    auto book = opened(path, &word);
    CHECK(word.empty());
    CHECK(got(book.count({})) == 1);
}

TEST_CASE("what was named and is no logbook is refused and left as it is", "[log]") {
    const test::Folder folder;
    const auto refusal = [](const fs::path& path, Book::Whose whose = Book::Whose::named) {
        const auto result = Book::open(path, whose);
        return result ? std::string() : text::message(result.error());
    };
    REQUIRE(storage::replace_file(folder / "mine.poquito", "{\"format\": \"poquito\", \"version\": 3}"));
    REQUIRE(storage::replace_file(folder / "one.jpg", std::string("\xff\xd8\xff\xe0", 4) + std::string(9000, 'x')));
    fs::create_directory(folder / "folder");
    {
        SQLite::Database other((folder / "other.db").string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        other.exec("CREATE TABLE theirs (a)");
    }
    const auto before = bytes_of(folder / "other.db");
    for (const char* name : {"mine.poquito", "one.jpg", "folder", "other.db"}) {
        INFO(name);
        CHECK(refusal(folder / name).find("expected a logbook: it is left alone") != std::string::npos);
    }
    // Another program's is nobody's to move, wherever it stands.
    CHECK(refusal(folder / "other.db", Book::Whose::own).find("another program's") != std::string::npos);
    CHECK(bytes_of(folder / "other.db") == before);
    CHECK(folder.files() == 4);
    // A file that was named and is not there yet, or is empty, becomes a book.
    CHECK(refusal(folder / "new.db").empty());
    std::ofstream(folder / "empty.db").flush();
    CHECK(refusal(folder / "empty.db").empty());
}

TEST_CASE("a book of a version that there never was is left alone", "[log]") {
    const test::Folder folder;
    const auto path = folder / "logbook.db";
    { (void)opened(path); }
    for (const int version : {-5, -1, 4, 1000}) {
        {
            SQLite::Database(path.string(), SQLite::OPEN_READWRITE)
                .exec(fmt::format("PRAGMA user_version = {}", version));
        }
        const auto result = Book::open(path);
        REQUIRE(!result);
        CHECK(text::message(result.error()).find(fmt::format("version {},", version)) != std::string::npos);
        CHECK(folder.files() == 1);
    }
}

TEST_CASE("a book whose number is older than what it holds is brought up to date all the same, once", "[log]") {
    const test::Folder folder;
    const auto path = folder / "logbook.db";
    {
        auto book = opened(path);
        put(book, {run(1)});
    }
    { SQLite::Database(path.string(), SQLite::OPEN_READWRITE).exec("PRAGMA user_version = 1"); }
    std::string word;
    for (int start = 0; start < 3; ++start) {
        auto book = opened(path, &word);
        CHECK(word.empty() == (start > 0));
        CHECK(got(book.count({})) == 1);
    }
    CHECK(folder.files() == 2);  // and one copy
    // One that lacks what its number promises says so, and is not copied at each start.
    {
        SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
        database.exec("ALTER TABLE entries DROP COLUMN wind");
    }
    CHECK(!Book::open(path));
    CHECK(folder.files() == 2);
}

TEST_CASE("on a disk that is full from the start a good book stays where it is", "[log]") {
    const test::Folder folder;
    const auto path = folder / "logbook.db";
    {
        auto book = opened(path);
        for (int i = 0; i < 50; ++i) put(book, {run(i)});
    }
    const auto before = bytes_of(path);
    for (const rlim_t room : {rlim_t{0}, rlim_t{512}, rlim_t{4096}}) {
        const pid_t child = fork();
        if (child == 0) {
            std::signal(SIGXFSZ, SIG_IGN);
            const rlimit limit{.rlim_cur = room, .rlim_max = room};
            if (setrlimit(RLIMIT_FSIZE, &limit) != 0) _exit(9);
            // Opened or not: what is said of it is not that it was set aside.
            const auto result = Book::open(path);
            _exit(result && !result->word.empty() ? 8 : 0);
        }
        int status = 0;
        REQUIRE(waitpid(child, &status, 0) == child);
        REQUIRE(WIFEXITED(status));
        CHECK(WEXITSTATUS(status) == 0);
        for (const auto& entry : fs::directory_iterator(folder.path()))
            CHECK(entry.path().filename().string().starts_with("logbook.db"));
        CHECK(bytes_of(path) == before);
    }
    auto book = opened(path);
    CHECK(got(book.count({})) == 50);
}

TEST_CASE("two programs write at once, and each finds what the other wrote", "[log]") {
    const test::Folder folder;
    const auto path = folder / "logbook.db";
    (void)opened(path);
    const auto write = [&](int from) {
        auto result = Book::open(path);
        if (!result) return 1;
        for (int i = from; i < from + 60; ++i)
            if (!result->book.add({run(i)})) return 2;
        return 0;
    };
    const pid_t other = fork();
    if (other == 0) _exit(write(1000));
    CHECK(write(0) == 0);
    int status = 1;
    REQUIRE(waitpid(other, &status, 0) == other);
    CHECK(WIFEXITED(status));
    CHECK(WEXITSTATUS(status) == 0);
    auto book = opened(path);
    CHECK(got(book.count({})) == 120);
}

TEST_CASE("killed at two hundred moments of writing, nothing that was said to be there is lost or there twice",
          "[log]") {
    const test::Folder folder;
    const auto path = folder / "logbook.db";
    (void)opened(path);
    // As long as it takes here to open the book and write into it: by that the moments are spread.
    const auto begin = std::chrono::steady_clock::now();
    const pid_t first = fork();
    if (first == 0) {
        auto result = Book::open(path);
        _exit(result && result->book.add({run(-1, 8)}) && result->book.add({run(-2, 8)}) ? 0 : 1);
    }
    int ended = 1;
    REQUIRE(waitpid(first, &ended, 0) == first);
    REQUIRE(ended == 0);
    const double took = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    test::Random random(7);
    int next = 0;
    std::vector<int> promised;
    for (int turn = 0; turn < 200; ++turn) {
        int ends[2];
        REQUIRE(pipe(ends) == 0);
        const pid_t child = fork();
        if (child == 0) {
            close(ends[0]);
            auto result = Book::open(path);
            if (!result) _exit(1);
            for (int i = next;; ++i) {
                if (!result->book.add({run(i, 8)})) _exit(2);
                if (write(ends[1], &i, sizeof i) != sizeof i) _exit(3);
            }
        }
        close(ends[1]);
        const double nap = std::min(random.between(0.02, 2.5) * took, 0.9);
        const timespec a_while{.tv_sec = 0, .tv_nsec = static_cast<long>(nap * 1e9)};
        nanosleep(&a_while, nullptr);
        kill(child, SIGKILL);
        int status = 0;
        REQUIRE(waitpid(child, &status, 0) == child);
        REQUIRE(WIFSIGNALED(status));
        int said = 0;
        while (read(ends[0], &said, sizeof said) == sizeof said) promised.push_back(said), next = said + 1;
        close(ends[0]);
        next += 1;  // one more may be there that nobody was told of
    }
    std::string word;
    auto book = opened(path, &word);
    CHECK(word.empty());
    const auto all = got(book.search({.most = 1'000'000}));
    std::vector<std::string> uids;
    uids.reserve(all.size());
    for (const auto& entry : all) uids.push_back(entry.uid);
    std::ranges::sort(uids);
    CHECK(std::ranges::adjacent_find(uids) == uids.end());
    CHECK(promised.size() > 20);
    for (const int number : promised)
        if (!std::ranges::binary_search(uids, "run:" + std::to_string(number))) FAIL_CHECK("lost " << number);
    for (const auto& entry : all)
        if (got(book.entry(entry.id))->exposed.size() != 8) FAIL_CHECK("half of " << entry.uid);
    CHECK(all.size() <= promised.size() + 202);
}

TEST_CASE("a full disk is said, and what was there stays", "[log]") {
    const test::Folder folder;
    const auto path = folder / "logbook.db";
    const pid_t child = fork();
    if (child == 0) {
        // No file of this program may grow past a quarter of a megabyte: as a disk that fills.
        std::signal(SIGXFSZ, SIG_IGN);
        constexpr rlim_t quarter = rlim_t{256} * 1024;
        const rlimit limit{.rlim_cur = quarter, .rlim_max = quarter};
        if (setrlimit(RLIMIT_FSIZE, &limit) != 0) _exit(9);
        auto result = Book::open(path);
        if (!result) _exit(8);
        int done = 0;
        for (; done < 100000; ++done)
            if (!result->book.add({run(done, 20)})) break;
        if (done == 0 || done == 100000) _exit(7);
        // It still answers, with all that it took.
        const auto count = result->book.count({});
        _exit(count && *count == static_cast<std::size_t>(done) ? 0 : 6);
    }
    int status = 0;
    REQUIRE(waitpid(child, &status, 0) == child);
    REQUIRE(WIFEXITED(status));
    CHECK(WEXITSTATUS(status) == 0);
    auto book = opened(path);
    const auto before = got(book.count({}));
    CHECK(before > 0);
    put(book, {run(999999)});
    CHECK(got(book.count({})) == before + 1);
}
