// The logbook with 100 000 frames in 5 000 shots: opening and searching against what they may take.
#include "log/book.hpp"
#include "log/lessons.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <filesystem>
#include <functional>
#include <random>
#include <string>
#include <vector>

using namespace poquito;
using log::Book;
using log::Entry;

namespace {

double seconds(const std::function<void()>& work) {
    const auto begin = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

/// The median of some.
double typical(int times, const std::function<void()>& work) {
    std::vector<double> all;
    all.reserve(static_cast<std::size_t>(times));
    for (int i = 0; i < times; ++i) all.push_back(seconds(work));
    std::ranges::sort(all);
    return all[all.size() / 2];
}

Entry entry_of(int number, log::Kind kind) {
    static const std::string words[] = {"lichen", "bee", "coin", "satchel", "fossil", "toffee", "leaf", "brooch"};
    std::minstd_rand random(static_cast<unsigned>(number) + 1);
    Entry entry;
    entry.kind = kind;
    entry.uid = fmt::format("{}:{}", log::kind_text(kind), number);
    entry.time = fmt::format("20{:02}-{:02}-{:02}T10:{:02}:00", 16 + number / 500, 1 + number % 12, 1 + number % 28,
                             number % 60);
    entry.shoot = "Saltmarsh";
    entry.name = fmt::format("{} {}", words[random() % 8], number);
    entry.subject_class = words[random() % 8];
    entry.words = fmt::format("{} {} by the {}", words[random() % 8], words[random() % 8], words[random() % 8]);
    entry.lens = "90 mm macro 1:1";
    entry.camera = "APS-C body, 24 MP";
    entry.verdict = kind == log::Kind::proof ? random() % 4 ? "keep" : "redo" : "";
    if (kind != log::Kind::run) return entry;
    entry.frames = 20;
    for (int i = 0; i < 20; ++i)
        entry.exposed.push_back(
            {.index = i, .file = fmt::format("frame-{:04}.jpg", i), .plane = i * 0.1, .time = entry.time});
    entry.picture.assign(8000, static_cast<char>(number));
    entry.plan.assign(6000, 'x');
    return entry;
}

}  // namespace

int main() {
    const auto path = std::filesystem::temp_directory_path() / fmt::format("book-{}.db", std::random_device()());
    constexpr int shots = 5000, at_once = 250;
    {
        auto opened = Book::open(path);
        auto& book = std::get<Book::Opened>(opened).book;
        for (int from = 0; from < shots; from += at_once) {
            std::vector<Entry> entries;
            for (int i = from; i < from + at_once; ++i)
                entries.push_back(entry_of(i, log::Kind::run)), entries.push_back(entry_of(i, log::Kind::proof));
            if (book.add(entries)) return 1;
        }
    }
    const auto megabytes = static_cast<double>(std::filesystem::file_size(path)) / 1e6;
    const double opening = typical(5, [&] { (void)Book::open(path); });
    auto opened = Book::open(path);
    auto& book = std::get<Book::Opened>(opened).book;
    const double by_words = typical(15, [&] {
        (void)book.search({.words = "lichen satch"});
        (void)book.count({.words = "lichen satch"});
    });
    const double by_gear = typical(15, [&] {
        const log::Query query{
            .subject_class = "coin", .gear = "90 mm macro 1:1", .verdict = "keep", .from = "2020-01-01"};
        (void)book.search(query);
        (void)book.count(query);
    });
    const double everything = typical(15, [&] {
        (void)book.search({});
        (void)book.count({});
    });
    int next = shots;
    const double writing = typical(15, [&] { (void)book.add({entry_of(next++, log::Kind::run)}); });
    const double learning = typical(3, [&] {
        const auto all = book.search({.most = 1'000'000});
        (void)log::lessons_of(std::get<std::vector<Entry>>(all));
    });
    constexpr double may_open = 0.2, may_search = 0.05;
    std::printf("the logbook, %d frames in %d shots, %.0f MB: opening %.2f of 200 ms\n", shots * 20, shots, megabytes,
                opening / may_open);
    std::printf("a search in it, of 50 ms: by words %.2f, by class, gear, verdict and day %.2f, the newest %.2f\n",
                by_words / may_search, by_gear / may_search, everything / may_search);
    std::printf("a run of 20 frames entered (by a thread of its own): %.1f ms; all lessons: %.0f ms\n", writing * 1e3,
                learning * 1e3);
    for (const char* end : {"", "-wal", "-shm"}) std::filesystem::remove(path.string() + end);
    return 0;
}
