#define CATCH_CONFIG_RUNNER
#include "support/runner.hpp"

#include <catch2/catch.hpp>

int poquito::test::run_tests(int argc, char** argv) { return Catch::Session().run(argc, argv); }
