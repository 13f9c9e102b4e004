#pragma once

#include <nlohmann/json.hpp>

/// The library's two documents, compiled once for all tests (in runner.cpp) and not again wherever they are used.
extern template class nlohmann::basic_json<>;
extern template class nlohmann::basic_json<nlohmann::ordered_map>;
extern template class nlohmann::detail::serializer<nlohmann::json>;
extern template class nlohmann::detail::serializer<nlohmann::ordered_json>;
