#pragma once

#include <optional>
#include <string_view>

namespace poquito::text {

/// Seconds of an ISO 8601 local time, "2026-11-28T10:15:03.25", from a day that does not matter; empty: it is none.
/// Whatever the locale has for a decimal point.
std::optional<double> seconds_of(std::string_view time);

}  // namespace poquito::text
