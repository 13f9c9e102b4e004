#pragma once

#include "shoot/shoot.hpp"

namespace poquito::desk {

shoot::Shoot demoShoot();
/// The kit of the demo without its shots: what a new shoot starts from.
shoot::Shoot genericShoot();

}  // namespace poquito::desk
