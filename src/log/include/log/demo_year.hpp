#pragma once

#include "log/entry.hpp"
#include "shoot/shoot.hpp"

#include <vector>

namespace poquito::log {

/// A year of work that never was, with the shots of a shoot, up to `year`'s end: to look at a full book by. Every entry
/// says that it is made up. The same seed gives the same.
std::vector<Entry> demo_year(const shoot::Shoot& shoot, int year, unsigned seed = 1);

}  // namespace poquito::log
