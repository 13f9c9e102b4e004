#pragma once

#include "gear/kit.hpp"

#include <vector>

/// Of the generic catalogue (data/catalogue.json), as the build found it: what can be put behind or before any lens.
namespace poquito::search {

const std::vector<gear::Tube>& sold_tubes();
const std::vector<gear::CloseupLens>& sold_closeup_lenses();

}  // namespace poquito::search
