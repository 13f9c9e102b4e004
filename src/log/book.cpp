#include "log/book.hpp"

#include "members.hpp"

#include <fmt/format.h>
#include <SQLiteCpp/Backup.h>
#include <SQLiteCpp/Database.h>
#include <SQLiteCpp/Transaction.h>

#include <algorithm>
#include <cctype>
#include <sstream>
#include <system_error>
#include <utility>

namespace poquito::log {
namespace fs = std::filesystem;

namespace {

constexpr int our_id = 0x506f7121;  // "Poq!", in the header of the file

/// Brings a book from the version before it to the next. A book in use is never changed in another way.
struct Step {
    struct Column {
        const char* name;
        const char* type;
    };
    std::vector<Column> columns;  // that entries gain, where they are not there already
    const char* then;
};
const Step steps[] = {
    // 1
    {{}, R"(CREATE TABLE entries (
         id INTEGER PRIMARY KEY, uid TEXT NOT NULL UNIQUE, kind TEXT NOT NULL, time TEXT NOT NULL,
         shoot TEXT NOT NULL, shot TEXT NOT NULL, name TEXT NOT NULL, subject_class TEXT NOT NULL,
         words TEXT NOT NULL, place TEXT NOT NULL, light TEXT NOT NULL, support TEXT NOT NULL,
         camera TEXT NOT NULL, lens TEXT NOT NULL, unit TEXT NOT NULL, modifier TEXT NOT NULL,
         verdict TEXT NOT NULL, what TEXT NOT NULL, frames INTEGER, kept INTEGER, tried INTEGER,
         f_number REAL, planned_f_number REAL, magnification REAL, stops REAL, minutes REAL,
         value REAL, planned REAL, remark TEXT NOT NULL);
       CREATE INDEX entries_time ON entries (time);
       CREATE INDEX entries_kind ON entries (kind, time);
       CREATE INDEX entries_class ON entries (subject_class, time);
       CREATE TABLE frames (
         entry INTEGER NOT NULL REFERENCES entries (id) ON DELETE CASCADE, place INTEGER NOT NULL,
         number INTEGER NOT NULL, file TEXT NOT NULL, plane REAL, f_number REAL NOT NULL, shutter REAL NOT NULL,
         iso REAL NOT NULL, time TEXT NOT NULL, PRIMARY KEY (entry, place)) WITHOUT ROWID;
       CREATE TABLE plans (entry INTEGER PRIMARY KEY REFERENCES entries (id) ON DELETE CASCADE, plan TEXT NOT NULL);
       CREATE TABLE pictures (entry INTEGER PRIMARY KEY REFERENCES entries (id) ON DELETE CASCADE, jpeg BLOB NOT NULL);
       CREATE VIRTUAL TABLE found USING fts5 (said, tokenize = 'unicode61 remove_diacritics 2');)"},
    // 2: which way it was taken
    {{{"approach", "TEXT NOT NULL DEFAULT ''"}},
     "CREATE INDEX IF NOT EXISTS entries_verdict ON entries (verdict, time);"},
    // 3: what frames showed, and how they look
    {{{"wind", "TEXT NOT NULL DEFAULT ''"},
      {"causes", "TEXT NOT NULL DEFAULT ''"},
      {"scale", "REAL"},
      {"off", "REAL"},
      {"power", "REAL"},
      {"cadence", "REAL"},
      {"held", "INTEGER"}},
     R"(CREATE TABLE IF NOT EXISTS thumbnails (
          entry INTEGER NOT NULL REFERENCES entries (id) ON DELETE CASCADE, place INTEGER NOT NULL, jpeg BLOB NOT NULL,
          PRIMARY KEY (entry, place)) WITHOUT ROWID;)"},
};
static_assert(std::size(steps) == Book::version);

/// "uid, kind, ...", and as many question marks.
struct Columns {
    std::string names, marks;

    Columns() {
        const Entry any;
        each_member(any, [&](const char* name, const auto&) {
            names += fmt::format("{}{}", names.empty() ? "" : ", ", name);
            marks += marks.empty() ? "?" : ", ?";
        });
    }
};
const Columns& columns() {
    static const Columns all;
    return all;
}

struct Bind {
    SQLite::Statement& statement;
    int at = 1;

    void operator()(const std::string& text) { statement.bind(at++, text); }
    void operator()(Kind kind) { statement.bind(at++, kind_text(kind)); }
    template <typename Number>
    void operator()(const std::optional<Number>& number) {
        if (number)
            statement.bind(at++, *number);
        else
            statement.bind(at++);
    }
};

struct Fetch {
    SQLite::Statement& statement;
    int at;

    void operator()(std::string& text) { text = statement.getColumn(at++).getString(); }
    void operator()(Kind& kind) { kind = kind_of(statement.getColumn(at++).getString()).value_or(Kind::note); }
    void operator()(std::optional<int>& number) {
        const auto column = statement.getColumn(at++);
        if (!column.isNull()) number = column.getInt();
    }
    void operator()(std::optional<double>& number) {
        const auto column = statement.getColumn(at++);
        if (!column.isNull()) number = column.getDouble();
    }
};

/// Of a row "id, columns".
Entry entry_of(SQLite::Statement& row) {
    Entry entry;
    entry.id = row.getColumn(0).getInt64();
    Fetch fetch{row, 1};
    each_member(entry, [&](const char*, auto& member) { fetch(member); });
    return entry;
}

text::Error said(const fs::path& path, const std::exception& error) {
    return {.place = path.filename().string(), .problem = fmt::format("the logbook says: {}", error.what())};
}

void set_up(SQLite::Database& database) {
    constexpr int patience = 5000;  // ms that it waits for the other program
    database.setBusyTimeout(patience);
    database.exec("PRAGMA journal_mode = WAL");
    database.exec("PRAGMA synchronous = FULL");
    database.exec("PRAGMA foreign_keys = ON");
    database.exec("PRAGMA secure_delete = ON");  // what is forgotten is not left in the file
}

int number_of(SQLite::Database& database, const char* pragma) { return database.execAndGet(pragma).getInt(); }

bool has_column(SQLite::Database& database, const char* name) {
    SQLite::Statement row(database, "SELECT count(*) FROM pragma_table_info('entries') WHERE name = ?");
    row.bind(1, name);
    return row.executeStep() && row.getColumn(0).getInt() > 0;
}

/// Up to `to`, a step at a time and each of them whole. By one program alone: the other one finds it done.
void bring_up(SQLite::Database& database, int to) {
    for (;;) {
        SQLite::Transaction step(database, SQLite::TransactionBehavior::IMMEDIATE);
        const int now = number_of(database, "PRAGMA user_version");
        if (now >= to) return;
        const Step& next = steps[now];
        for (const auto& [name, type] : next.columns)
            if (!has_column(database, name))
                database.exec(fmt::format("ALTER TABLE entries ADD COLUMN {} {}", name, type));
        database.exec(next.then);
        if (now == 0) database.exec(fmt::format("PRAGMA application_id = {}", our_id));
        database.exec(fmt::format("PRAGMA user_version = {}", now + 1));
        step.commit();
    }
}

/// With what SQLite keeps beside it.
void move_aside(const fs::path& path, const fs::path& to) {
    for (const char* end : {"", "-wal", "-shm"}) {
        std::error_code failed;
        fs::rename(path.string() + end, to.string() + end, failed);
    }
}

fs::path free_name(const fs::path& path, const std::string& words) {
    for (int i = 1;; ++i) {
        auto to = path;
        to.replace_filename(fmt::format("{}-{}{}{}", path.stem().string(), words, i > 1 ? fmt::format("-{}", i) : "",
                                        path.extension().string()));
        if (!fs::exists(to)) return to;
    }
}

enum class State { ours, none, foreign, damaged };

/// Of a file that is there. Throws what is no fault of the file: a full disk, a busy book, a folder that cannot be
/// written.
State state_of(const fs::path& path) {
    try {
        SQLite::Database database(path.string(), SQLite::OPEN_READWRITE);
        constexpr int patience = 5000;  // ms
        database.setBusyTimeout(patience);
        const int id = number_of(database, "PRAGMA application_id");
        if (id != our_id) {
            // Made and not yet begun: nothing in it.
            const bool empty = database.execAndGet("SELECT count(*) FROM sqlite_master").getInt() == 0;
            return empty && id == 0 ? State::ours : State::foreign;
        }
        return database.execAndGet("PRAGMA quick_check(1)").getString() == "ok" ? State::ours : State::damaged;
    } catch (const SQLite::Exception& error) {
        // The check itself ends so where a page of the schema is not what it should be.
        constexpr int primary = 0xFF, corrupt = 11, not_a_database = 26;
        const int code = error.getErrorCode() & primary;
        if (code == not_a_database) return State::none;
        if (code == corrupt) return State::damaged;
        throw;
    }
}

/// What is looked for in words.
std::string said_of(const Entry& e) {
    return fmt::format("{} {} {} {} {} {} {} {} {} {} {} {} {} {} {}", e.shoot, e.name, e.subject_class, e.words,
                       e.place, e.light, e.support, e.camera, e.lens, e.unit, e.modifier, e.what, e.wind, e.causes,
                       e.remark);
}

/// Each word as the beginning of one; quoted, so that nothing in it is an operator.
std::string match_of(const std::string& words) {
    std::string match, word;
    const auto end = [&] {
        if (!word.empty()) match += fmt::format("{}\"{}\"*", match.empty() ? "" : " ", word);
        word.clear();
    };
    for (const char c : words) {
        if (std::isspace(static_cast<unsigned char>(c)))
            end();
        else if (c == '"')
            word += "\"\"";
        else
            word += c;
    }
    end();
    return match;
}

/// Conditions of a query and what they are compared with.
struct Where {
    std::string text = " WHERE 1";
    std::vector<std::string> values;

    explicit Where(const Query& query) {
        const auto also = [&](const char* condition, const std::string& value, int times = 1) {
            text += fmt::format(" AND {}", condition);
            for (int i = 0; i < times; ++i) values.push_back(value);
        };
        if (const auto match = match_of(query.words); !match.empty())
            also("id IN (SELECT rowid FROM found WHERE found MATCH ?)", match);
        if (query.kind) also("kind = ?", kind_text(*query.kind));
        if (!query.subject_class.empty()) also("subject_class = ?", query.subject_class);
        if (!query.gear.empty()) also("(camera = ? OR lens = ? OR unit = ? OR modifier = ?)", query.gear, 4);
        if (!query.verdict.empty()) also("verdict = ?", query.verdict);
        if (!query.shoot.empty()) also("shoot = ?", query.shoot);
        if (!query.name.empty()) also("name = ?", query.name);
        if (!query.from.empty()) also("time >= ?", query.from);
        if (!query.season.empty()) {
            // Days of a year without a leap day; the turn of the year is no gap.
            constexpr const char* apart =
                "abs(julianday('2001' || substr(time, 5, 6)) - julianday('2001' || substr(?, 5, 6)))";
            also(fmt::format("substr(time, 1, 4) <> substr(?, 1, 4) AND min({0}, 365 - {0}) <= 14", apart).c_str(),
                 query.season, 3);
        }
        if (!query.to.empty()) also("time < ?", query.to + "U");  // behind any moment of that day, month or year
    }
    void bind(SQLite::Statement& statement) const {
        int at = 1;
        for (const auto& value : values) statement.bind(at++, value);
    }
};

}  // namespace

const char* kind_text(Kind kind) {
    constexpr const char* texts[] = {"run",         "proof",  "count", "correction",
                                     "calibration", "change", "note",  "inspection"};
    static_assert(std::size(texts) == kinds);
    return texts[static_cast<int>(kind)];
}

std::optional<Kind> kind_of(const std::string& text) {
    for (int i = 0; i < kinds; ++i)
        if (text == kind_text(static_cast<Kind>(i))) return static_cast<Kind>(i);
    return std::nullopt;
}

namespace {

/// "2026", "2026-11", "2026-11-28".
bool is_date(const std::string& word) {
    constexpr std::size_t year = 4, month = 7, day = 10;
    if (word.size() != year && word.size() != month && word.size() != day) return false;
    for (std::size_t i = 0; i < word.size(); ++i)
        if ((i == year || i == month) ? word[i] != '-' : std::isdigit(static_cast<unsigned char>(word[i])) == 0)
            return false;
    return word.front() == '1' || word.front() == '2';
}

}  // namespace

Query query_of(const std::string& typed) {
    Query query;
    std::istringstream words(typed);
    for (std::string word; words >> word;) {
        if (is_date(word))
            query.from = query.to = word;
        else
            query.words += (query.words.empty() ? "" : " ") + word;
    }
    return query;
}

struct Book::Data {
    fs::path path;
    mutable SQLite::Database database;

    Data(fs::path file, SQLite::Database opened) : path(std::move(file)), database(std::move(opened)) {}
};

Book::Book(std::unique_ptr<Data> data) : data_(std::move(data)) {}
Book::~Book() = default;
Book::Book(Book&&) noexcept = default;
Book& Book::operator=(Book&&) noexcept = default;

namespace {

SQLite::Database connected(const fs::path& path) {
    return SQLite::Database(path.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
}

/// Out of the way, with a word of why.
std::string set_aside(const fs::path& path, const char* why) {
    const auto to = free_name(path, "set-aside");
    move_aside(path, to);
    return fmt::format("{} {}: it was set aside as {}, and a new logbook begun.", path.filename().string(), why,
                       to.filename().string());
}

/// Says what has to be known of a file that is there; an error leaves it as it is.
text::Expected<std::string> judged(const fs::path& path, Book::Whose whose) {
    std::error_code failed;
    const auto refused = [&](const char* why) {
        return text::Error{.place = path.filename().string(), .problem = fmt::format("{}: it is left alone", why)};
    };
    if (!fs::exists(path, failed) && !fs::is_symlink(path, failed)) return std::string();
    if (!fs::is_regular_file(path, failed)) return refused("not a file, expected a logbook");
    switch (state_of(path)) {
        case State::ours:
            return std::string();
        case State::foreign:
            return refused("another program's database, expected a logbook");
        case State::none:
            if (whose == Book::Whose::named) return refused("no database, expected a logbook");
            return set_aside(path, "is no logbook");
        case State::damaged:
            break;
    }
    return set_aside(path, "is damaged");
}

}  // namespace

text::Expected<Book::Opened> Book::open(const fs::path& path, Whose whose) {
    try {
        std::error_code failed;
        fs::create_directories(path.parent_path(), failed);
        auto judgement = judged(path, whose);
        if (!judgement) return std::move(judgement.error());
        auto& word = *judgement;
        auto database = connected(path);
        set_up(database);
        const int now = number_of(database, "PRAGMA user_version");
        if (now < 0 || now > version)
            return text::Error{.place = path.filename().string(),
                               .problem = fmt::format("a logbook of version {}, this program knows 1 to {}: it is left "
                                                      "alone",
                                                      now, version)};
        if (now > 0 && now < version) {
            // What was there before, whole, whatever the step does to it.
            const auto copy = free_name(path, fmt::format("before-{}", version));
            try {
                SQLite::Database to(copy.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
                SQLite::Backup backup(to, database);
                backup.executeStep();
                bring_up(database, version);
            } catch (...) {
                fs::remove(copy, failed);  // nothing was done: the book is its own copy
                throw;
            }
            word += fmt::format("{}The logbook was brought up to version {}; {} is as it was.", word.empty() ? "" : " ",
                                version, copy.filename().string());
        }
        bring_up(database, version);
        // A book that lacks a column says so now, not at the first thing that is to be entered.
        (void)SQLite::Statement(database, fmt::format("SELECT {} FROM entries LIMIT 0", columns().names));
        return Opened{.book = Book(std::make_unique<Data>(path, std::move(database))), .word = std::move(word)};
    } catch (const std::exception& error) {
        return said(path, error);
    }
}

void make_old_book(const fs::path& path, int of) {
    auto database = connected(path);
    set_up(database);
    bring_up(database, of);
}

text::Expected<void> Book::add(const std::vector<Entry>& entries, std::size_t* added) {
    try {
        auto& database = data_->database;
        SQLite::Transaction all(database, SQLite::TransactionBehavior::IMMEDIATE);
        SQLite::Statement row(
            database, fmt::format("INSERT OR IGNORE INTO entries ({}) VALUES ({})", columns().names, columns().marks));
        SQLite::Statement found(database, "INSERT INTO found (rowid, said) VALUES (?, ?)");
        SQLite::Statement frame(database, "INSERT INTO frames VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)");
        SQLite::Statement thumbnail(database, "INSERT INTO thumbnails VALUES (?, ?, ?)");
        SQLite::Statement plan(database, "INSERT INTO plans VALUES (?, ?)");
        SQLite::Statement picture(database, "INSERT INTO pictures VALUES (?, ?)");
        std::size_t count = 0;
        for (const Entry& entry : entries) {
            row.reset();
            Bind bind{row};
            each_member(entry, [&](const char*, const auto& member) { bind(member); });
            if (row.exec() == 0) continue;
            ++count;
            const auto id = database.getLastInsertRowid();
            found.reset();
            found.bind(1, id), found.bind(2, said_of(entry));
            found.exec();
            for (std::size_t i = 0; i < entry.exposed.size(); ++i) {
                const auto& one = entry.exposed[i];
                frame.reset();
                frame.bind(1, id), frame.bind(2, static_cast<std::int64_t>(i)), frame.bind(3, one.index);
                frame.bind(4, one.file.text());
                if (one.plane)
                    frame.bind(5, *one.plane);
                else
                    frame.bind(5);
                frame.bind(6, one.f_number), frame.bind(7, one.shutter), frame.bind(8, one.iso),
                    frame.bind(9, one.time);
                frame.exec();
                if (one.picture.empty()) continue;
                thumbnail.reset();
                thumbnail.bind(1, id), thumbnail.bind(2, static_cast<std::int64_t>(i));
                thumbnail.bind(3, one.picture.data(), static_cast<int>(one.picture.size()));
                thumbnail.exec();
            }
            if (!entry.plan.empty()) {
                plan.reset();
                plan.bind(1, id), plan.bind(2, entry.plan);
                plan.exec();
            }
            if (!entry.picture.empty()) {
                picture.reset();
                picture.bind(1, id);
                picture.bind(2, entry.picture.data(), static_cast<int>(entry.picture.size()));
                picture.exec();
            }
        }
        all.commit();
        if (added) *added = count;
        return {};
    } catch (const std::exception& error) {
        return said(data_->path, error);
    }
}

text::Expected<void> Book::forget(std::int64_t id) {
    try {
        auto& database = data_->database;
        SQLite::Transaction all(database, SQLite::TransactionBehavior::IMMEDIATE);
        for (const char* text : {"DELETE FROM found WHERE rowid = ?", "DELETE FROM entries WHERE id = ?"}) {
            SQLite::Statement row(database, text);
            row.bind(1, id);
            row.exec();
        }
        all.commit();
        // Out of the words' index and of the journal too, where another program does not read it just now.
        database.exec("INSERT INTO found (found) VALUES ('optimize')");
        database.exec("PRAGMA wal_checkpoint(TRUNCATE)");
        return {};
    } catch (const std::exception& error) {
        return said(data_->path, error);
    }
}

text::Expected<std::vector<Entry>> Book::search(const Query& query) const {
    try {
        const Where where(query);
        SQLite::Statement rows(
            data_->database, fmt::format("SELECT id, {} FROM entries{} ORDER BY time DESC, id DESC LIMIT {} OFFSET {}",
                                         columns().names, where.text, query.most, query.after));
        where.bind(rows);
        std::vector<Entry> found;
        while (rows.executeStep()) found.push_back(entry_of(rows));
        return found;
    } catch (const std::exception& error) {
        return said(data_->path, error);
    }
}

text::Expected<std::size_t> Book::count(const Query& query) const {
    try {
        const Where where(query);
        SQLite::Statement row(data_->database, "SELECT count(*) FROM entries" + where.text);
        where.bind(row);
        row.executeStep();
        return static_cast<std::size_t>(row.getColumn(0).getInt64());
    } catch (const std::exception& error) {
        return said(data_->path, error);
    }
}

text::Expected<std::optional<Entry>> Book::entry(std::int64_t id) const {
    try {
        auto& database = data_->database;
        SQLite::Statement row(database, fmt::format("SELECT id, {} FROM entries WHERE id = ?", columns().names));
        row.bind(1, id);
        if (!row.executeStep()) return std::optional<Entry>();
        auto found = entry_of(row);
        SQLite::Statement frames(database,
                                 "SELECT number, file, plane, f_number, shutter, iso, time, jpeg FROM frames LEFT JOIN "
                                 "thumbnails USING (entry, place) WHERE entry = ? ORDER BY place");
        frames.bind(1, id);
        while (frames.executeStep()) {
            auto& frame = found.exposed.emplace_back();
            frame.index = frames.getColumn(0).getInt();
            frame.file = text::StoredPath::of_text(frames.getColumn(1).getString());
            if (!frames.getColumn(2).isNull()) frame.plane = frames.getColumn(2).getDouble();
            frame.f_number = frames.getColumn(3).getDouble();
            frame.shutter = frames.getColumn(4).getDouble();
            frame.iso = frames.getColumn(5).getDouble();
            frame.time = frames.getColumn(6).getString();
            if (!frames.getColumn(7).isNull()) frame.picture = frames.getColumn(7).getString();
        }
        const auto one = [&](const char* text) {
            SQLite::Statement value(database, text);
            value.bind(1, id);
            return value.executeStep() ? value.getColumn(0).getString() : std::string();
        };
        found.plan = one("SELECT plan FROM plans WHERE entry = ?");
        found.picture = one("SELECT jpeg FROM pictures WHERE entry = ?");
        return std::optional(std::move(found));
    } catch (const std::exception& error) {
        return said(data_->path, error);
    }
}

text::Expected<std::vector<Entry>> Book::all_of(Kind kind) const {
    return search({.kind = kind, .most = 1'000'000'000});
}

text::Expected<std::vector<std::string>> Book::classes() const {
    try {
        SQLite::Statement rows(
            data_->database,
            "SELECT subject_class FROM entries WHERE subject_class <> '' GROUP BY subject_class ORDER "
            "BY count(*) DESC, subject_class");
        std::vector<std::string> found;
        while (rows.executeStep()) found.push_back(rows.getColumn(0).getString());
        return found;
    } catch (const std::exception& error) {
        return said(data_->path, error);
    }
}

}  // namespace poquito::log
