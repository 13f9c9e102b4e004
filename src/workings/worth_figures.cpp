#include "advice/worth/worth.hpp"
#include "sheet.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace poquito::workings {
namespace {

constexpr double unnoticed = 0.95;  // kept of which nobody says that it is lost

std::string percent(double share) { return fmt::format("{:.0f}", share * 100); }

}  // namespace

/// What the plan is worth, and each thing it gives up for it: the judgement explains itself.
void Sheet::worth() {
    station_ = advice::Station::subject;
    const auto worth = advice::worth_of(plan_, report_);
    std::vector<std::string> factors;
    Bindings kept;
    for (const auto& part : worth.parts) {
        if (part.kept >= 1 - 1e-9) continue;
        const char* id = advice::row_of(part.quality).id;
        factors.push_back(part.weight == 1 ? id : fmt::format("{} ^ {}", id, part.weight));
        kept.push_back({id, part.kept});
    }
    add("worth", "Worth of this plan", percent(worth.worth), "%").working =
        working("worth", factors.empty() ? "1" : fmt::format("{}", fmt::join(factors, " * ")), kept, worth.worth, {},
                "what is kept of each thing that is weighed; exponents from your order of giving up (common practice)");
    for (const auto& part : worth.parts) {
        if (part.kept >= unnoticed) continue;
        const auto& row = advice::row_of(part.quality);
        auto& figure = add(fmt::format("worth_{}", row.id).c_str(), fmt::format("\u2026 {}", row.name),
                           percent(part.kept), "% kept");
        if (part.quality == advice::Quality::possible)
            figure.working = working("possible", "0", {}, 0, {}, "it cannot be taken so: the notes say why");
        else if (part.quality == advice::Quality::odds)
            figure.working =
                working("odds", "1 - (1 - P) ^ n", {{"P", worth.one_try}, {"n", worth.most_tries}}, part.kept, {},
                        fmt::format("P of one try, n tries in {}", text::time_text(worth.patience * 60)));
        else if (part.felt > 0)
            figure.working = working(row.id, "1 / (1 + (x / sqrt(a * b)) ^ (2 * log2(9) / log2(b / a)))",
                                     {{"x", part.measure}, {"a", part.felt}, {"b", part.spoilt}}, part.kept, {},
                                     fmt::format("x in {}: felt at {}, spoilt at {} (common practice)", row.unit,
                                                 text::number_text(part.felt, 2), text::number_text(part.spoilt, 2)));
    }
}

}  // namespace poquito::workings
