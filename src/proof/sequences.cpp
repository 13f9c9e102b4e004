#include "proof/sequences.hpp"

#include "imaging/inspect/detail_order.hpp"
#include "imaging/inspect/median.hpp"
#include "plan/assess.hpp"
#include "storage/frame_reader.hpp"

#include "text/local_time.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <set>
#include <tuple>

namespace poquito::proof {
namespace {

namespace fs = std::filesystem;

struct Dated {
    fs::path file;
    storage::FrameExif exif;
    std::optional<double> time;
};

bool same_set(const storage::FrameExif& one, const storage::FrameExif& other) {
    const auto near = [](double a, double b, double least) {
        return a <= 0 || b <= 0 || std::abs(std::log2(a / b)) < least;
    };
    return one.camera == other.camera && near(one.f_number, other.f_number, 0.1) &&
           near(one.focal_length, other.focal_length, 0.06);
}

/// Of pictures made small: 1 the same, 0 nothing in common. Light does not count.
double likeness(const imaging::GreyImage& one, const imaging::GreyImage& other) {
    constexpr int side = 12;
    const auto small = [](const imaging::GreyImage& image) {
        std::vector<double> values;
        for (int y = 0; y < side; ++y)
            for (int x = 0; x < side; ++x) {
                double sum = 0;
                int count = 0;
                for (int row = y * image.height / side; row < (y + 1) * image.height / side; ++row)
                    for (int column = x * image.width / side; column < (x + 1) * image.width / side; ++column)
                        sum += static_cast<double>(image.at(column, row)), ++count;
                values.push_back(count > 0 ? sum / count : 0);
            }
        const double mean = std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
        double squares = 0;
        for (double& value : values) value -= mean, squares += value * value;
        for (double& value : values) value /= std::sqrt(squares) + 1e-9;
        return values;
    };
    const auto a = small(one), b = small(other);
    return std::inner_product(a.begin(), a.end(), b.begin(), 0.0);
}

/// Frames from one to the next that show nothing alike are of another thing.
std::vector<std::size_t> scene_changes(const std::vector<FrameFacts>& facts) {
    std::vector<std::size_t> changes;
    const imaging::FrameScan* before = nullptr;
    constexpr double unlike = 0.35;
    for (std::size_t i = 0; i < facts.size(); ++i) {
        if (!facts[i].scan) continue;
        if (before && likeness(before->small, facts[i].scan->small) < unlike) changes.push_back(i);
        before = facts[i].scan.get();
    }
    return changes;
}

/// Focus goes through a stack: its tiles are sharpest in many frames, in their order; in a burst by chance or in all
/// alike.
bool focus_goes(const Inspection& inspection) {
    if (!inspection.stack || !inspection.stack->look.planes) return false;
    const auto& planes = *inspection.stack->look.planes;
    std::set<std::size_t> used;
    std::map<std::size_t, int> tiles;
    for (const auto frame : planes.sharpest)
        if (frame < planes.frames.size() && ++tiles[frame] >= 3) used.insert(frame);
    constexpr double wide = 8;  // steps that detail stays sharp over: nothing comes and goes
    return 2 * used.size() >= planes.frames.size() && planes.width < wide;
}

/// Focus goes one way, as in a stack; who rocks through focus goes to and fro. By time, where the files have it.
bool one_way(const Sequence& sequence, const std::vector<FrameFacts>& facts) {
    const bool timed =
        std::ranges::all_of(sequence.exif, [](const auto& exif) { return text::seconds_of(exif.time).has_value(); });
    std::vector<const imaging::CellMap*> maps;
    for (const auto& frame : facts)
        if (frame.scan) maps.push_back(&frame.scan->detail);
    if (!timed || maps.size() < 3) return true;
    const auto order = imaging::order_by_detail(maps);
    // Kendall's tau: pairs that stand as they were taken, less those that do not.
    long with = 0, against = 0;
    for (std::size_t i = 0; i < order.size(); ++i)
        for (std::size_t k = i + 1; k < order.size(); ++k) ++(order[i] < order[k] ? with : against);
    constexpr double mostly = 0.5;
    return static_cast<double>(std::abs(with - against)) >= mostly * static_cast<double>(with + against);
}

/// The one to keep of a burst: the sharpest where the plan has its focus, or anywhere where no plan says; before it
/// come those that something else is wrong with.
std::size_t best_of(const std::vector<FrameFacts>& frames) {
    const auto spoilt = [](const FrameFacts& frame) {
        return std::ranges::any_of(frame.findings, [](const Finding& one) {
            return one.level == Level::stop && one.code != Code::blurred && one.code != Code::shaken;
        });
    };
    const auto tell = [](const FrameFacts& frame) { return frame.sharp_at_focus.has_value(); };
    const auto with_detail = std::ranges::count_if(frames, &FrameFacts::has_detail);
    const bool at_focus = with_detail > 0 && 2 * std::ranges::count_if(frames, tell) >= with_detail;
    const auto rank = [&](const FrameFacts& frame) {
        constexpr double none = -1e9;
        const double sharp = at_focus ? frame.sharp_at_focus.value_or(none) : frame.sharpness;
        return std::tuple(frame.scan != nullptr, !spoilt(frame), sharp);
    };
    return static_cast<std::size_t>(std::ranges::max_element(frames, {}, rank) - frames.begin());
}

Sorted judged(Sequence sequence, const std::vector<FrameFacts>& facts, const shoot::Shoot* shoot) {
    Sorted sorted{.sequence = std::move(sequence), .summary = {}, .shot = {}};
    if (shoot) sorted.shot = shot_of(sorted.sequence, *shoot);
    const auto* shot = sorted.shot ? &shoot->shots[*sorted.shot] : nullptr;
    Request request{.files = sorted.sequence.files,
                    .kit = shot ? &shoot->kit : nullptr,
                    .shot = shot,
                    .terms = shot ? shoot::terms_of(*shoot, *shot) : shoot::Terms()};
    const bool many = facts.size() > 1;
    auto inspection = *judge(facts, request);
    const bool planned_single = shot && shot->capture.mode == shoot::CaptureMode::single;
    const bool stack = many && !planned_single && focus_goes(inspection) && one_way(sorted.sequence, facts);
    sorted.kind = !many ? Kind::single : stack ? Kind::stack : Kind::burst;
    if (sorted.kind == Kind::burst) {
        // One good frame is enough.
        request.singles = true;
        sorted.best = best_of(judge(facts, request)->frames);
        request.files = {sorted.sequence.files[sorted.best]};
        inspection = *judge({facts[sorted.best]}, request);
        sorted.summary = summary_of(inspection, notes_of(inspection));
        sorted.summary.why =
            sorted.summary.outcome == Outcome::whole ? "" : "its sharpest frame: " + sorted.summary.why;
        sorted.summary.to_take = 0;
    } else {
        sorted.summary = summary_of(inspection, notes_of(inspection));
    }
    return sorted;
}

}  // namespace

std::vector<Sequence> sequences_of(const std::vector<fs::path>& files) {
    std::vector<Dated> all;
    all.reserve(files.size());
    for (const auto& file : files) {
        auto exif = storage::exif_of_file(file);
        const auto time = text::seconds_of(exif.time);
        all.push_back({.file = file, .exif = std::move(exif), .time = time});
    }
    std::ranges::stable_sort(all, [](const Dated& one, const Dated& other) {
        const auto folder = one.file.parent_path().compare(other.file.parent_path());
        if (folder != 0) return folder < 0;
        if (one.time && other.time && *one.time != *other.time) return *one.time < *other.time;
        return one.file < other.file;
    });
    std::vector<Sequence> sequences;
    std::vector<double> pauses;  // of the sequence that is on
    for (std::size_t i = 0; i < all.size(); ++i) {
        bool begins = i == 0;
        if (i > 0) {
            const Dated &before = all[i - 1], &now = all[i];
            begins = before.file.parent_path() != now.file.parent_path();
            // Against both neighbours: a single frame that differs does not begin anything, nor does what follows it.
            const bool differs = !same_set(before.exif, now.exif);
            const bool back = i + 1 < all.size() && same_set(before.exif, all[i + 1].exif);
            const bool was_odd = i > 1 && same_set(all[i - 2].exif, now.exif);
            begins = begins || (differs && !back && !was_odd);
            if (before.time && now.time) {
                const double pause = *now.time - *before.time;
                constexpr double least = 4, times = 4;  // s
                const double pace = imaging::median(pauses);
                begins = begins || pause > std::max(least, times * std::max(pace, 1.0));
                if (!begins) pauses.push_back(pause);
            }
        }
        if (begins) sequences.emplace_back(), pauses.clear();
        sequences.back().files.push_back(all[i].file);
        sequences.back().exif.push_back(all[i].exif);
    }
    return sequences;
}

std::optional<std::size_t> shot_of(const Sequence& sequence, const shoot::Shoot& shoot) {
    if (sequence.files.empty()) return std::nullopt;
    for (std::size_t i = 0; i < shoot.shots.size(); ++i)
        for (const auto& run : shoot::runs_of(shoot.runs, shoot.shots[i].id))
            for (const auto& frame : run->frames)
                if (shoot::file_of(*run, frame) == sequence.files.front()) return i;
    const auto& exif = sequence.exif[sequence.exif.size() / 2];
    if (!exif.known || exif.f_number <= 0 || exif.shutter <= 0 || exif.iso <= 0) return std::nullopt;
    const auto near = [](double value, double wanted, double least) {
        return value <= 0 || wanted <= 0 || std::abs(std::log2(value / wanted)) < least;
    };
    std::vector<std::pair<double, std::size_t>> fits;  // how far off in frames, shot
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        const auto& shot = shoot.shots[i];
        const auto plan = plan::plan_of(shoot.kit, shot, shoot::terms_of(shoot, shot));
        const auto report = plan::assess(plan);
        constexpr double sixth = 1.0 / 6;
        if (!near(exif.f_number, report.optics.displayed_f_number, sixth / 2) ||
            !near(exif.shutter, shot.exposure.shutter, sixth) || !near(exif.iso, shot.exposure.iso, sixth) ||
            !near(exif.focal_length, shot.rig.focal_length.value_or(plan.lens.optics.focal_length), 0.06))
            continue;
        fits.emplace_back(std::abs(std::log2(static_cast<double>(sequence.files.size()) / report.capture.frames)), i);
    }
    if (fits.empty()) return std::nullopt;
    std::ranges::sort(fits);
    constexpr double clearly = 0.3;  // octaves of the number of frames
    if (fits.size() > 1 && fits[1].first - fits[0].first < clearly) return std::nullopt;
    return fits.front().second;
}

const char* kind_text(Kind kind) {
    constexpr const char* texts[] = {"frame", "stack", "burst"};
    return texts[static_cast<int>(kind)];
}

void look_through(const std::vector<fs::path>& files, const shoot::Shoot* shoot,
                  const std::function<bool(Sorted)>& found,
                  const std::function<bool(std::size_t, std::size_t)>& go_on) {
    std::size_t done = 0;
    for (auto& sequence : sequences_of(files)) {
        std::vector<FrameFacts> facts(sequence.files.size());
        bool ended = false;
        look_at_all(sequence.files, [&](std::size_t i, FrameFacts one) {
            facts[i] = std::move(one);
            ended = go_on && !go_on(++done, files.size());
            return !ended;
        });
        if (ended) return;
        auto changes = scene_changes(facts);
        changes.push_back(facts.size());
        std::size_t from = 0;
        for (const std::size_t to : changes) {
            const auto part = [from, to](auto& all) {
                using Item = typename std::decay_t<decltype(all)>::value_type;
                return std::vector<Item>(all.begin() + static_cast<std::ptrdiff_t>(from),
                                         all.begin() + static_cast<std::ptrdiff_t>(to));
            };
            if (!found(judged({.files = part(sequence.files), .exif = part(sequence.exif)}, part(facts), shoot)))
                return;
            from = to;
        }
    }
}

bool comes_before(const Sorted& one, const Sorted& other) {
    if (one.summary.outcome != other.summary.outcome) return one.summary.outcome < other.summary.outcome;
    const auto begin = [](const Sorted& sorted) { return sorted.sequence.exif.front().time; };
    if (begin(one) != begin(other)) return begin(one) < begin(other);
    return one.sequence.files.front() < other.sequence.files.front();
}

}  // namespace poquito::proof
