#pragma once

#include "shoot/shoot.hpp"
#include "support/random.hpp"

namespace poquito::test {

/// One camera, one symmetric 100 mm macro lens, one flash; a shot at half life size. Numbers that can be checked by
/// head.
shoot::Shoot plain_shoot();

/// A light of plain_shoot's flash, half a metre away.
shoot::Light plain_light();

/// Each of them said or not.
shoot::Wishes random_wishes(Random& random);

/// Three shots on plain_shoot's gear with every member of the document at random, optional ones there or not.
shoot::Shoot random_shoot(unsigned seed);

}  // namespace poquito::test
