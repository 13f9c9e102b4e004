#include "support/runner.hpp"

int main(int argc, char** argv) { return poquito::test::run_tests(argc, argv); }
