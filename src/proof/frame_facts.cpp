#include "imaging/inspect/median.hpp"
#include "proof/inspection.hpp"
#include "storage/frame_reader.hpp"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <condition_variable>
#include <deque>
#include <functional>
#include <memory>
#include <mutex>
#include <thread>

namespace poquito::proof {
namespace {

/// Fine detail over coarse where a frame is sharpest: a blur takes the fine first. Empty: too plain to tell.
std::optional<double> sharpness_of(const imaging::FrameScan& scan) {
    const auto noise = imaging::noise_of({&scan}, scan.level);
    const auto detail = imaging::spread_out(scan.detail), coarse = imaging::spread_out(scan.coarse);
    std::vector<double> shares;
    constexpr float textured = 4;  // of coarse differences, code values squared
    for (std::size_t i = 0; i < detail.values.size(); ++i) {
        if (coarse.values[i] < textured) continue;
        constexpr float stands_out = 2;  // times noise
        const double fine = detail.values[i] > stands_out * noise.values[i] ? detail.values[i] - noise.values[i] : 0;
        shares.push_back(fine / (fine + static_cast<double>(coarse.values[i])));
    }
    // So much of the frame is sharper: a few edges, as of the discs that glints make, are no sharp subject.
    const std::size_t sharper = scan.detail.values.size() / 25;
    if (shares.size() <= sharper) return std::nullopt;
    const auto at = shares.begin() + static_cast<std::ptrdiff_t>(sharper);
    std::ranges::nth_element(shares, at, std::greater<>());
    return std::sqrt(*at);
}

}  // namespace

const char* code_text(Code code) {
    constexpr const char* codes[] = {"unreadable", "size",    "settings", "uneven",     "moved",   "gap",    "end-open",
                                     "order",      "missing", "clipped",  "background", "blurred", "colour", "shaken"};
    return codes[static_cast<int>(code)];
}

const char* verdict_text(Verdict verdict) {
    constexpr const char* verdicts[] = {"keep", "look", "redo"};
    return verdicts[static_cast<int>(verdict)];
}

bool Inspection::any_readable() const {
    return std::ranges::any_of(frames, [](const FrameFacts& frame) { return frame.scan != nullptr; });
}

double Inspection::step() const {
    if (!stack || planes.size() != frames.size()) return 0;
    std::vector<double> steps;
    for (std::size_t f = 0; f + 1 < stack->frames.size(); ++f)
        steps.push_back(planes[stack->frames[f + 1]] - planes[stack->frames[f]]);
    return imaging::median(std::move(steps));
}

FrameFacts look_at(const std::filesystem::path& file) {
    FrameFacts frame{.file = file, .exif = storage::exif_of_file(file)};
    std::optional<imaging::FrameScanner> scanner;
    const auto read = storage::read_rows(file, {.begin =
                                                    [&](int width, int height) {
                                                        scanner.emplace(width, height);
                                                        return true;
                                                    },
                                                .row =
                                                    [&](const std::uint8_t* rgb) {
                                                        scanner->row(rgb);
                                                        return true;
                                                    },
                                                .luma =
                                                    [&](const storage::LumaRow& row) {
                                                        scanner->row(row.luma, row.blue, row.red, row.shift);
                                                        return true;
                                                    }});
    if (!read || !scanner) {
        frame.findings.push_back({.code = Code::unreadable,
                                  .level = Level::stop,
                                  .text = (read ? file.filename().string() + ": empty" : text::message(read.error())) +
                                          ". Copy it from the card again, or take the frame again."});
        return frame;
    }
    frame.scan = std::make_shared<const imaging::FrameScan>(scanner->finish());
    const auto sharpness = sharpness_of(*frame.scan);
    frame.has_detail = sharpness.has_value();
    frame.sharpness = sharpness.value_or(0);
    return frame;
}

std::vector<PictureArea> sharpest_areas(const FrameFacts& frame) {
    std::vector<PictureArea> areas;
    if (!frame.scan || frame.scan->detail.empty() || !frame.has_detail) return areas;
    const auto& scan = *frame.scan;
    const auto noise = imaging::noise_of({&scan}, scan.level);
    constexpr int side = 6;  // cells
    constexpr double textured = 4, nearly = 0.7;
    for (int top = 0; top + side <= scan.detail.rows; top += side)
        for (int left = 0; left + side <= scan.detail.columns; left += side) {
            double fine = 0, coarse = 0, drowned = 0;
            for (int y = top; y < top + side; ++y)
                for (int x = left; x < left + side; ++x)
                    fine += static_cast<double>(scan.detail.at(x, y)),
                        coarse += static_cast<double>(scan.coarse.at(x, y)),
                        drowned += static_cast<double>(noise.at(x, y));
            constexpr int cells = side * side;
            if (coarse < textured * cells) continue;
            fine = std::max(0.0, fine - drowned);
            if (std::sqrt(fine / (fine + coarse)) < nearly * frame.sharpness) continue;
            areas.push_back({left * scan.cell, top * scan.cell, side * scan.cell, side * scan.cell});
        }
    return areas;
}

std::shared_ptr<const imaging::FrameScan> without_maps(const imaging::FrameScan& scan) {
    auto slim = std::make_shared<imaging::FrameScan>();
    slim->width = scan.width, slim->height = scan.height, slim->cell = scan.cell;
    slim->median_stops = scan.median_stops, slim->brightest_stops = scan.brightest_stops;
    slim->clipped_share = scan.clipped_share, slim->black_share = scan.black_share;
    slim->histogram = scan.histogram, slim->structure = scan.structure;
    return slim;
}

namespace {

/// Frames that were looked at, from those who look to the one who is told.
class Looked {
  public:
    void add(std::size_t index, FrameFacts facts) {
        const std::lock_guard lock(mutex_);
        waiting_.emplace_back(index, std::move(facts));
        came_.notify_one();
    }
    std::pair<std::size_t, FrameFacts> next() {
        std::unique_lock lock(mutex_);
        came_.wait(lock, [this] { return !waiting_.empty(); });
        auto one = std::move(waiting_.front());
        waiting_.pop_front();
        return one;
    }

  private:
    std::mutex mutex_;
    std::condition_variable came_;
    std::deque<std::pair<std::size_t, FrameFacts>> waiting_;
};

}  // namespace

void look_at_all(const std::vector<std::filesystem::path>& files,
                 const std::function<bool(std::size_t index, FrameFacts facts)>& looked) {
    Looked through;
    std::atomic<std::size_t> next = 0;
    std::vector<std::jthread> hands;
    const std::size_t cores = std::max(1U, std::thread::hardware_concurrency());
    for (std::size_t hand = 0; hand < std::min(cores, files.size()); ++hand)
        hands.emplace_back([&](const std::stop_token& stop) {
            // In their order: what comes first is looked at first, and the first answer comes soon.
            for (std::size_t i = next++; i < files.size() && !stop.stop_requested(); i = next++)
                through.add(i, look_at(files[i]));
        });
    for (std::size_t i = 0; i < files.size(); ++i) {
        auto [index, facts] = through.next();
        if (looked(index, std::move(facts))) continue;
        for (auto& hand : hands) hand.request_stop();
        return;
    }
}

}  // namespace poquito::proof
