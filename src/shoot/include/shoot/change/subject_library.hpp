#pragma once

#include "shoot/shot.hpp"

#include <optional>
#include <string>
#include <vector>

/// Generic subjects to begin from: sizes, form, movement, how near they let one come, what calls for care, and which
/// part usually has to be sharp. All of it is common practice, and the user's to change.
namespace poquito::shoot {

struct LibrarySubject {
    std::string id;
    std::string kind;  // its class, for people: "Insects and spiders"
    std::string name;
    Subject subject;  // its `library` is this id
    std::optional<Slice> zone;
    std::optional<double> still;   // share of the time that it sits still, see Tries
    std::optional<Freeze> freeze;  // of what falls, flies or splashes
    std::string unknown;

    bool operator==(const LibrarySubject&) const = default;
};

/// What a person looks at before the first frame of every subject of a class; `kind` empty: of every subject.
struct KindCheck {
    std::string kind;
    std::string text;
    std::string unknown;

    bool operator==(const KindCheck&) const = default;
};
/// Gives the shot those of the class that it has not yet.
void add_checks(Shot& shot, const std::vector<KindCheck>& checks, const std::string& kind);

/// One of this shot alone; nothing where it has it, or there is no text.
void add_check(Shot& shot, const std::string& text);

/// The shot with that subject in place of its own; keeps how much of the frame the subject fills.
void fill_from(Shot& shot, const gear::Kit& kit, const LibrarySubject& entry);

/// What of the shot's subject is still as the library has it, for people: "14 \u00d7 9 \u00d7 7 mm", "moves 1 mm/s";
/// empty: nothing, or the subject is of no library.
std::vector<std::string> assumed(const Shot& shot, const std::vector<LibrarySubject>& library);

}  // namespace poquito::shoot
