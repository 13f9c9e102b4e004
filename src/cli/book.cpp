#include "log/book.hpp"
#include "cli/commands.hpp"
#include "cli/common.hpp"
#include "devices/clock.hpp"
#include "log/exchange.hpp"
#include "log/lessons.hpp"
#include "log/record.hpp"
#include "storage/atomic_file.hpp"

#include <cstdio>
#include <cstdlib>
#include <optional>
#include <utility>

namespace poquito::cli {
namespace {

/// Where the desktop has it.
std::filesystem::path usual_book() {
    if (const char* data = std::getenv("XDG_DATA_HOME"); data && *data)
        return std::filesystem::path(data) / "poquito" / "poquito" / "logbook.db";
    const char* home = std::getenv("HOME");
    return std::filesystem::path(home ? home : ".") / ".local" / "share" / "poquito" / "poquito" / "logbook.db";
}

text::Expected<log::Book::Opened> open_book(const std::filesystem::path& named) {
    return named.empty() ? log::Book::open(usual_book()) : log::Book::open(named, log::Book::Whose::named);
}

bool is_csv(const std::string& file) { return file.ends_with(".csv"); }

int bring_in(log::Book& book, const std::string& file) {
    const auto text = storage::read_file(file);
    if (!text) return complain(text.error());
    const auto read = is_csv(file) ? log::read_csv(*text) : log::read_json(*text);
    if (!read) return complain(read.error());
    const auto& entries = *read;
    std::size_t added = 0;
    if (const auto done = book.add(entries, &added); !done) return complain(done.error());
    std::printf("%zu of %zu are new\n", added, entries.size());
    return done;
}

int write_out(const log::Book& book, const std::string& file) {
    auto rows = book.search({.most = 1'000'000'000});
    if (!rows) return complain(rows.error());
    auto& entries = *rows;
    for (auto& entry : entries) {
        auto whole = book.entry(entry.id);
        if (whole && *whole) entry = std::move(**whole);
    }
    const auto written = storage::replace_file(file, is_csv(file) ? log::write_csv(entries) : log::write_json(entries));
    if (!written) return complain(written.error());
    return done;
}

}  // namespace

namespace {

void enter(const std::filesystem::path& path, log::Entry entry) {
    auto opened = open_book(path);
    if (!opened) {
        (void)complain(opened.error());
        return;
    }
    auto& [book, word] = *opened;
    if (!word.empty()) std::fprintf(stderr, "%s\n", word.c_str());
    log::add_thumbnails(entry);
    if (const auto done = book.add({std::move(entry)}); !done) (void)complain(done.error());
}

}  // namespace

bool refuses_book(const std::filesystem::path& named) {
    if (named.empty()) return false;
    const auto opened = open_book(named);
    if (!opened) (void)complain(opened.error());
    return !opened;
}

void enter_run(const std::filesystem::path& path, const shoot::Shoot& shoot, const shoot::Shot& shot,
               const shoot::RunRecord& record) {
    enter(path, log::run_entry(shoot, shot, {}, record));
}

void enter_inspection(const std::filesystem::path& path, const shoot::Shoot& shoot, const shoot::Shot& shot,
                      const proof::Inspection& inspection) {
    enter(path, log::inspection_entry(shoot, shot, {}, inspection, devices::local_time()));
}

int use_book(const BookRequest& request) {
    auto opened = open_book(request.path);
    if (!opened) return complain(opened.error());
    auto& [book, word] = *opened;
    if (!word.empty()) std::fprintf(stderr, "%s\n", word.c_str());
    if (!request.in.empty()) return bring_in(book, request.in);
    if (!request.out.empty()) return write_out(book, request.out);
    if (request.forget > 0) {
        if (const auto done = book.forget(request.forget); !done) return complain(done.error());
        return done;
    }
    auto query = log::query_of(request.words);
    query.most = request.lessons ? 1'000'000'000U : 200U;
    const auto rows = book.search(query);
    if (!rows) return complain(rows.error());
    const auto& entries = *rows;
    if (request.lessons) {
        for (const auto& lesson : log::lessons_of(entries))
            std::printf("%s: %s (%zu)\n", lesson.about.c_str(), lesson.text.c_str(), lesson.cases);
        return done;
    }
    for (const auto& entry : entries)
        std::printf("%lld  %s  %-11s %s%s%s\n", static_cast<long long>(entry.id), entry.time.c_str(),
                    log::kind_text(entry.kind), entry.name.c_str(), entry.verdict.empty() ? "" : ", ",
                    entry.verdict.c_str());
    return done;
}

}  // namespace poquito::cli
