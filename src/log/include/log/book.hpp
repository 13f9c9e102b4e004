#pragma once

#include "log/entry.hpp"
#include "text/error.hpp"

#include <cstddef>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <vector>

/// The logbook of all shoots: one SQLite file in the user's data folder, written by desk and command line alike.
namespace poquito::log {

/// What is looked for; what is empty leaves out nothing.
struct Query {
    std::string words;  // each word, or the beginning of one, anywhere in what an entry says
    std::optional<Kind> kind;
    std::string subject_class;
    std::string gear;  // camera, lens, unit or modifier
    std::string verdict;
    std::string shoot, name;  // title, and name of the shot, exactly
    std::string from, to;     // days, "2026-11-28", both counted in
    std::string season;       // a day: what was within a fortnight of it in other years
    std::size_t most = 200;
    std::size_t after = 0;  // so many of the newest are passed over
};

/// What a person types: words, and days, months or years as "2026-11-28", "2026-11", "2026", the last of which limits.
Query query_of(const std::string& typed);

/// One book, one thread at a time; several programs may have it open. What is added is on the disk when `add` returns,
/// and of a program that is killed either all of an entry is there or nothing. A call that fails says why and changes
/// nothing.
class Book {
  public:
    ~Book();
    Book(Book&&) noexcept;
    Book& operator=(Book&&) noexcept;

    /// The user's own, at its usual place, or one that was named and may be anything.
    enum class Whose { own, named };

    /// Makes it where there is none. One that is damaged is set aside under another name and a new one begun, as is
    /// what is no database at all in the place of the user's own; an older one is brought up to this version after a
    /// copy. All else is left as it is, and an error: another program's database, a later version, a file that was
    /// named and is no logbook, a disk that is full. `word`: what a person should know of it; empty: nothing.
    struct Opened;
    static text::Expected<Opened> open(const std::filesystem::path& path, Whose whose = Whose::own);

    /// All of them, or none. Those whose `uid` is there already are passed over. `added`: how many are new.
    text::Expected<void> add(const std::vector<Entry>& entries, std::size_t* added = nullptr);
    /// Takes an entry out for good, from the file too.
    text::Expected<void> forget(std::int64_t id);

    /// Newest first, without frames, plan and picture.
    text::Expected<std::vector<Entry>> search(const Query& query) const;
    text::Expected<std::size_t> count(const Query& query) const;
    /// All of an entry; empty: it is not there.
    text::Expected<std::optional<Entry>> entry(std::int64_t id) const;
    /// All entries with a number in that column, for lessons: of those kinds, without frames, plan and picture.
    text::Expected<std::vector<Entry>> all_of(Kind kind) const;

    /// Distinct classes, most used first: to choose from.
    text::Expected<std::vector<std::string>> classes() const;

    static constexpr int version = 3;

  private:
    struct Data;
    explicit Book(std::unique_ptr<Data> data);
    std::unique_ptr<Data> data_;
};

struct Book::Opened {
    Book book;
    std::string word;
};

/// For tests: a book as version `of` left it.
void make_old_book(const std::filesystem::path& path, int of);

}  // namespace poquito::log
