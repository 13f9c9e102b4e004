#pragma once

#include "shoot/limits.hpp"
#include "shoot/wishes.hpp"

namespace poquito::shoot {

/// What a shot is planned by besides its gear: how far its photographer goes, and what the picture is to look like.
struct Terms {
    Limits limits;
    Wishes wishes;

    bool operator==(const Terms&) const = default;
};

}  // namespace poquito::shoot
