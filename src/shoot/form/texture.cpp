#include "shoot/form/texture.hpp"

#include "shoot/subject.hpp"

namespace poquito::shoot {

const std::vector<TextureName>& textures() {
    static const std::vector<TextureName> all = {
        {Texture::usual, "as usual"},    {Texture::stone, "stone"},         {Texture::hairs, "hairs"},
        {Texture::pores, "pores"},       {Texture::weave, "weave"},         {Texture::veins, "veins"},
        {Texture::crystals, "grain"},    {Texture::scratches, "scratches"}, {Texture::print, "print"},
        {Texture::ticks, "ticks, 1 mm"},
    };
    return all;
}

Texture texture_of(const Subject& subject) {
    if (subject.texture != Texture::usual) return subject.texture;
    if (has_trait(subject, "person")) return Texture::pores;
    if (subject.form == Form::insect) return Texture::hairs;
    if (has_trait(subject, "polished")) return Texture::scratches;
    const bool grows = has_trait(subject, "living") || has_trait(subject, "outdoors");
    switch (subject.form) {
        case Form::folds:
            return Texture::weave;
        case Form::bottle:
            return Texture::print;
        case Form::box:
            return has_trait(subject, "food") ? Texture::crystals : Texture::print;
        case Form::leaf:
            return grows ? Texture::veins : Texture::pores;
        case Form::bowl:
            return grows ? Texture::veins : Texture::stone;
        default:
            return has_trait(subject, "food") ? Texture::crystals : Texture::stone;
    }
}

}  // namespace poquito::shoot
