#pragma once

#include <mutex>

namespace poquito::storage {

constexpr const char* plan_key = "Xmp.poquito.Plan";  // of a shoot, as a shoot file has it

/// Exiv2's XMP toolkit is set up once, and is not for two threads at a time.
std::unique_lock<std::mutex> xmp_toolkit();

}  // namespace poquito::storage
