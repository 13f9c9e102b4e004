#pragma once

#include <string>
#include <variant>

namespace poquito::storage {

/// Why something could not be read: `place: what is wrong, what was expected`, one line, lower case, no stop. The place
/// is a path into the file (shots[2].rig.lens), a line and column where it is not JSON, or the file's own name.
struct ReadError {
    std::string place;
    std::string problem;
};
inline std::string message(const ReadError& error) {
    return error.place.empty() ? error.problem : error.place + ": " + error.problem;
}

/// Either the whole thing or the error; never a part.
template <typename Value>
using ReadResult = std::variant<Value, ReadError>;

}  // namespace poquito::storage
