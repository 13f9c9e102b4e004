#include "log/field_notes.hpp"

#include "log/record.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <charconv>
#include <optional>
#include <utility>

namespace poquito::log {
namespace {

using shoot::Shot;

std::string lower(std::string_view text) {
    std::string made(text);
    for (char& c : made) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return made;
}

bool separates(char c) { return std::isspace(static_cast<unsigned char>(c)) || c == ',' || c == ';' || c == '|'; }

std::vector<std::string> words_of(std::string_view line) {
    std::vector<std::string> words;
    std::string word;
    for (const char c : line) {
        if (!separates(c)) {
            word += c;
            continue;
        }
        if (!word.empty()) words.push_back(std::exchange(word, {}));
    }
    if (!word.empty()) words.push_back(std::move(word));
    return words;
}

std::optional<int> whole(std::string_view text) {
    int value = 0;
    const auto [stopped, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (error != std::errc() || stopped != text.data() + text.size() || value < 0) return std::nullopt;
    return value;
}

/// Two or three numbers with one of those signs between.
std::vector<int> parts_of(std::string_view text, char sign) {
    std::vector<int> parts;
    while (true) {
        const auto at = text.find(sign);
        const auto part = whole(text.substr(0, at));
        if (!part) return {};
        parts.push_back(*part);
        if (at == std::string_view::npos) return parts;
        text.remove_prefix(at + 1);
    }
}

/// "9:40", "9.40", "9h40" as "09:40".
std::optional<std::string> time_of(const std::string& word) {
    for (const char sign : {':', 'h', '.'}) {
        const auto parts = parts_of(word, sign);
        if (parts.size() == 2 && parts[0] < 24 && parts[1] < 60 && word.size() >= 4)
            return fmt::format("{:02}:{:02}", parts[0], parts[1]);
    }
    return std::nullopt;
}

/// "2026-11-28", "28.11.2026".
std::optional<std::string> date_of(const std::string& word) {
    auto parts = parts_of(word, '-');
    if (parts.size() != 3) {
        parts = parts_of(word, '.');
        std::ranges::reverse(parts);
    }
    if (parts.size() != 3 || parts[0] < 1900 || parts[0] > 9999 || parts[1] < 1 || parts[1] > 12 || parts[2] < 1 ||
        parts[2] > 31)
        return std::nullopt;
    return fmt::format("{:04}-{:02}-{:02}", parts[0], parts[1], parts[2]);
}

bool is_any_of(const std::string& word, std::initializer_list<const char*> all) {
    return std::ranges::any_of(all, [&](const char* one) { return word == one; });
}

/// What of the work on frames a word says; empty: nothing.
std::string work_of(const std::string& word) {
    if (is_any_of(word, {"sorting", "sorted", "sort"})) return "sorting";
    if (is_any_of(word, {"combining", "combined", "combine", "stacked"})) return "combining";
    return {};
}

/// Which words of a line begin a word of that name.
std::vector<bool> named_by(const std::vector<std::string>& words, const std::string& name) {
    const auto parts = words_of(lower(name));
    std::vector<bool> named;
    for (const auto& word : words) {
        constexpr std::size_t least = 3;  // letters: "on" and "a" name nothing
        named.push_back(word.size() >= least && std::ranges::any_of(parts, [&](const std::string& part) {
                            return part.starts_with(lower(word));
                        }));
    }
    return named;
}

class Reader {
  public:
    Reader(const shoot::Shoot& shoot, std::string day, const ClassOf& class_of)
        : shoot_(shoot), class_of_(class_of), day_(std::move(day)) {}

    void read(std::string_view line, std::size_t number) {
        auto words = words_of(line);
        if (words.empty() || words.front().front() == '#') return;
        if (const auto date = words.size() == 1 ? date_of(words.front()) : std::nullopt) {
            day_ = *date;
            return;
        }
        Entry found;
        take_numbers(words, found);
        const Shot* shot = take_name(words);
        if (!shot) {
            notes.unplaced.push_back({.place = fmt::format("line {}", number),
                                      .problem = fmt::format("got \"{}\", expected words of one shot's name", line)});
            return;
        }
        auto entry = entry_for(shoot_, *shot, class_of_(*shot));
        entry.kind = !found.what.empty() && found.minutes ? Kind::change
                     : found.tried                        ? Kind::count
                     : !found.verdict.empty()             ? Kind::proof
                                                          : Kind::note;
        entry.minutes = found.minutes;
        if (entry.kind == Kind::change) entry.what = found.what;
        entry.time = fmt::format("{}T{}:00", day_, time_);
        entry.kept = found.kept, entry.tried = found.tried, entry.frames = found.frames;
        entry.verdict = found.verdict;
        if (entry.kind == Kind::proof) entry.f_number = shot->exposure.f_number;
        for (const auto& word : words) entry.remark += (entry.remark.empty() ? "" : " ") + word;
        entry.uid = fmt::format("field:{}:{}:{}:{}", shoot_.title, shot->id, entry.time, line);
        notes.entries.push_back(std::move(entry));
    }

    FieldNotes notes;

  private:
    /// Time, count, frames and verdict, which then are no words any more.
    void take_numbers(std::vector<std::string>& words, Entry& found) {
        std::vector<std::string> rest;
        for (std::size_t i = 0; i < words.size(); ++i) {
            const auto& word = words[i];
            const auto next = i + 1 < words.size() ? lower(words[i + 1]) : std::string();
            if (const auto time = time_of(word); time && !timed_) {
                time_ = *time, timed_ = true;
                continue;
            }
            if (const auto parts = parts_of(word, '/'); parts.size() == 2 && parts[0] <= parts[1]) {
                found.kept = parts[0], found.tried = parts[1];
                continue;
            }
            if (const auto kept = whole(word); kept && next == "of" && i + 2 < words.size())
                if (const auto tried = whole(words[i + 2]); tried && *kept <= *tried) {
                    found.kept = kept, found.tried = tried;
                    i += 2;
                    continue;
                }
            if (const auto frames = whole(word); frames && is_any_of(next, {"frames", "frame", "f"})) {
                found.frames = frames;
                ++i;
                continue;
            }
            if (const auto minutes = whole(word); minutes && is_any_of(next, {"min", "minutes", "minute", "mins"})) {
                found.minutes = *minutes;
                ++i;
                continue;
            }
            if (const auto what = work_of(lower(word)); !what.empty()) {
                found.what = what;
                continue;
            }
            if (is_any_of(lower(word), {"keep", "kept", "good", "ok"})) {
                found.verdict = "keep";
                continue;
            }
            if (is_any_of(lower(word), {"redo", "again", "bad"})) {
                found.verdict = "redo";
                continue;
            }
            rest.push_back(word);
        }
        words = std::move(rest);
        timed_ = false;
    }

    /// The one shot that most words name; they are taken out. Null: none, or as many of another one.
    const Shot* take_name(std::vector<std::string>& words) const {
        const Shot* best = nullptr;
        std::vector<bool> named;
        std::ptrdiff_t most = 0;
        bool alone = true;
        for (const Shot& shot : shoot_.shots) {
            auto these = named_by(words, shot.name);
            const auto count = std::ranges::count(these, true);
            if (count == 0 || count < most) continue;
            alone = count > most;
            // A name that is all said goes before one that is longer.
            if (!alone && best && words_of(shot.name).size() != words_of(best->name).size()) {
                alone = true;
                if (words_of(shot.name).size() > words_of(best->name).size()) continue;
            }
            best = &shot, named = std::move(these), most = count;
        }
        if (!best || !alone) return nullptr;
        std::vector<std::string> rest;
        for (std::size_t i = 0; i < words.size(); ++i)
            if (!named[i]) rest.push_back(words[i]);
        words = std::move(rest);
        return best;
    }

    const shoot::Shoot& shoot_;
    const ClassOf& class_of_;
    std::string day_, time_ = "12:00";
    bool timed_ = false;
};

}  // namespace

FieldNotes read_field_notes(std::string_view text, const shoot::Shoot& shoot, const std::string& day,
                            const ClassOf& class_of) {
    if (text.starts_with("\xef\xbb\xbf")) text.remove_prefix(3);
    Reader reader(shoot, day, class_of);
    std::size_t number = 0;
    while (!text.empty()) {
        const auto end = text.find('\n');
        auto line = text.substr(0, end);
        while (!line.empty() && separates(line.back())) line.remove_suffix(1);
        while (!line.empty() && separates(line.front())) line.remove_prefix(1);
        reader.read(line, ++number);
        if (end == std::string_view::npos) break;
        text.remove_prefix(end + 1);
    }
    return std::move(reader.notes);
}

}  // namespace poquito::log
