#pragma once

#include "advice/plans.hpp"

#include <string>
#include <vector>

namespace poquito::storage {

/// Whole plans as JSON text, format poquito-plans version 1, in the order given; docs/file-format.md (MODEL 5).
std::string write_plans(const std::vector<advice::WholePlan>& plans);

}  // namespace poquito::storage
