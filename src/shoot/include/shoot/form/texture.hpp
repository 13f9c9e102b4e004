#pragma once

#include "shoot/fwd.hpp"

#include <vector>

/// What a subject's surface is like close to: what its picture is sharp or soft of.
namespace poquito::shoot {

/// usual: as its form and traits have it.
enum class Texture { usual, stone, hairs, pores, weave, veins, crystals, scratches, print, ticks };

struct TextureName {
    Texture texture;
    const char* name;
};
/// For people; names.hpp has what files call them.
const std::vector<TextureName>& textures();

/// Never `usual`: hairs on insects, weave of folds, scratches of what is polished and so on (common practice).
Texture texture_of(const Subject& subject);

}  // namespace poquito::shoot
