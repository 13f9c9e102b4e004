#include "support/folder.hpp"
#include "support/runner.hpp"

/// With a data folder of this process's own: cases run side by side, and none meets another's logbook.
int main(int argc, char** argv) {
    const poquito::test::Folder own("data");
    ::setenv("XDG_DATA_HOME", own.path().c_str(), 1);
    return poquito::test::run_tests(argc, argv);
}
