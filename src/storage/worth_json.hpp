#pragma once

#include "advice/worth/worth.hpp"
#include "storage/json_number.hpp"

#include <nlohmann/json.hpp>

namespace poquito::storage {

/// {"worth", "parts": [{"quality", "measure", "kept", "weight"}]}; what can be taken at all has no part that says so.
inline nlohmann::ordered_json write_worth(const advice::Worth& worth) {
    auto parts = nlohmann::ordered_json::array();
    for (const auto& part : worth.parts) {
        if (part.quality == advice::Quality::possible && part.kept > 0) continue;
        // What is measured by wishes alone.
        if ((part.quality == advice::Quality::lit || part.quality == advice::Quality::movement) && !(part.measure > 0))
            continue;
        parts.push_back({{"quality", advice::row_of(part.quality).id},
                         {"measure", json_number(part.measure)},
                         {"kept", json_number(part.kept)},
                         {"weight", json_number(part.weight)}});
    }
    return {{"worth", json_number(worth.worth)}, {"parts", std::move(parts)}};
}

}  // namespace poquito::storage
