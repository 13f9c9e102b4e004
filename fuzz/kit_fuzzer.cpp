// libFuzzer's target: a bag of gear, JSON or CSV by its first letter, is read or refused, and what was read is written
// and read again as what it was.
#include "storage/kit_file.hpp"

#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string_view>
#include <variant>

using namespace poquito;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    const bool json = !text.empty() && text.front() == '{';
    const auto read = json ? storage::read_kit_json(text) : storage::read_kit_csv(text);
    const auto* kit = std::get_if<gear::Kit>(&read);
    if (!kit) return 0;
    const auto again = json ? storage::read_kit_json(storage::write_kit_json(*kit))
                            : storage::read_kit_csv(storage::write_kit_csv(*kit));
    const auto* back = std::get_if<gear::Kit>(&again);
    if (!back || !(*back == *kit)) std::abort();
    return 0;
}
