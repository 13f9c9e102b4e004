#include "desk/toolkit/quantity.hpp"

#include "support/matchers.hpp"

#include <QtWidgets>

using namespace poquito::desk;
using poquito::test::WithinRel;

namespace {

struct Sample {
    const char* name;
    Quantity quantity;
    std::vector<double> values;
    std::vector<const char*> refused;
};

std::vector<Sample> samples() {
    return {
        {"length", lengthQuantity(poquito::text::range::size), {0.012, 0.25, 3.5, 42, 1500}, {"0", "-1", "x"}},
        {"length or none", lengthQuantity(), {0, 0.012, 42}, {"-1", ""}},
        {"magnification", magnificationQuantity(), {0.05, 0.62, 1, 3.1}, {"0", "-1", "1:0"}},
        {"share", shareQuantity(poquito::text::range::share), {0, 0.18, 1}, {"101", "-1", "%"}},
        {"ratio", ratioQuantity(poquito::text::range::share), {0, 0.47, 1}, {"1.2", "-0.1"}},
        {"f-number", fNumberQuantity(), {1.8, 5.6, 22}, {"0", "f/", "-4"}},
        {"shutter", shutterQuantity(), {1.0 / 4000, 1.0 / 160, 0.5, 30}, {"0", "1/", "1/0"}},
        {"iso", isoQuantity(), {64, 100, 12800}, {"0", "fast"}},
        {"power", powerQuantity(), {1, 0.125, 1.0 / 128}, {"0", "2", "1/8 +"}},
        {"exposure value", exposureValueQuantity(), {-2, 0, 8, 15}, {"99", "EV"}},
        {"stops", stopsQuantity(), {-1, 0, 1.3}, {"99", "up"}},
        {"speed", speedQuantity(), {0, 5, 1400}, {"-1", "fast"}},
        {"frequency", frequencyQuantity(), {0, 1.5}, {"-1", "Hz"}},
        {"angle", angleQuantity(), {-180, -35, 0, 90}, {"361", "left"}},
        {"seconds", secondsQuantity(), {0.5, 2}, {"0", "-2"}},
        {"count", countQuantity(), {0, 1, 23}, {"1.5", "-1"}},
        {"wavelength", wavelengthQuantity(), {480e-6, 550e-6}, {"5", "green"}},
    };
}

}  // namespace

TEST_CASE("every quantity reads what it shows, steps both ways and refuses what it cannot be", "[desk][quantity]") {
    for (const auto& [name, quantity, values, refused] : samples()) {
        INFO(name);
        CHECK_FALSE(quantity.expected.isEmpty());
        for (const double value : values) {
            INFO(value);
            const auto shown = quantity.print(value);
            const auto read = quantity.parse(shown);
            REQUIRE(read);
            CHECK(std::abs(*read - value) <= 0.005 * std::abs(value) + 1e-9);  // three digits are shown
            CHECK(quantity.allows(value));
            // A step up ends higher, a step down lower, unless the scale ends there.
            CHECK(quantity.step(value, 1) >= value);
            CHECK(quantity.step(value, -1) <= value);
            CHECK((quantity.step(value, 1) > value || quantity.step(value, -1) < value));
        }
        for (const char* text : refused) {
            INFO(text);
            const auto read = quantity.parse(text);
            CHECK_FALSE((read && quantity.allows(*read)));
        }
    }
}

TEST_CASE("lengths step on round numbers of their own size", "[desk][quantity]") {
    const auto length = lengthQuantity();
    CHECK_THAT(length.step(42, 1), WithinRel(44, 1e-9));
    CHECK_THAT(length.step(12, 1), WithinRel(13, 1e-9));
    CHECK_THAT(length.step(700, -1), WithinRel(650, 1e-9));
    CHECK_THAT(length.step(0.25, 1), WithinRel(0.28, 1e-9));  // steps of 0.02 from here on
}
