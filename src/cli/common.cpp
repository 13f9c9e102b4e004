#include "cli/common.hpp"

#include "cli/commands.hpp"
#include "storage/shoot_file.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <csignal>
#include <cstdio>

namespace poquito::cli {
namespace {

volatile std::sig_atomic_t noted = 0;
extern "C" void note_interrupt(int) { noted = 1; }

}  // namespace

void take_interrupts() {
    std::signal(SIGINT, note_interrupt);
    std::signal(SIGTERM, note_interrupt);
}

bool interrupted() { return noted != 0; }

int complain(const text::Error& error) {
    fmt::print(stderr, "{}\n", text::message(error));
    return bad_input;
}

/// Empty after having complained.
std::optional<shoot::Shoot> load(const std::string& file) {
    auto loaded = storage::load_shoot(file);
    if (!loaded) {
        complain(loaded.error());
        return std::nullopt;
    }
    return std::move(*loaded);
}

const shoot::Shot* find_shot(const shoot::Shoot& shoot, const std::string& id) {
    const auto found = std::ranges::find(shoot.shots, id, &shoot::Shot::id);
    if (found != shoot.shots.end()) return &*found;
    std::string known;
    for (const auto& shot : shoot.shots) known += (known.empty() ? "" : ", ") + shot.id;
    fmt::print(stderr, "got shot \"{}\", expected one of {}\n", id, known);
    return nullptr;
}

}  // namespace poquito::cli
