#include "shoot/staging.hpp"

#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace poquito::shoot {
namespace {

Staged made(const char* name, StagedRole role, Form form, Texture texture, double width, double height, double depth,
            double reflectance, text::Colour colour, bool lies = false) {
    Staged staged{.id = {}, .name = name, .role = role, .subject = {}, .lies = lies, .unknown = {}};
    auto& subject = staged.subject;
    subject.form = form, subject.texture = texture;
    subject.width = width, subject.height = height, subject.depth = depth;
    subject.reflectance = reflectance, subject.colour = colour;
    return staged;
}

}  // namespace

Staged rule_of(double length) {
    const double high = std::max(4.0, length / 6);
    auto rule = made("", StagedRole::scale, Form::slab, Texture::ticks, length, high, 0.5, 0.8, {0xf2, 0xf0, 0xe6});
    rule.name = fmt::format("Rule, {} mm", text::number_text(length, 4));
    return rule;
}

const Staged* rule_in(const std::vector<Staged>& staging) {
    const auto found = std::ranges::find_if(staging, [](const Staged& one) {
        return one.role == StagedRole::scale && one.subject.texture == Texture::ticks;
    });
    return found == staging.end() ? nullptr : &*found;
}

std::vector<Staged> usual_props() {
    using enum StagedRole;
    return {made("Piece of toffee", repeat, Form::slab, Texture::pores, 34, 20, 14, 0.35, {0xc0, 0x83, 0x2e}),
            made("Crumbs", repeat, Form::grains, Texture::crystals, 40, 8, 20, 0.4, {0xc9, 0x96, 0x4a}),
            made("Slate", plate, Form::slab, Texture::stone, 400, 260, 6, 0.08, {0x4a, 0x50, 0x56}, true),
            made("Wooden board", plate, Form::slab, Texture::veins, 380, 240, 15, 0.3, {0x9a, 0x6b, 0x3f}, true),
            made("Plate", plate, Form::slab, Texture::scratches, 220, 220, 12, 0.75, {0xf0, 0xee, 0xe8}, true),
            made("Linen cloth", cloth, Form::folds, Texture::weave, 260, 180, 12, 0.5, {0xc8, 0xbf, 0xae}, true),
            made("Sprig", prop, Form::leaf, Texture::veins, 90, 60, 6, 0.2, {0x5e, 0x7f, 0x4a}),
            made("Glass jar", prop, Form::bottle, Texture::scratches, 70, 110, 70, 0.3, {0xb8, 0xc4, 0xc0}),
            made("Spoon", prop, Form::slab, Texture::scratches, 150, 12, 6, 0.6, {0xc4, 0xc2, 0xbc}),
            made("Pebble", prop, Form::ball, Texture::stone, 40, 26, 34, 0.25, {0x8a, 0x86, 0x80}),
            rule_of(50),
            made("Grey patch", scale, Form::slab, Texture::usual, 30, 20, 1, 0.18, {0x77, 0x77, 0x77}),
            made("White card", card, Form::slab, Texture::usual, 100, 140, 2, 0.9, {0xf6, 0xf6, 0xf4}),
            made("Black card", card, Form::slab, Texture::usual, 100, 140, 2, 0.05, {0x20, 0x20, 0x20})};
}

}  // namespace poquito::shoot

template class std::vector<poquito::shoot::Staged>;
