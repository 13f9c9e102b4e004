// The first corpus of the fuzzer: shoots as the tests make them up, one shot each.
#include "storage/shoot_file.hpp"
#include "support/shoots.hpp"

#include <cstdio>
#include <filesystem>

int main(int argc, char** argv) {
    using namespace poquito;
    if (argc != 2) {
        std::fprintf(stderr, "fuzz_corpus FOLDER\n");
        return 2;
    }
    const std::filesystem::path folder = argv[1];
    constexpr unsigned shoots = 60;
    for (unsigned seed = 0; seed < shoots; ++seed) {
        auto shoot = test::random_shoot(seed);
        shoot.shots.resize(1);  // the smaller a file, the more of them in an hour
        if (storage::save_shoot(shoot, folder / ("random-" + std::to_string(seed)))) return 1;
    }
    return storage::save_shoot(test::plain_shoot(), folder / "plain") ? 1 : 0;
}
