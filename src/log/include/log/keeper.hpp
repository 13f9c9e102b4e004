#pragma once

#include "log/entry.hpp"
#include "shoot/shoot.hpp"
#include "text/error.hpp"

#include <string>
#include <vector>

namespace poquito::log {

/// A new shot from what was logged, on the gear that is there now.
struct FromKeeper {
    shoot::Shot shot;
    std::vector<std::string> differs;  // for people: what is not as it was, and what was taken instead
};
/// The shot of an entry's plan with gear of `today` that has the same name, else the same id. What is not there is left
/// off; where the same size is not reached so, gear of today that reaches it is searched. An error: the entry has no
/// plan that can be read, or today has neither camera nor lens.
text::Expected<FromKeeper> start_from(const Entry& entry, const shoot::Shoot& today);

}  // namespace poquito::log
