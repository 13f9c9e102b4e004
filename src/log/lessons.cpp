#include "log/lessons.hpp"

#include "text/text.hpp"

#include <fmt/format.h>
#include <boost/math/distributions/beta.hpp>
#include <boost/math/distributions/students_t.hpp>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <limits>
#include <map>
#include <numeric>
#include <set>
#include <utility>

namespace poquito::log {
namespace {

constexpr double inside = 0.9;  // of what an interval says

std::string joined(const std::vector<std::string>& parts) {
    std::string text;
    for (const auto& part : parts)
        if (!part.empty()) text += fmt::format("{}{}", text.empty() ? "" : ", ", part);
    return text;
}

/// Of each group of entries by what `key` says of them; those without are left out.
template <typename Key>
std::map<std::string, std::vector<const Entry*>> groups_of(const std::vector<Entry>& entries, Kind kind, Key key) {
    std::map<std::string, std::vector<const Entry*>> groups;
    for (const auto& entry : entries)
        if (entry.kind == kind)
            if (auto name = key(entry); !name.empty()) groups[std::move(name)].push_back(&entry);
    return groups;
}

template <typename Number>
std::vector<double> numbers_of(const std::vector<const Entry*>& entries, std::optional<Number> Entry::*member) {
    std::vector<double> numbers;
    for (const auto* entry : entries)
        if (entry->*member) numbers.push_back(static_cast<double>(*(entry->*member)));
    return numbers;
}

std::string interval_text(double low, double high, const std::string& unit, int digits = 2) {
    if (!std::isfinite(low) || !std::isfinite(high)) return "one case says nothing of how far it scatters";
    return fmt::format("{} to {}{} in nine of ten", text::number_text(low, digits), text::number_text(high, digits),
                       unit);
}

using Group = std::vector<const Entry*>;

/// What a lesson is of, by the first of its entries: they have in common what they are grouped by.
Lesson lesson_of(Topic topic, const std::string& about, const Group& group, const Mean& mean, std::string text) {
    const Entry& first = *group.front();
    return {.topic = topic,
            .about = about,
            .text = std::move(text),
            .cases = mean.cases,
            .value = mean.value,
            .low = mean.low,
            .high = mean.high,
            .what = first.what,
            .subject_class = first.subject_class,
            .unit = first.unit,
            .modifier = first.modifier,
            .lens = first.lens};
}
Mean mean_of_share(const Share& share, std::size_t cases) {
    return {.cases = cases, .value = share.value, .low = share.low, .high = share.high};
}

void teach_exposure(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    const auto groups = groups_of(entries, Kind::correction, [](const Entry& e) {
        return e.stops ? joined({e.unit, e.modifier, e.subject_class}) : std::string();
    });
    for (const auto& [about, group] : groups) {
        // Units differ from their records by a third of a stop this way or that (common practice): two cases' worth.
        const auto mean = *mean_of(numbers_of(group, &Entry::stops), Prior{.value = 0, .cases = 2});
        if (mean.cases < 2) continue;
        const auto scatters =
            std::isfinite(mean.low)
                ? fmt::format("{} to {} in nine of ten", text::stops_text(mean.low), text::stops_text(mean.high))
                : std::string("one case says nothing of how far it scatters");
        lessons.push_back(
            lesson_of(Topic::exposure, about, group, mean,
                      fmt::format("{} stops against the record; {}", text::stops_text(mean.value), scatters)));
    }
}

/// How many frames a unit keeps up with at a power, by the runs in which it fell behind; where it never did, by the
/// longest.
void teach_flash(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    const auto groups = groups_of(entries, Kind::run, [](const Entry& e) {
        return e.held && e.power && e.frames.value_or(0) > 1 && !e.unit.empty()
                   ? fmt::format("{} at {}", e.unit, text::power_text(*e.power))
                   : std::string();
    });
    for (const auto& [about, group] : groups) {
        std::vector<double> behind, cadences = numbers_of(group, &Entry::cadence);
        double longest = 0;
        for (const auto* entry : group) {
            if (*entry->held < *entry->frames) behind.push_back(*entry->held);
            longest = std::max(longest, static_cast<double>(*entry->held));
        }
        const auto pace = mean_of(cadences);
        const auto every = pace ? fmt::format(", a frame every {} s", text::number_text(pace->value, 2)) : "";
        if (behind.empty()) {
            const Mean all{.cases = group.size(), .value = longest, .low = longest, .high = longest};
            lessons.push_back(lesson_of(
                Topic::flash, about, group, all,
                fmt::format("never fell behind, in {} frames at most{}", text::number_text(longest, 9), every)));
            continue;
        }
        const auto mean = *mean_of(behind);
        lessons.push_back(lesson_of(Topic::flash, about, group, mean,
                                    fmt::format("keeps up with {} frames{}; {}", text::number_text(mean.value, 2),
                                                every, interval_text(mean.low, mean.high, ""))));
        lessons.back().what = "behind";
    }
}

void teach_steps(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    const auto groups = groups_of(entries, Kind::calibration, [](const Entry& e) {
        if (e.what != "steps" || e.value.value_or(0) <= 0) return std::string();
        return joined({e.camera, e.lens, e.magnification ? text::magnification_text(*e.magnification) : "",
                       e.f_number ? text::f_number_text(*e.f_number) : ""});
    });
    for (const auto& [about, group] : groups) {
        const auto mean = *mean_of(numbers_of(group, &Entry::value));
        lessons.push_back(lesson_of(Topic::steps, about, group, mean,
                                    fmt::format("{} from plane to plane; {}", text::length_text(mean.value),
                                                interval_text(mean.low, mean.high, " mm"))));
    }
}

void teach_odds(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    const auto groups = groups_of(entries, Kind::count, [](const Entry& e) {
        return e.tried.value_or(0) > 0 ? joined({e.subject_class, e.approach, e.support}) : std::string();
    });
    for (const auto& [about, group] : groups) {
        const auto kept = numbers_of(group, &Entry::kept), tried = numbers_of(group, &Entry::tried);
        const auto share =
            share_of(std::accumulate(kept.begin(), kept.end(), 0.0), std::accumulate(tried.begin(), tried.end(), 0.0));
        constexpr double few = 5;
        if (share.tried < few) continue;
        lessons.push_back(lesson_of(Topic::odds, about, group,
                                    mean_of_share(share, static_cast<std::size_t>(share.tried)),
                                    fmt::format("{:.0f} of 100 hit, {:.0f} to {:.0f} in nine of ten; {} of {} tried",
                                                share.value * 100, share.low * 100, share.high * 100,
                                                text::number_text(share.kept, 6), text::number_text(share.tried, 6))));
        lessons.back().what = group.front()->approach;
    }
}

/// What practice takes for it, minutes: as a fresh day has it.
std::optional<Prior> usual_change(const std::string& what) {
    constexpr double cases = 3;
    const std::map<std::string, double> minutes = {{"camera", 3},       {"lens", 2},    {"tubes", 1.5}, {"light", 4},
                                                   {"background", 1.5}, {"subject", 2}, {"turn", 0.5}};
    const auto found = minutes.find(what);
    return found == minutes.end() ? std::nullopt : std::optional(Prior{.value = found->second, .cases = cases});
}

/// Times scatter by factors: of their logarithms, and back.
Mean mean_of_times(std::vector<double> times, std::optional<Prior> prior) {
    for (double& one : times) one = std::log(one);
    if (prior) prior->value = std::log(prior->value);
    auto mean = *mean_of(times, prior);
    mean.value = std::exp(mean.value), mean.low = std::exp(mean.low), mean.high = std::exp(mean.high);
    return mean;
}

bool is_work(const std::string& what) { return what == "sorting" || what == "combining"; }

void teach_changes(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    const auto groups = groups_of(entries, Kind::change, [](const Entry& e) {
        return e.minutes.value_or(0) > 0 && !is_work(e.what) ? e.what : std::string();
    });
    for (const auto& [what, group] : groups) {
        const auto mean = mean_of_times(numbers_of(group, &Entry::minutes), usual_change(what));
        lessons.push_back(lesson_of(Topic::change, what, group, mean,
                                    fmt::format("{} a change; {}", text::time_text(mean.value * 60),
                                                interval_text(mean.low, mean.high, " min"))));
    }
}

/// Work on frames, by what one takes: 5 s to sort, 10 s to combine (common practice) for three cases.
void teach_work(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    const auto groups = groups_of(entries, Kind::change, [](const Entry& e) {
        return e.minutes.value_or(0) > 0 && e.frames.value_or(0) > 0 && is_work(e.what) ? e.what : std::string();
    });
    for (const auto& [what, group] : groups) {
        std::vector<double> seconds;
        seconds.reserve(group.size());
        for (const auto* entry : group) seconds.push_back(*entry->minutes * 60 / *entry->frames);
        const auto mean = mean_of_times(std::move(seconds), Prior{.value = what == "sorting" ? 5.0 : 10.0, .cases = 3});
        lessons.push_back(lesson_of(Topic::work, what, group, mean,
                                    fmt::format("{} s a frame; {}", text::number_text(mean.value, 2),
                                                interval_text(mean.low, mean.high, " s"))));
    }
}

/// Sequences that were kept, of those that were looked at.
void teach_keepers(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    const auto groups = groups_of(entries, Kind::proof, [](const Entry& e) {
        return e.verdict.empty() ? std::string() : joined({e.subject_class, e.approach});
    });
    for (const auto& [about, group] : groups) {
        const auto kept = std::ranges::count_if(group, [](const Entry* e) { return e->verdict == "keep"; });
        const auto share = share_of(static_cast<double>(kept), static_cast<double>(group.size()));
        if (group.size() < 3) continue;
        lessons.push_back(lesson_of(Topic::keepers, about, group, mean_of_share(share, group.size()),
                                    fmt::format("{} of {} kept; {:.0f} to {:.0f} of 100 in nine of ten", kept,
                                                group.size(), share.low * 100, share.high * 100)));
    }
}

/// Shots that were kept an hour, a day of a shoot a case, from its first entry to its last.
void teach_pace(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    struct Day {
        double from = 1e9, to = -1e9;  // h after midnight
        std::set<std::string> kept;
    };
    std::map<std::string, Day> days;
    for (const auto& entry : entries) {
        constexpr std::size_t minutes = 16, clock = 11;  // "2026-11-28T09:40"
        int hour = 0, minute = 0;
        if (entry.time.size() < minutes || std::sscanf(entry.time.c_str() + clock, "%2d:%2d", &hour, &minute) != 2)
            continue;
        auto& day = days[entry.time.substr(0, clock - 1) + entry.shoot];
        const double at = hour + minute / 60.0;
        day.from = std::min(day.from, at), day.to = std::max(day.to, at);
        if (entry.kind == Kind::proof && entry.verdict == "keep") day.kept.insert(entry.shot);
    }
    std::vector<double> rates;
    for (const auto& [name, day] : days) {
        constexpr double least = 0.5;  // h: shorter ones are no day's work
        if (day.to - day.from >= least && !day.kept.empty())
            rates.push_back(static_cast<double>(day.kept.size()) / (day.to - day.from));
    }
    if (rates.size() < 2) return;
    const auto mean = mean_of_times(std::move(rates), std::nullopt);
    lessons.push_back(lesson_of(Topic::pace, "all shoots", {&entries.front()}, mean,
                                fmt::format("{} shots kept an hour; {}", text::number_text(mean.value, 2),
                                            interval_text(mean.low, mean.high, ""))));
    lessons.back().subject_class.clear();
}

void teach_stops(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    const auto groups = groups_of(entries, Kind::proof, [](const Entry& e) {
        return e.verdict == "keep" && e.f_number ? joined({e.subject_class, e.lens}) : std::string();
    });
    for (const auto& [about, group] : groups) {
        const auto stops = numbers_of(group, &Entry::f_number);
        const auto kept = most_used(stops);
        constexpr std::size_t few = 3;
        if (!kept || stops.size() < few) continue;
        const auto planned = most_used(numbers_of(group, &Entry::planned_f_number));
        const auto [low, high] = std::ranges::minmax(stops);
        const bool otherwise = planned && std::abs(*planned / *kept - 1) > 0.05;
        lessons.push_back(lesson_of(
            Topic::stop, about, group, {.cases = stops.size(), .value = *kept, .low = low, .high = high},
            fmt::format("kept most at {}{}; {} to {} in all", text::f_number_text(*kept),
                        otherwise ? fmt::format(", planned most at {}", text::f_number_text(*planned)) : std::string(),
                        text::f_number_text(low), text::f_number_text(high))));
    }
}

/// What a stack showed to be as deep, over what it was planned as.
void teach_depth(const std::vector<Entry>& entries, std::vector<Lesson>& lessons) {
    const auto groups = groups_of(entries, Kind::inspection, [](const Entry& e) {
        return e.what == "depth" && e.value && e.planned && *e.planned > 0 ? joined({e.subject_class, e.lens})
                                                                           : std::string();
    });
    for (const auto& [about, group] : groups) {
        std::vector<double> ratios;
        ratios.reserve(group.size());
        for (const auto* entry : group) ratios.push_back(*entry->value / *entry->planned);
        const auto mean = *mean_of(ratios, Prior{.value = 1, .cases = 2});
        if (mean.cases < 2) continue;
        lessons.push_back(lesson_of(Topic::depth, about, group, mean,
                                    fmt::format("{} times as deep as planned; {}", text::number_text(mean.value, 2),
                                                interval_text(mean.low, mean.high, ""))));
    }
}

/// Of the ways that a class was taken, the one that was kept most; by how sure that is.
void teach_approach(std::vector<Lesson>& lessons) {
    std::map<std::string, std::vector<const Lesson*>> classes;
    for (const auto& lesson : lessons)
        if (lesson.topic == Topic::keepers)
            if (const auto comma = lesson.about.find(", "); comma != std::string::npos)
                classes[lesson.about.substr(0, comma)].push_back(&lesson);
    std::vector<Lesson> won;
    for (const auto& [name, ways] : classes) {
        if (ways.size() < 2) continue;
        const auto* best = *std::ranges::max_element(ways, {}, &Lesson::low);
        const auto way = best->about.substr(best->about.find(", ") + 2);
        const bool sure =
            std::ranges::all_of(ways, [&](const Lesson* other) { return other == best || other->high < best->low; });
        Lesson lesson = *best;
        lesson.topic = Topic::approach, lesson.about = name, lesson.what = way;
        lesson.text = fmt::format("{} {}: {}", way, sure ? "won" : "leads, but not surely", best->text);
        won.push_back(std::move(lesson));
    }
    lessons.insert(lessons.end(), won.begin(), won.end());
}

}  // namespace

std::optional<Mean> mean_of(const std::vector<double>& cases, std::optional<Prior> prior) {
    const double own = static_cast<double>(cases.size()), before = prior ? prior->cases : 0;
    if (own + before <= 0) return std::nullopt;
    constexpr double unbounded = std::numeric_limits<double>::infinity();
    Mean mean{.cases = cases.size(), .value = 0, .low = -unbounded, .high = unbounded, .spread = 0};
    double sum = 0;
    for (const double one : cases) sum += one;
    const double plain = own > 0 ? sum / own : 0;
    mean.value = (sum + before * (prior ? prior->value : 0)) / (own + before);
    if (cases.size() < 2) return mean;
    double squares = 0;
    for (const double one : cases) squares += (one - plain) * (one - plain);
    mean.spread = std::sqrt(squares / (own - 1));
    const boost::math::students_t student(own - 1);
    const double half = boost::math::quantile(student, 0.5 + inside / 2) * mean.spread / std::sqrt(own);
    mean.low = mean.value - half, mean.high = mean.value + half;
    return mean;
}

Share share_of(double kept, double tried, std::optional<Prior> prior) {
    const double hits = kept + (prior ? prior->value * prior->cases : 0.5);
    const double misses = tried - kept + (prior ? (1 - prior->value) * prior->cases : 0.5);
    const boost::math::beta_distribution<> beta(std::max(hits, 1e-6), std::max(misses, 1e-6));
    return {.kept = kept,
            .tried = tried,
            .value = boost::math::mean(beta),
            .low = boost::math::quantile(beta, (1 - inside) / 2),
            .high = boost::math::quantile(beta, 0.5 + inside / 2)};
}

std::optional<double> most_used(const std::vector<double>& values) {
    std::optional<double> best;
    std::ptrdiff_t most = 0;
    for (const double value : values) {
        const auto count = std::ranges::count_if(
            values, [&](double other) { return std::abs(other - value) <= 0.05 * std::abs(value); });
        if (count > most || (count == most && best && value < *best)) best = value, most = count;
    }
    return best;
}

std::vector<Lesson> lessons_of(const std::vector<Entry>& entries) {
    std::vector<Lesson> lessons;
    teach_exposure(entries, lessons);
    teach_flash(entries, lessons);
    teach_steps(entries, lessons);
    teach_odds(entries, lessons);
    teach_changes(entries, lessons);
    teach_work(entries, lessons);
    teach_keepers(entries, lessons);
    teach_pace(entries, lessons);
    teach_stops(entries, lessons);
    teach_depth(entries, lessons);
    teach_approach(lessons);
    std::ranges::stable_sort(lessons, [](const Lesson& a, const Lesson& b) {
        return a.topic != b.topic ? a.topic < b.topic : a.cases > b.cases;
    });
    return lessons;
}

}  // namespace poquito::log
