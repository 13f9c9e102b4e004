// libFuzzer's target: whatever the bytes are, reading a shoot and working it out ends, soon, and with numbers a report
// can hold. scripts/fuzz builds and runs it.
#include "advice/advice.hpp"
#include "advice/judgement.hpp"
#include "storage/report_json.hpp"
#include "storage/shoot_file.hpp"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <iterator>
#include <random>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

using namespace poquito;
using Json = nlohmann::ordered_json;

extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* data, std::size_t size, std::size_t most);

namespace {

using Random = std::minstd_rand;

std::size_t below(Random& random, std::size_t end) { return random() % end; }

void collect(Json& json, std::vector<Json*>& all) {
    all.push_back(&json);
    if (json.is_structured())
        for (auto& member : json) collect(member, all);
}

/// The ends of the ranges that files are held to, and what lies about them.
double telling_number(Random& random, double now) {
    constexpr double numbers[] = {0,    1,    -1,     0.5,    2,     10,   100,     1e3,     1e4,  1e5,  1e6,
                                  1e7,  1e9,  86400,  1e-1,   1e-2,  1e-3, 1e-4,    1e-5,    1e-6, 1e-7, 1e-9,
                                  0.99, 30,   -30,    360,    -360,  85,   180,     1e-12,   40,   0.01, 20,
                                  2000, 1000, 5e-324, 604800, 1e300, 90,   0.99999, 1.00001, 36000};
    constexpr double factors[] = {0.5, 2, 1.0001, 0.9999, 10, 0.1, -1, 1000, 0.001};
    if (below(random, 3) == 0) return now * factors[below(random, std::size(factors))];
    return numbers[below(random, std::size(numbers))];
}

void change(Random& random, Json& document) {
    std::vector<Json*> all;
    collect(document, all);
    // Numbers are most of what there is to get wrong.
    std::vector<Json*> numbers;
    std::ranges::copy_if(all, std::back_inserter(numbers), [](const Json* json) { return json->is_number(); });
    if (!numbers.empty() && below(random, 8) != 0) {
        Json& number = *numbers[below(random, numbers.size())];
        const double made = telling_number(random, number.get<double>());
        // Whole numbers stay whole, or they would only ever be refused.
        if (number.is_number_integer() &&
            made == static_cast<double>(static_cast<std::int64_t>(std::clamp(made, -1e15, 1e15))))
            number = static_cast<std::int64_t>(made);
        else
            number = made;
        return;
    }
    Json& one = *all[below(random, all.size())];
    const Json& other = *all[below(random, all.size())];
    if (one.is_boolean()) {
        one = !one.get<bool>();
    } else if (one.is_array() && !one.empty()) {
        const auto at = one.begin() + static_cast<std::ptrdiff_t>(below(random, one.size()));
        if (below(random, 2) == 0)
            one.erase(at);
        else
            one.push_back(Json(*at));
    } else if (one.is_object() && !one.empty() && below(random, 2) == 0) {
        auto at = one.begin();
        std::advance(at, static_cast<std::ptrdiff_t>(below(random, one.size())));
        one.erase(at);
    } else if (one.type() == other.type()) {
        one = Json(other);
    } else if (below(random, 4) == 0) {
        one = nullptr;
    }
}

}  // namespace

/// Most of the time a file that still is JSON with a member or two that are not as they were; sometimes just other
/// bytes.
extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    Random random(seed + 1);
    if (below(random, 20) != 0) {
        auto document = Json::parse(data, data + size, nullptr, false);
        if (!document.is_discarded()) {
            for (auto changes = 1 + below(random, 3); changes > 0; --changes) change(random, document);
            const auto text = document.dump(-1, ' ', false, Json::error_handler_t::replace);
            if (text.size() <= most) {
                std::ranges::copy(text, data);
                return text.size();
            }
        }
    }
    return LLVMFuzzerMutate(data, size, most);
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const auto read = storage::read_shoot({reinterpret_cast<const char*>(data), size});
    const auto* shoot = std::get_if<shoot::Shoot>(&read);
    if (!shoot) return 0;
    std::vector<advice::Assessment> assessments;
    for (const auto& shot : shoot->shots) {
        assessments.push_back(advice::assessment_of(shoot->kit, shot, {}));
        if (size % 8 == 0) (void)advice::judge(shoot->kit, shot, {});  // a dozen reports each: now and then is enough
    }
    (void)storage::write_report(assessments);
    // What was read is written, and read again as what it was.
    const auto again = storage::read_shoot(storage::write_shoot(*shoot));
    const auto* back = std::get_if<shoot::Shoot>(&again);
    if (!back || !(*back == *shoot)) std::abort();
    return 0;
}
