#include "cli/commands.hpp"
#include "cli/common.hpp"
#include "proof/incoming.hpp"
#include "proof/inspection.hpp"
#include "proof/inspection_json.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <optional>
#include <thread>

namespace poquito::cli {
namespace {

/// One JSON object a line: each frame as it comes, by itself; the stack that they make whenever none came for a while.
/// Until interrupted, or until none came for `request.quiet` seconds.
int watch(const InspectRequest& request, proof::Request wanted) {
    using namespace std::chrono;
    if (request.frames.size() != 1 || !std::filesystem::is_directory(request.frames.front()))
        return complain({request.frames.front(), "is watched only where it is one folder"});
    take_interrupts();
    proof::Incoming incoming(request.frames.front(), true);
    std::vector<proof::FrameFacts> seen;
    wanted.files.clear();
    auto last = steady_clock::now();
    bool told = true;  // of the stack
    while (!interrupted()) {
        for (const auto& file : incoming.whole()) {
            // One that was not whole before takes the place it had.
            const auto had = std::ranges::find(wanted.files, file);
            const auto at = static_cast<std::size_t>(had - wanted.files.begin());
            if (had == wanted.files.end()) wanted.files.push_back(file), seen.emplace_back();
            seen[at] = proof::look_at(file);
            auto alone = wanted;
            alone.singles = true;
            // Beside those before it, for what most of them have.
            if (const auto judged = proof::judge(seen, alone))
                fmt::print("{}\n", proof::frame_json(judged->frames[at]));
            std::fflush(stdout);
            last = steady_clock::now();
            told = false;
        }
        const double quiet = duration<double>(steady_clock::now() - last).count();
        constexpr double a_while = 2;  // s
        if (!told && !request.singles && seen.size() > 1 && quiet >= a_while && !incoming.any_growing()) {
            if (const auto judged = proof::judge(seen, wanted, [] { return !interrupted(); }); judged && judged->stack)
                fmt::print("{}\n", proof::stack_json(*judged));
            std::fflush(stdout);
            told = true;
        }
        if (request.quiet > 0 && quiet >= request.quiet && (told || request.singles || seen.size() < 2)) return done;
        std::this_thread::sleep_for(milliseconds(200));
    }
    return done;
}

}  // namespace

int inspect_frames(const InspectRequest& request) {
    std::optional<shoot::Shoot> shoot;
    proof::Request wanted{.files = {request.frames.begin(), request.frames.end()}, .singles = request.singles};
    if (!request.shoot.empty()) {
        shoot = load(request.shoot);
        if (!shoot) return bad_input;
        wanted.shot = find_shot(*shoot, request.shot);
        if (!wanted.shot) return bad_input;
        wanted.kit = &shoot->kit;
        wanted.terms = shoot::terms_of(*shoot, *wanted.shot);
    }
    if (request.watch) return watch(request, std::move(wanted));
    if (wanted.shot && !request.no_book && refuses_book(request.book)) return bad_input;
    const auto inspection = proof::inspect(wanted, [&](std::size_t done, std::size_t all) {
        fmt::print(stderr, "\r{} of {} frames{}", done, all, done == all ? "\n" : "");
        return true;
    });
    if (!inspection) return broke_off;
    if (!inspection->any_readable()) {
        for (const auto& frame : inspection->frames)
            for (const auto& finding : frame.findings) fmt::print(stderr, "{}\n", finding.text);
        return bad_input;
    }
    fmt::print("{}", proof::inspection_json(*inspection));
    if (wanted.shot && !request.no_book) enter_inspection(request.book, *shoot, *wanted.shot, *inspection);
    return done;
}

}  // namespace poquito::cli
