#include "shoot/number_rule.hpp"

#include <fmt/format.h>

namespace poquito::shoot {

bool NumberRule::allows(double value) const {
    return (without_least ? value > least : value >= least) &&
           (without_greatest ? value < greatest : value <= greatest);
}

std::string NumberRule::words() const {
    if (greatest >= no_limit && least > -no_limit)
        return without_least ? fmt::format("above {}", least) : fmt::format("{} or more", least);
    return fmt::format("{}{} to {}{}", without_least ? "above " : "", least, without_greatest ? "below " : "",
                       greatest);
}

}  // namespace poquito::shoot
