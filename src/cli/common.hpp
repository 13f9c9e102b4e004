#pragma once

#include "shoot/shoot.hpp"
#include "text/error.hpp"

#include <optional>
#include <string>

/// What the commands share.
namespace poquito::cli {

/// Says what is wrong; gives the exit status for it.
int complain(const text::Error& error);

/// Empty after having complained.
std::optional<shoot::Shoot> load(const std::string& file);
const shoot::Shot* find_shot(const shoot::Shoot& shoot, const std::string& id);

/// From now on an interrupt (SIGINT, SIGTERM) is only noted.
void take_interrupts();
bool interrupted();

}  // namespace poquito::cli
