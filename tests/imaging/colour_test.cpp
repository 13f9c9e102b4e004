#include "imaging/colour.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using namespace imaging;
using test::WithinAbs;

TEST_CASE("CIE L*a*b* of screen colours", "[imaging][colour]") {
    // Recomputed with scikit-image 0.19, skimage.color.rgb2lab, D65, 2 degree observer.
    const struct {
        Colour colour;
        double lightness, a, b;
    } table[] = {{{255, 255, 255}, 100.000, -0.002, 0.005}, {{255, 0, 0}, 53.241, 80.092, 67.203},
                 {{0, 255, 0}, 87.735, -86.183, 83.180},    {{0, 0, 255}, 32.296, 79.186, -107.857},
                 {{128, 128, 128}, 53.585, -0.001, 0.003},  {{79, 154, 143}, 58.747, -26.106, -1.417},
                 {{10, 20, 5}, 5.201, -5.922, 5.628}};
    for (const auto& row : table) {
        const auto lab = lab_of(row.colour);
        INFO(int(row.colour.red) << " " << int(row.colour.green) << " " << int(row.colour.blue));
        CHECK_THAT(lab.lightness, WithinAbs(row.lightness, 0.05));  // skimage carries one more digit of the matrices
        CHECK_THAT(lab.a, WithinAbs(row.a, 0.1));
        CHECK_THAT(lab.b, WithinAbs(row.b, 0.1));
    }
}

TEST_CASE("a colour by lightness, chroma and hue comes back, as far as a screen can show it", "[imaging][colour]") {
    for (int red = 0; red < 256; red += 51)
        for (int green = 0; green < 256; green += 51)
            for (int blue = 0; blue < 256; blue += 51) {
                const Colour colour{static_cast<std::uint8_t>(red), static_cast<std::uint8_t>(green),
                                    static_cast<std::uint8_t>(blue)};
                const auto lab = lab_of(colour);
                const auto back = nearest_colour({.lightness = lab.lightness, .chroma = chroma(lab), .hue = hue(lab)});
                CHECK(difference(lab, lab_of(back)) < 1.5);
            }
    const auto asked_too_much = lab_of(nearest_colour({.lightness = 50, .chroma = 500, .hue = 200}));
    CHECK_THAT(asked_too_much.lightness, WithinAbs(50, 1.5));
    CHECK_THAT(hue(asked_too_much), WithinAbs(200, 3));
}

TEST_CASE("cards set a subject off: the opposite hue is half a turn away, neighbours a twelfth beside it",
          "[imaging][colour]") {
    for (const Colour subject : {Colour{79, 154, 143}, Colour{217, 130, 43}, Colour{122, 74, 43}}) {
        const auto cards = card_colours(subject);
        REQUIRE(cards.size() == 6);
        const auto turned = [&](const CardColour& card) {
            const double turn = std::abs(hue(lab_of(card.colour)) - hue(lab_of(subject)));
            return std::min(turn, 360 - turn);
        };
        CHECK_THAT(turned(cards[0]), WithinAbs(180, 6));
        CHECK_THAT(turned(cards[1]), WithinAbs(150, 8));
        CHECK_THAT(turned(cards[2]), WithinAbs(150, 8));
        for (const auto& card : cards) CHECK(card.difference > 25);  // seen at a glance
    }
    for (const auto& card : card_colours({128, 128, 128})) CHECK(chroma(lab_of(card.colour)) < 2);
}
