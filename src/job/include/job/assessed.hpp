#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <vector>

namespace poquito::job {

/// A shot with its facts; one a shot of the shoot, in its order. Lives as long as both.
struct Assessed {
    const plan::Plan* plan = nullptr;
    const plan::Report* report = nullptr;
};
using AllAssessed = std::vector<Assessed>;

}  // namespace poquito::job
