#pragma once

#include "gear/kit.hpp"
#include "storage/json_reader.hpp"

/// Inside the layer: a kit as the `kit` member of a shoot and as a kit file hold it. Driven by gear/rows.hpp.
namespace poquito::storage {

gear::Kit read_kit(const Node& node);  // throws text::Error
Json write_kit(const gear::Kit& kit);

/// Items are objects with an id, read before; throws text::Error where one comes twice.
void check_ids_distinct(const Node& list);

/// Puts back what this version did not know: JSON text, or empty.
Json with_unknown(Json object, const std::string& unknown);

}  // namespace poquito::storage
