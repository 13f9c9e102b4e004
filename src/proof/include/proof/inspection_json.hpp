#pragma once

#include "proof/inspection.hpp"

#include <string>

namespace poquito::proof {

/// poquito-inspection, as MODEL 5 has it.
std::string inspection_json(const Inspection& inspection);

}  // namespace poquito::proof
