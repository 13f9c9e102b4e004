#pragma once

#include "proof/inspection.hpp"

#include <string>

namespace poquito::proof {

/// poquito-inspection, as MODEL 5 has it.
std::string inspection_json(const Inspection& inspection);

/// A line each without its end, for frames that are told of as they come: one of `frames`; {"stack": ..., "verdict":
/// ...}.
std::string frame_json(const FrameFacts& frame);
std::string stack_json(const Inspection& inspection);

}  // namespace poquito::proof
