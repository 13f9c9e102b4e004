#include "text/number_rule.hpp"

#include <fmt/format.h>

namespace poquito::text {

bool NumberRule::allows(double value) const {
    return (without_least ? value > least : value >= least) &&
           (without_greatest ? value < greatest : value <= greatest);
}

std::string NumberRule::words() const {
    return fmt::format("{}{} to {}{}", without_least ? "above " : "", least, without_greatest ? "below " : "",
                       greatest);
}

}  // namespace poquito::text
