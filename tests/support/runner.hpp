#pragma once

/// Catch's command line, without its 18 000 lines: they are compiled once, in runner.cpp.
namespace poquito::test {
int run_tests(int argc, char** argv);
}
