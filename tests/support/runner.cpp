#define CATCH_CONFIG_RUNNER
#include "support/runner.hpp"

#include <catch2/catch.hpp>

int poquito::test::run_tests(int argc, char** argv) { return Catch::Session().run(argc, argv); }

#include "support/json_once.hpp"

template class nlohmann::basic_json<>;
template class nlohmann::basic_json<nlohmann::ordered_map>;
template class nlohmann::detail::serializer<nlohmann::json>;
template class nlohmann::detail::serializer<nlohmann::ordered_json>;
