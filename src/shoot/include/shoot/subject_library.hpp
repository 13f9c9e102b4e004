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
    std::string unknown;

    bool operator==(const LibrarySubject&) const = default;
};

/// The shot with that subject in place of its own; keeps how much of the frame the subject fills.
void fill_from(Shot& shot, const gear::Kit& kit, const LibrarySubject& entry);

/// What of the shot's subject is still as the library has it, for people: "14 \u00d7 9 \u00d7 7 mm", "moves 1 mm/s";
/// empty: nothing, or the subject is of no library.
std::vector<std::string> assumed(const Shot& shot, const std::vector<LibrarySubject>& library);

}  // namespace poquito::shoot
