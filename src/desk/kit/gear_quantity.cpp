#include "desk/kit/gear_quantity.hpp"

#include "desk/text/to_qt.hpp"

#include <cmath>

namespace poquito::desk {
namespace {

Quantity quantityOf(gear::Measure measure) {
    switch (measure) {
        case gear::Measure::length:
            return lengthQuantity();
        case gear::Measure::f_number:
            return fNumberQuantity();
        case gear::Measure::magnification:
            return magnificationQuantity();
        case gear::Measure::shutter:
            return shutterQuantity();
        case gear::Measure::stops:
            return stopsQuantity();
        case gear::Measure::power:
            return powerQuantity();
        case gear::Measure::count:
            return countQuantity();
        case gear::Measure::pixels: {
            auto quantity = plainQuantity("px", QStringLiteral("a whole number of pixels"));
            quantity.step = [](double value, int steps) { return value + steps; };
            return quantity;
        }
        case gear::Measure::dioptres:
            return plainQuantity("dpt", QStringLiteral("dioptres such as 4"));
        case gear::Measure::megabytes:
            return plainQuantity("MB", QStringLiteral("megabytes such as 32"));
        case gear::Measure::plain:
            break;
    }
    return plainQuantity({}, QStringLiteral("a number"));
}

}  // namespace

Quantity quantityOf(const gear::FieldSpec& spec) {
    Quantity quantity = quantityOf(spec.measure);
    quantity.rule = spec.rule;
    if (spec.type == gear::FieldType::whole_number)
        quantity.parse = [parse = quantity.parse](const std::string& text) {
            const auto value = parse(text);
            return value && *value == std::floor(*value) ? value : std::nullopt;
        };
    // As one would type it: "0.1 \u00b5m to 1000 m", not what the file says.
    quantity.expected += QStringLiteral(", %1 to %2")
                             .arg(toQt(quantity.print(spec.rule.least)), toQt(quantity.print(spec.rule.greatest)));
    return quantity;
}

}  // namespace poquito::desk
