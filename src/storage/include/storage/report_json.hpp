#pragma once

#include "advice/advice.hpp"

#include <string>
#include <vector>

namespace poquito::storage {

/// The report as JSON text, format poquito-report version 1; keys and units: docs/file-format.md (MODEL 5).
std::string write_report(const std::vector<advice::Assessment>& shots);

}  // namespace poquito::storage
