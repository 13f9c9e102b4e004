#define CATCH_CONFIG_RUNNER
#include "support/runner.hpp"

#include <catch2/catch.hpp>

int poquito::test::run_tests(int argc, char** argv) {
    Catch::Session session;
    if (const int wrong = session.applyCommandLine(argc, argv); wrong != 0) return wrong;
    // A name that finds no case has failed: a case that is never run passes for ever.
    auto& config = session.configData();
    config.warnings = static_cast<Catch::WarnAbout::What>(config.warnings | Catch::WarnAbout::NoTests);
    return session.run();
}

#include "support/json_once.hpp"

template class nlohmann::basic_json<>;
template class nlohmann::basic_json<nlohmann::ordered_map>;
template class nlohmann::detail::serializer<nlohmann::json>;
template class nlohmann::detail::serializer<nlohmann::ordered_json>;
