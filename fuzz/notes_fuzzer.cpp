// libFuzzer's target: whatever was written by hand in the field is an entry or a line that says why not, and what was
// read is a log that can be written and read again.
#include "log/exchange.hpp"
#include "log/field_notes.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cstdlib>
#include <string_view>

using namespace poquito;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const auto shoot = test::plain_shoot();
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    const auto notes =
        log::read_field_notes(text, shoot, "2026-05-01", [](const shoot::Shot&) { return std::string(); });
    const auto lines = static_cast<std::size_t>(std::ranges::count(text, '\n')) + 1;
    if (notes.entries.size() > lines || notes.unplaced.size() > 2 * lines) std::abort();
    const auto back = log::read_json(log::write_json(notes.entries));
    if (!std::holds_alternative<std::vector<log::Entry>>(back)) std::abort();
    return 0;
}
