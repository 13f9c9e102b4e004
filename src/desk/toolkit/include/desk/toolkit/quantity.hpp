#pragma once

#include "text/number_rule.hpp"

#include <QString>

#include <functional>
#include <optional>
#include <string>

/// What a field holds: how it is read, shown and stepped. All words and arithmetic come from shoot/text and
/// shoot/scales.
namespace poquito::desk {

struct Quantity {
    std::function<std::optional<double>(const std::string&)> parse;
    std::function<std::string(double)> print;
    std::function<double(double, int)> step;
    text::NumberRule rule;  // as the file's, in the same unit
    QString expected;       // what one may type: "a length such as 250 um or 3/4\""

    bool allows(double value) const { return rule.allows(value); }
};

// Where a kind of quantity has several ranges in the file, the field says which.
Quantity lengthQuantity(const text::NumberRule& rule = text::range::length);  // mm
Quantity magnificationQuantity();
Quantity shareQuantity(const text::NumberRule& rule);  // 0.25 shown as 25 %
Quantity ratioQuantity(const text::NumberRule& rule);  // plain number
Quantity fNumberQuantity();
Quantity shutterQuantity();
Quantity isoQuantity();
Quantity powerQuantity();
Quantity exposureValueQuantity();
Quantity stopsQuantity();
Quantity speedQuantity(const text::NumberRule& rule = text::range::speed);          // mm/s
Quantity frequencyQuantity(const text::NumberRule& rule = text::range::frequency);  // Hz
Quantity angleQuantity(const text::NumberRule& rule = text::range::full_turn);
Quantity secondsQuantity(const text::NumberRule& rule = text::range::some_seconds);
Quantity durationQuantity();  // s, shown as 2 min 30 s
Quantity dayTimeQuantity();   // s after midnight, shown as 9:05
Quantity countQuantity(const text::NumberRule& rule = text::range::count);
Quantity kelvinQuantity(bool may_be_automatic = false);  // 0 then shown as "auto"
Quantity wavelengthQuantity();                           // mm, shown as nm
/// A plain number with its unit behind it, which may be typed or left out.
Quantity plainQuantity(const std::string& unit, const QString& expected);

}  // namespace poquito::desk
