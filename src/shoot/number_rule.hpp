#pragma once

#include <string>

namespace poquito::shoot {

/// Which numbers are let in; both the check and its words.
struct NumberRule {
    static constexpr double no_limit = 1e9;  // beyond it: a slip of the keyboard, no length, power or count anyone has
    double least = 0;
    double greatest = no_limit;
    bool without_least = false;  // open at the lower end
    bool without_greatest = false;

    bool allows(double value) const;
    std::string words() const;  // "above 0", "0 or more", "0 to 1"
};
inline constexpr NumberRule above_zero{.without_least = true};
inline constexpr NumberRule zero_or_more{};
inline constexpr NumberRule share{.greatest = 1};
inline constexpr NumberRule any_number{.least = -NumberRule::no_limit};
inline constexpr NumberRule above_zero_share{.greatest = 1, .without_least = true};
inline constexpr NumberRule stop_range{.least = -30, .greatest = 30};

}  // namespace poquito::shoot
