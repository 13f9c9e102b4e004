// libFuzzer's target: a log as JSON or as a table, by its first letter, or the database itself, damaged: read or
// refused; what was read is written and read again as what it was, and a book that opens answers.
#include "log/book.hpp"
#include "log/exchange.hpp"
#include "written_file.hpp"

#include <cstdlib>
#include <string_view>
#include <system_error>

using namespace poquito;

namespace {

void open_book(const std::uint8_t* data, std::size_t size) {
    const auto path = fuzz::written_file(".db", data, size);
    std::error_code ignored;
    for (const char* end : {"-wal", "-shm"}) std::filesystem::remove(path.string() + end, ignored);
    {
        auto opened = log::Book::open(path, log::Book::Whose::named);
        if (auto* all = std::get_if<log::Book::Opened>(&opened)) {
            (void)all->book.search({.words = "a"});
            (void)all->book.classes();
            (void)all->book.entry(1);
            (void)all->book.add({{.uid = "x", .kind = log::Kind::note, .time = "2026-05-01"}});
        }
    }
    for (const auto& entry : std::filesystem::directory_iterator(path.parent_path(), ignored))
        if (entry.path().filename().string().starts_with(path.stem().string() + "-"))
            std::filesystem::remove(entry.path(), ignored);
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    if (text.starts_with("SQLite format 3")) {
        open_book(data, size);
        return 0;
    }
    const bool json = text.starts_with('{');
    const auto read = json ? log::read_json(text) : log::read_csv(text);
    const auto* entries = std::get_if<std::vector<log::Entry>>(&read);
    if (!entries) return 0;
    const auto again = json ? log::read_json(log::write_json(*entries)) : log::read_csv(log::write_csv(*entries));
    const auto* back = std::get_if<std::vector<log::Entry>>(&again);
    if (!back || !(*back == *entries)) std::abort();
    return 0;
}
