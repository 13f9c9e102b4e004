#pragma once

#include "advice/proposals/proposals.hpp"

#include <string>
#include <vector>

namespace poquito::storage {

/// Whole plans as JSON text, format poquito-plans version 1, in the order given; docs/file-format.md (MODEL 5).
std::string write_plans(const std::vector<advice::Proposal>& plans);

}  // namespace poquito::storage
