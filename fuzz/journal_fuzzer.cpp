// libFuzzer's target: a run's journal is read or refused, and what it says can be gone on with.
#include "run/journal.hpp"

#include <cstdlib>

using namespace poquito;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const auto read = run::journal_of({reinterpret_cast<const char*>(data), size}, "fuzzed.journal");
    const auto* state = std::get_if<run::RunState>(&read);
    if (!state) return 0;
    const auto missing = state->missing();
    if (missing.size() > state->frames.size() || state->done() > state->frames.size()) std::abort();
    for (const auto frame : missing) (void)state->plan.file_of(frame);
    for (const auto& frame : state->taken)
        if (frame.index < 0 || static_cast<std::size_t>(frame.index) >= state->frames.size()) std::abort();
    (void)run::record_of(*state);
    (void)run::damage_text(*state);
    return 0;
}
