#pragma once

#include "desk/toolkit/quantity.hpp"
#include "gear/rows.hpp"

namespace poquito::desk {

/// For a member of a gear record, within its rule.
Quantity quantityOf(const gear::FieldSpec& spec);

}  // namespace poquito::desk
