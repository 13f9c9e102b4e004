#pragma once

#include <nlohmann/json.hpp>

#include <cmath>
#include <cstdint>
#include <optional>

namespace poquito::storage {

/// A number in its shortest form that reads back equal: whole numbers without ".0". What is not finite becomes null.
inline nlohmann::ordered_json json_number(double value) {
    constexpr double exact = 9007199254740992.0;  // 2^53
    if (!std::isfinite(value)) return nullptr;
    if (value == std::floor(value) && std::abs(value) < exact && !(value == 0 && std::signbit(value)))
        return static_cast<std::int64_t>(value);
    return value;
}

inline nlohmann::ordered_json json_number(const std::optional<double>& value) {
    return value ? json_number(*value) : nlohmann::ordered_json(nullptr);
}

}  // namespace poquito::storage
