#pragma once

#include "shoot/gear.hpp"

#include <QString>

#include <functional>
#include <optional>

/// What a field holds: how it is read, shown and stepped. All words and arithmetic come from shoot/text and
/// shoot/scales.
namespace poquito::desk {

struct Quantity {
    std::function<std::optional<double>(const std::string&)> parse;
    std::function<std::string(double)> print;
    std::function<double(double, int)> step;
    double least = 0;
    double greatest = 1e9;
    bool withoutLeast = false;  // least itself is not allowed
    QString expected;           // what one may type: "a length such as 250 um or 3/4\""

    bool allows(double value) const { return (withoutLeast ? value > least : value >= least) && value <= greatest; }
};

Quantity lengthQuantity(bool mayBeZero = true);  // mm
Quantity magnificationQuantity();
Quantity shareQuantity(double least, double greatest);  // 0.25 shown as 25 %
Quantity ratioQuantity(double least, double greatest);  // plain number
Quantity fNumberQuantity();
Quantity shutterQuantity();
Quantity isoQuantity();
Quantity powerQuantity();
Quantity exposureValueQuantity();
Quantity stopsQuantity();
Quantity speedQuantity();
Quantity frequencyQuantity();
Quantity angleQuantity();
Quantity attitudeQuantity();  // degrees a subject may be tilted or turned
Quantity secondsQuantity();
Quantity durationQuantity();  // s, shown as 2 min 30 s
Quantity dayTimeQuantity();   // s after midnight, shown as 9:05
Quantity countQuantity();
Quantity wavelengthQuantity();  // mm, shown as nm

/// For a member of a gear record, within its rule.
Quantity quantityOf(const shoot::FieldSpec& spec);

}  // namespace poquito::desk
