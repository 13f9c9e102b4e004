#pragma once

#include "gear/kit.hpp"

#include <initializer_list>
#include <string>
#include <utility>
#include <vector>

/// An enumeration as the ids and names of a choice: the position is the value.
namespace poquito::desk {

template <typename Enum>
std::string idOf(Enum value) {
    return std::to_string(static_cast<int>(value));
}
template <typename Enum>
Enum valueOf(const std::string& id) {
    return static_cast<Enum>(std::stoi(id));
}
inline auto enumerated(std::initializer_list<const char*> names) {
    return [list = std::vector<const char*>(names)](const gear::Kit&) {
        std::vector<std::pair<std::string, std::string>> options;
        for (std::size_t i = 0; i < list.size(); ++i) options.emplace_back(std::to_string(i), list[i]);
        return options;
    };
}

}  // namespace poquito::desk
