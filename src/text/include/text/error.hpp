#pragma once

#include <string>
#include <tl/expected.hpp>
#include <utility>

/// The one way to fail: a value, or why there is none.
namespace poquito::text {

/// Why something could not be done: `place: what is wrong, what was expected`, one line, lower case, no stop. The place
/// is a path into a file (shots[2].rig.lens), a line and column where it is not JSON, the file's own name, or empty.
struct Error {
    std::string place;
    std::string problem;
};
inline std::string message(const Error& error) {
    return error.place.empty() ? error.problem : error.place + ": " + error.problem;
}

/// Either the whole thing or why not; never a part. `Expected<void>`: it is done. As tl::expected, made of an error as
/// easily as of a value.
template <class Value, class Why = Error>
class Expected : public tl::expected<Value, Why> {
    using Base = tl::expected<Value, Why>;

  public:
    using Base::Base;
    Expected(Why why) : Base(tl::unexpect, std::move(why)) {}  // NOLINT(google-explicit-constructor): as a value
};

}  // namespace poquito::text
