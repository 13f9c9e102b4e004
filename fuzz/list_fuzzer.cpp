// libFuzzer's target: a list of things from any spreadsheet is read, or told by line what it could not be made of.
#include "storage/things_csv.hpp"

#include <cmath>
#include <cstdlib>
#include <string_view>

using namespace poquito;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const auto read = storage::read_things_csv({reinterpret_cast<const char*>(data), size});
    const auto* list = std::get_if<storage::ThingsRead>(&read);
    if (!list) return 0;
    for (const auto& thing : list->things) {
        if (thing.name.empty()) std::abort();
        for (const double side : {thing.width, thing.height, thing.depth})
            if (!(side > 0) || !std::isfinite(side)) std::abort();
        for (const auto& flaw : thing.flaws)
            if (flaw.name.empty() || !std::isfinite(flaw.size)) std::abort();
    }
    return 0;
}
