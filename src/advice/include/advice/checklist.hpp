#pragma once

#include "plan/fwd.hpp"
#include "shoot/fwd.hpp"

#include <string>
#include <vector>

namespace poquito::advice {

/// One thing to look at before the first frame. `id` is what the file stores when it is ticked.
struct ChecklistItem {
    std::string id;
    std::string text;
    std::string why;  // what goes wrong without it
};

/// What this plan makes worth checking, in the order one does it.
std::vector<ChecklistItem> make_checklist(const plan::Plan& plan, const plan::Report& report);

bool is_ticked(const shoot::Shot& shot, const std::string& item_id);
bool all_ticked(const shoot::Shot& shot, const std::vector<ChecklistItem>& checklist);

}  // namespace poquito::advice
