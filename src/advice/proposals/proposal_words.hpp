#pragma once

#include "advice/proposals/proposals.hpp"

#include <string>
#include <vector>

/// What a proposal gives up, and why it stands where it stands, for people.
namespace poquito::advice {

std::vector<GivenUp> given_up(const Proposal& made);
std::string sentence_of(const Proposal& made);
/// Of proposals in their order.
void say_why(std::vector<Proposal>& plans);

}  // namespace poquito::advice
