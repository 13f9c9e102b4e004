#include "desk/toolkit/quantity.hpp"
#include "desk/text/to_qt.hpp"

#include "text/scales.hpp"
#include "text/text.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

using namespace text;

/// A comfortable step for something without a scale of its own: a tenth of the leading decade or so, on round numbers.
double step_decimal(double value, int steps) {
    const double size = std::max(std::abs(value), 1e-3);
    const double unit = std::pow(10.0, std::floor(std::log10(size * 1.0001)) - 1);
    const double by = size / unit < 25 ? unit : size / unit < 50 ? 2 * unit : 5 * unit;
    return std::round((value + steps * by) / by) * by;
}

auto step_by(double by) {
    return [by](double value, int steps) { return std::round((value + steps * by) / by * 1e6) / 1e6 * by; };
}

auto parse_with(std::optional<double> (*parse)(std::string_view)) {
    return [parse](const std::string& text) { return parse(text); };
}

}  // namespace

Quantity lengthQuantity(const NumberRule& rule) {
    return {.parse = parse_with(parse_length),
            .print = length_text,
            .step = step_decimal,
            .rule = rule,
            .expected = QStringLiteral("a length such as 12, 250 um, 3.5 cm or 3/4\"")};
}

Quantity magnificationQuantity() {
    return {.parse = parse_with(parse_magnification),
            .print = magnification_text,
            .step = step_decimal,
            .rule = range::magnification_of_lens,
            .expected = QStringLiteral("a magnification such as 0.5, 1:2 or 2.5x")};
}

Quantity shareQuantity(const NumberRule& rule) {
    return {.parse = parse_with(parse_percent),
            .print = [](double value) { return number_text(value * 100) + " %"; },
            .step = step_by(0.01),
            .rule = rule,
            .expected = QStringLiteral("a share from %1 to %2 %").arg(rule.least * 100).arg(rule.greatest * 100)};
}

Quantity ratioQuantity(const NumberRule& rule) {
    return {.parse = parse_with(parse_number),
            .print = [](double value) { return number_text(value); },
            .step = step_by(0.01),
            .rule = rule,
            .expected = QStringLiteral("a number from %1 to %2").arg(rule.least).arg(rule.greatest)};
}

Quantity fNumberQuantity() {
    return {.parse = parse_with(parse_f_number),
            .print = f_number_text,
            .step = step_f_number,
            .rule = range::f_number,
            .expected = QStringLiteral("an f-number such as 5.6 or f/5.6")};
}

Quantity shutterQuantity() {
    return {.parse = parse_with(parse_shutter),
            .print = shutter_text,
            .step = step_shutter,
            .rule = range::shutter,
            .expected = QStringLiteral("a time such as 1/200, 0.5 or 2\"")};
}

Quantity isoQuantity() {
    return {.parse = parse_with(parse_number),
            .print = [](double value) { return number_text(value, 7); },
            .step = step_iso,
            .rule = range::iso,
            .expected = QStringLiteral("a sensitivity such as 100 or 640")};
}

Quantity powerQuantity() {
    return {.parse = parse_with(parse_power),
            .print = power_text,
            .step = step_power,
            .rule = range::part,
            .expected = QStringLiteral("a power such as 1/8, 1/8 +0.3 or 12 %")};
}

Quantity exposureValueQuantity() {
    return {.parse = parse_with(parse_stops),
            .print = [](double value) { return "EV " + number_text(value); },
            .step = step_by(1.0 / 3),
            .rule = range::exposure_value,
            .expected = QStringLiteral("an exposure value such as 8 or 10 1/3")};
}

Quantity stopsQuantity() {
    return {.parse = parse_with(parse_stops),
            .print = [](double value) { return stops_text(value) + " stops"; },
            .step = step_by(1.0 / 3),
            .rule = range::stops,
            .expected = QStringLiteral("stops such as +0.3 or -1 1/3")};
}

Quantity speedQuantity(const NumberRule& rule) {
    return {
        .parse = parse_with(parse_speed),
        .print = [](double value) { return number_text(value) + " mm/s"; },
        .step = [](double value, int steps) { return std::max(0.0, value == 0 ? steps : step_decimal(value, steps)); },
        .rule = rule,
        .expected = QStringLiteral("a speed such as 5, 2 cm/s, 1 m/s or 3 km/h")};
}

Quantity frequencyQuantity(const NumberRule& rule) {
    return {.parse =
                [](const std::string& text) {
                    const auto unit = text.rfind("Hz");
                    return parse_number(unit == std::string::npos ? text : text.substr(0, unit));
                },
            .print = [](double value) { return number_text(value) + " Hz"; },
            .step = step_by(0.1),
            .rule = rule,
            .expected = QStringLiteral("a frequency such as 1.5")};
}

Quantity angleQuantity(const NumberRule& rule) {
    return {.parse = parse_with(parse_angle),
            .print = [](double value) { return number_text(value) + "\u00b0"; },
            .step = step_by(5),
            .rule = rule,
            .expected = QStringLiteral("an angle from %1 degrees").arg(toQt(rule.words()))};
}

Quantity secondsQuantity(const NumberRule& rule) {
    return {.parse = parse_with(parse_shutter),
            .print = [](double value) { return number_text(value) + " s"; },
            .step = step_by(0.5),
            .rule = rule,
            .expected = QStringLiteral("seconds such as 2 or 0.5")};
}

Quantity durationQuantity() {
    return {.parse = parse_with(parse_duration),
            .print = [](double value) { return time_text(value); },
            .step = step_by(30),
            .rule = range::seconds,
            .expected = QStringLiteral("a time such as 90 s or 2 min 30 s")};
}

Quantity dayTimeQuantity() {
    return {.parse = parse_with(parse_day_time),
            .print = [](double value) { return day_time_text(value); },
            .step = step_by(300),
            .rule = range::seconds,
            .expected = QStringLiteral("a time of day such as 9:30")};
}

Quantity countQuantity(const NumberRule& rule) {
    return {.parse = [](const std::string& text) -> std::optional<double> {
                const auto value = parse_number(text);
                return value && *value == std::floor(*value) ? value : std::nullopt;
            },
            .print = [](double value) { return number_text(value, 9); },
            .step = [](double value, int steps) { return std::max(0.0, value + steps); },
            .rule = rule,
            .expected = QStringLiteral("a whole number")};
}

Quantity kelvinQuantity(bool may_be_automatic) {
    NumberRule rule = range::kelvin;
    if (may_be_automatic) rule.least = 0;
    return {.parse = [](const std::string& text) -> std::optional<double> {
                if (text == "auto") return 0;
                const auto unit = text.find_last_of("Kk");
                return parse_number(unit == std::string::npos ? text : text.substr(0, unit));
            },
            .print = [](double value) { return value > 0 ? number_text(value, 4) + " K" : std::string("auto"); },
            .step = [](double value, int steps) { return (std::round(value / 100) + steps) * 100; },
            .rule = rule,
            .expected = QStringLiteral("a colour temperature from 1000 to 40000 K")};
}

Quantity wavelengthQuantity() {
    constexpr double mm_per_nm = 1e-6;
    return {
        .parse = [](const std::string& text) -> std::optional<double> {
            const auto unit = text.rfind("nm");
            const auto nm = parse_number(unit == std::string::npos ? text : text.substr(0, unit));
            return nm ? std::optional(*nm * mm_per_nm) : std::nullopt;
        },
        .print = [](double value) { return number_text(value / mm_per_nm, 4) + " nm"; },
        .step = [](double value, int steps) { return (std::round(value / mm_per_nm / 10) + steps) * 10 * mm_per_nm; },
        .rule = {.least = range::wavelength_nm.least * mm_per_nm,
                 .greatest = range::wavelength_nm.greatest * mm_per_nm},
        .expected = QStringLiteral("a wavelength from 100 to 2000 nm")};
}

Quantity plainQuantity(const std::string& unit, const QString& expected) {
    return {.parse =
                [unit](const std::string& text) {
                    const auto at = unit.empty() ? std::string::npos : text.rfind(unit);
                    return parse_number(at == std::string::npos ? text : text.substr(0, at));
                },
            .print = [unit](double value) { return number_text(value, 6) + (unit.empty() ? "" : " " + unit); },
            .step = step_decimal,
            .rule = range::reading,
            .expected = expected};
}

}  // namespace poquito::desk
