// What cases teach, against numbers worked out elsewhere.
#include "log/lessons.hpp"

#include "support/matchers.hpp"
#include "support/random.hpp"

#include <boost/math/quadrature/gauss_kronrod.hpp>

#include <algorithm>
#include <cmath>

using namespace poquito;
using log::Entry;
using log::Kind;
using log::Lesson;
using log::Topic;
using test::same;
using test::WithinAbs;

namespace {

const Lesson* lesson(const std::vector<Lesson>& all, Topic topic, const std::string& about) {
    for (const auto& one : all)
        if (one.topic == topic && one.about == about) return &one;
    return nullptr;
}

}  // namespace

TEST_CASE("a mean and its interval are those of Student's table, and a prior fades", "[log][lessons]") {
    // Student's own sleep data (Biometrika 1908): mean 2.33, standard deviation 2.002 of ten.
    const std::vector<double> sleep = {1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4};
    const auto mean = *log::mean_of(sleep);
    CHECK_THAT(mean.value, WithinAbs(2.33, 1e-9));
    CHECK_THAT(mean.spread, WithinAbs(2.002, 5e-4));
    // t for nine of ten and nine degrees of freedom: 1.833 in any table of it.
    CHECK_THAT(mean.high - mean.value, WithinAbs(1.833 * 2.002 / std::sqrt(10.0), 2e-3));
    CHECK_THAT(mean.value - mean.low, same(mean.high - mean.value));
    CHECK_FALSE(log::mean_of({}));
    CHECK_THAT(log::mean_of({}, log::Prior{.value = 4, .cases = 3})->value, same(4));
    CHECK(std::isinf(log::mean_of({1})->high));
    // Three cases' worth of 0 against n of 1.
    for (const int n : {1, 3, 30, 3000})
        CHECK_THAT(
            log::mean_of(std::vector<double>(static_cast<std::size_t>(n), 1.0), log::Prior{.value = 0, .cases = 3})
                ->value,
            same(n / (n + 3.0)));
}

TEST_CASE("of a thousand samples nine of ten intervals hold what is true", "[log][lessons]") {
    test::Random random(3);
    int means = 0, shares = 0;
    constexpr int samples = 1000;
    for (int s = 0; s < samples; ++s) {
        std::vector<double> cases;
        for (int i = 0; i < 6; ++i) {
            double sum = 0;
            for (int k = 0; k < 12; ++k) sum += random.between(-0.5, 0.5);  // about normal
            cases.push_back(0.4 + 0.3 * sum);
        }
        const auto mean = *log::mean_of(cases);
        means += mean.low <= 0.4 && 0.4 <= mean.high;
        int kept = 0;
        for (int i = 0; i < 40; ++i) kept += random.coin(0.3);
        const auto share = log::share_of(kept, 40);
        shares += share.low <= 0.3 && 0.3 <= share.high;
    }
    CHECK(std::abs(means - 900) < 40);
    CHECK(std::abs(shares - 900) < 40);
}

TEST_CASE("a share lies where its beta distribution does", "[log][lessons]") {
    for (const auto& [kept, tried] : {std::pair(3.0, 40.0), {0.0, 12.0}, {7.0, 7.0}}) {
        const auto share = log::share_of(kept, tried);
        // Its density, integrated.
        const double a = kept + 0.5, b = tried - kept + 0.5;
        const auto below = [&](double to) {
            const auto density = [&](double x) {
                return std::exp((a - 1) * std::log(x) + (b - 1) * std::log1p(-x) - std::lgamma(a) - std::lgamma(b) +
                                std::lgamma(a + b));
            };
            return boost::math::quadrature::gauss_kronrod<double, 61>::integrate(density, 1e-12, to, 15, 1e-9);
        };
        CAPTURE(kept, tried);
        CHECK_THAT(below(share.low), WithinAbs(0.05, 2e-4));
        CHECK_THAT(below(share.high), WithinAbs(0.95, 2e-4));
        CHECK_THAT(share.value, same(a / (a + b)));
    }
}

TEST_CASE("lessons come of entries, by unit and class, way and support, change, lens", "[log][lessons]") {
    std::vector<Entry> entries;
    const auto add = [&](Kind kind) -> Entry& {
        auto& entry = entries.emplace_back();
        entry.kind = kind;
        entry.subject_class = "coin";
        return entry;
    };
    for (const double stops : {0.4, 0.6, 0.5, 0.5}) {
        auto& entry = add(Kind::correction);
        entry.unit = "Compact flash", entry.modifier = "Softbox", entry.stops = stops;
    }
    add(Kind::correction).unit = "Other flash";  // without its number it says nothing
    for (int i = 0; i < 4; ++i) {
        auto& entry = add(Kind::count);
        entry.subject_class = "insect", entry.support = "hand", entry.approach = "bursts by hand";
        entry.kept = 2, entry.tried = 10;
    }
    for (const double minutes : {8.0, 8.0, 8.0}) {
        auto& entry = add(Kind::change);
        entry.what = "light", entry.minutes = minutes;
    }
    for (int i = 0; i < 12; ++i) {
        auto& entry = add(Kind::proof);
        entry.lens = "90 mm macro 1:1";
        entry.approach = i % 2 == 0 ? "stack by rail" : "one frame";
        entry.verdict = i % 2 == 0 || i == 1 ? "keep" : "redo";
        entry.f_number = i % 2 == 0 ? 5.6 : 11, entry.planned_f_number = 8;
        if (i % 2 != 0) continue;
        auto& seen = add(Kind::inspection);
        seen.lens = "90 mm macro 1:1", seen.what = "depth", seen.value = 1.2, seen.planned = 1;
    }
    // A flash that fell behind twice, and another that never did.
    for (const int held : {9, 11, 20}) {
        auto& entry = add(Kind::run);
        entry.unit = "Compact flash", entry.power = 1.0 / 16, entry.frames = 20, entry.held = held, entry.cadence = 2;
        auto& other = add(Kind::run);
        other.unit = "Studio flash", other.power = 1.0 / 16, other.frames = held, other.held = held;
    }
    for (const double step : {0.1, 0.12}) {
        auto& entry = add(Kind::calibration);
        entry.camera = "Body", entry.lens = "Macro", entry.what = "steps", entry.value = step;
    }
    for (const double minutes : {2.0, 2.0, 2.0}) {
        auto& entry = add(Kind::change);
        entry.what = "sorting", entry.minutes = minutes, entry.frames = 12;
    }
    // Two days of two hours, with four shots kept and with one.
    for (int i = 0; i < 4; ++i) {
        for (const char* day : {"2026-11-01", "2026-11-02"}) {
            auto& entry = add(Kind::proof);
            entry.shoot = "S", entry.shot = std::to_string(day[9] == '1' ? i : 0), entry.verdict = "keep";
            entry.time = std::string(day) + (i == 0 ? "T09:00:00" : "T11:00:00");
        }
    }
    const auto all = log::lessons_of(entries);
    const auto* exposure = lesson(all, Topic::exposure, "Compact flash, Softbox, coin");
    REQUIRE(exposure);
    CHECK(exposure->cases == 4);
    CHECK_THAT(exposure->value, same(4 * 0.5 / 6));
    const auto* odds = lesson(all, Topic::odds, "insect, bursts by hand, hand");
    REQUIRE(odds);
    CHECK(odds->cases == 40);
    CHECK_THAT(odds->value, same(8.5 / 41));
    const auto* change = lesson(all, Topic::change, "light");
    REQUIRE(change);
    CHECK_THAT(change->value, same(std::sqrt(8 * 4.0)));  // half way by factors: three cases against three
    CHECK(change->what == "light");
    const auto* stop = lesson(all, Topic::stop, "coin, 90 mm macro 1:1");
    REQUIRE(stop);
    CHECK(stop->value == 5.6);
    CHECK(stop->text.find("planned most at f/8") != std::string::npos);
    const auto* depth = lesson(all, Topic::depth, "coin, 90 mm macro 1:1");
    REQUIRE(depth);
    CHECK_THAT(depth->value, same((6 * 1.2 + 2) / 8));
    const auto* approach = lesson(all, Topic::approach, "coin");
    REQUIRE(approach);
    CHECK(approach->what == "stack by rail");
    CHECK(approach->text.find("won") != std::string::npos);
    const auto* flash = lesson(all, Topic::flash, "Compact flash at 1/16");
    REQUIRE(flash);
    CHECK_THAT(flash->value, same(10));  // of the two in which it fell behind
    CHECK(flash->what == "behind");
    CHECK(flash->text.find("a frame every 2 s") != std::string::npos);
    CHECK(lesson(all, Topic::flash, "Studio flash at 1/16")->text.find("never fell behind, in 20 frames") == 0);
    CHECK_THAT(lesson(all, Topic::steps, "Body, Macro")->value, same(0.11));
    CHECK_THAT(lesson(all, Topic::work, "sorting")->value, same(std::sqrt(10.0 * 5)));  // 10 s a frame against 5
    CHECK_FALSE(lesson(all, Topic::change, "sorting"));
    CHECK_THAT(lesson(all, Topic::pace, "all shoots")->value, same(std::sqrt(2 * 0.5)));
    CHECK(std::ranges::is_sorted(all, {}, &Lesson::topic));
    CHECK(log::lessons_of({}).empty());
    CHECK(*log::most_used({8, 8.1, 5.6, 11}) == 8);
    CHECK_FALSE(log::most_used({}));
}
