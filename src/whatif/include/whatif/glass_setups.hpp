#pragma once

#include "plan/fwd.hpp"
#include "shoot/shoot.hpp"

#include <optional>
#include <string>

/// The two ways to light glass, as whole shots, with their sizes computed (common practice).
namespace poquito::whatif {

enum class GlassSetup {
    bright_field,  // before a lit card no larger than the field: edges go dark against white
    dark_field,    // before a dark stop that just fills the field, lit from behind past its edges: edges shine on black
};

struct GlassLit {
    std::string label;
    shoot::Shot shot;
};
/// Empty at infinity, or, for the dark field, where the kit has nothing that shines.
std::optional<GlassLit> glass_lit(const plan::Plan& plan, GlassSetup setup);

}  // namespace poquito::whatif
