// make_shoots FOLDER COUNT: made-up shoots, one file each, the same ones every time: what scripts/compare-reports feeds
// to two programs.
#include "storage/shoot_file.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <string>

int main(int argc, char** argv) {
    using namespace poquito;
    if (argc < 3) {
        std::fprintf(stderr, "usage: make_shoots FOLDER COUNT [SHOTS]\n");
        return 2;
    }
    const std::filesystem::path folder = argv[1];
    const auto count = static_cast<unsigned>(std::strtoul(argv[2], nullptr, 10));
    const std::size_t most = argc > 3 ? std::strtoul(argv[3], nullptr, 10) : 1000;
    for (unsigned seed = 0; seed < count; ++seed) {
        auto shoot = test::random_shoot(seed);
        if (shoot.shots.size() > most) shoot.shots.erase(most, shoot.shots.size());
        if (const auto saved = storage::save_shoot(shoot, folder / (std::to_string(seed) + ".poquito")); !saved) {
            std::fprintf(stderr, "%s\n", text::message(saved.error()).c_str());
            return 1;
        }
    }
    return 0;
}
