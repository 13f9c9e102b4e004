#include "proof/notes.hpp"

#include "imaging/inspect/median.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

namespace poquito::proof {
namespace {

using Frames = std::vector<std::size_t>;

/// "Frame 7", "Frames 3 and 5", "Frames 3, 5 to 9", "All 20 frames".
std::string frames_text(const Frames& frames, std::size_t all) {
    if (frames.size() == all && all > 2) return fmt::format("All {} frames", all);
    std::vector<std::string> parts;
    for (std::size_t i = 0; i < frames.size();) {
        std::size_t last = i;
        while (last + 1 < frames.size() && frames[last + 1] == frames[last] + 1) ++last;
        if (last > i + 1) {
            parts.push_back(fmt::format("{} to {}", frames[i] + 1, frames[last] + 1));
        } else {
            for (std::size_t k = i; k <= last; ++k) parts.push_back(fmt::format("{}", frames[k] + 1));
        }
        i = last + 1;
    }
    std::string text = frames.size() == 1 ? "Frame " : "Frames ";
    for (std::size_t i = 0; i < parts.size(); ++i)
        text += (i == 0 ? "" : i + 1 == parts.size() ? " and " : ", ") + parts[i];
    return text;
}

std::string in_lower(std::string text) {
    if (!text.empty()) text.front() = static_cast<char>(std::tolower(static_cast<unsigned char>(text.front())));
    return text;
}

Tone tone_of(Level level) {
    return level == Level::stop ? Tone::stop : level == Level::caution ? Tone::caution : Tone::info;
}

/// What is wrong with a frame is mended by taking it again where that code says so of itself.
bool is_retaken(Code code) {
    switch (code) {
        case Code::unreadable:
        case Code::size:
        case Code::settings:
        case Code::uneven:
        case Code::blurred:
        case Code::shaken:
            return true;
        default:
            return false;
    }
}

const char* matter_of(Code code) {
    constexpr const char* matters[] = {"files that cannot be read",
                                       "frames of another size",
                                       "settings that differ",
                                       "uneven light",
                                       "something moved",
                                       "a gap",
                                       "an open end",
                                       "their order",
                                       "frames that are missing",
                                       "clipped whites",
                                       "the background",
                                       "a blurred frame",
                                       "a cast of colour",
                                       "a shaken frame"};
    return matters[static_cast<int>(code)];
}

class Notes {
  public:
    Notes(const Inspection& inspection, const std::vector<Offer>& offers) : inspection_(inspection), offers_(offers) {}

    std::vector<Note> all() {
        of_frames();
        if (inspection_.stack) of_stack(*inspection_.stack);
        of_exposure();
        for (std::size_t i = 0; i < offers_.size(); ++i)
            if (offers_[i].teaches != Teaches::light) offered(add(Tone::info, std::nullopt, offers_[i].text), i);
        of_framing();
        what_is_well();
        std::ranges::stable_sort(notes_, {}, &Note::tone);
        return std::move(notes_);
    }

  private:
    Note& add(Tone tone, std::optional<Code> code, std::string text, Frames frames = {}) {
        Note& note = notes_.emplace_back();
        note.tone = tone;
        note.code = code;
        note.text = std::move(text);
        note.frames = std::move(frames);
        return note;
    }
    bool known() const { return inspection_.stack && inspection_.planes.size() == inspection_.frames.size(); }
    bool any(Code code) const {
        return std::ranges::any_of(notes_, [&](const Note& note) { return note.code == code; });
    }

    /// The same in many frames is one matter; the worst of them stands for it.
    void of_frames() {
        struct Found {
            Frames frames;
            const Finding* worst = nullptr;
            std::size_t of = 0;
        };
        std::map<Code, Found> by_code;
        for (std::size_t i = 0; i < inspection_.frames.size(); ++i)
            for (const Finding& finding : inspection_.frames[i].findings) {
                auto& found = by_code[finding.code];
                if (found.frames.empty() || found.frames.back() != i) found.frames.push_back(i);
                if (!found.worst || finding.level > found.worst->level) found.worst = &finding, found.of = i;
            }
        const std::size_t count = inspection_.frames.size();
        for (auto& [code, found] : by_code) {
            std::string text = found.worst->text;
            if (count > 1) text = frames_text(found.frames, count) + ": " + in_lower(text);
            Note& note = add(tone_of(found.worst->level), code, std::move(text), found.frames);
            note.place = found.worst->place;
            // Where the place is told of another frame than the first, that one comes first.
            if (note.place)
                std::rotate(note.frames.begin(), std::find(note.frames.begin(), note.frames.end(), found.of),
                            note.frames.end());
            // One dial turned for the whole run is not mended frame by frame.
            const bool all_of_many = found.frames.size() == count && count > 1;
            if (is_retaken(code) && found.worst->level != Level::info && !(code == Code::settings && all_of_many))
                again(note, found.frames);
        }
    }

    void again(Note& note, const Frames& frames) {
        note.again = true;
        if (known())
            for (const auto i : frames) note.planes.push_back(inspection_.planes[i]);
        std::ranges::sort(note.planes);
        note.action = inspection_.frames.size() == 1 ? "Take it again"
                      : frames.size() == 1           ? fmt::format("Take frame {} again", frames.front() + 1)
                                                     : fmt::format("Take the {} frames again", frames.size());
    }

    void take(Note& note, double from, double step, int count) {
        note.again = true;
        for (int i = 0; i < count; ++i) note.planes.push_back(from + step * i);
        std::ranges::sort(note.planes);
        note.action = count == 1
                          ? fmt::format("Take 1 frame at {}", text::length_text(note.planes.front()))
                          : fmt::format("Take {} frames, {} to {}", count, text::length_text(note.planes.front()),
                                        text::length_text(note.planes.back()));
    }

    void of_stack(const StackFacts& stack) {
        std::size_t gap = 0, own = 0;
        bool first_end = stack.first_end_open;  // is told before the last
        for (const Finding& finding : stack.findings) {
            switch (finding.code) {
                case Code::gap:
                    if (gap < stack.gaps.size()) of_gap(stack, finding, stack.gaps[gap++]);
                    break;
                case Code::end_open:
                    of_end(stack, finding, std::exchange(first_end, false));
                    break;
                case Code::moved:
                    if (finding.level == Level::info && own < stack.look.own.size())
                        of_own_motion(stack, finding, stack.look.own[own++]);
                    break;
                default:
                    add(tone_of(finding.level), finding.code, finding.text);
            }
        }
        if (!stack.moved.empty()) of_movement(stack);
    }

    /// In the frame in which it rests again, whose place the finding tells; then those before.
    void of_own_motion(const StackFacts& stack, const Finding& finding, const imaging::OwnMotion& own) {
        Frames frames;
        for (std::size_t f = own.last + 1; f-- > own.first;) frames.push_back(stack.frames[f]);
        add(Tone::info, finding.code, finding.text, std::move(frames)).place = finding.place;
    }

    void of_gap(const StackFacts& stack, const Finding& finding, const Gap& gap) {
        const auto before = static_cast<std::size_t>(gap.after_frame - 1);
        const auto at = std::ranges::find(stack.frames, before) - stack.frames.begin();
        const auto behind = stack.frames[static_cast<std::size_t>(at) + 1];
        Note& note = add(tone_of(finding.level), finding.code, finding.text, {before, behind});
        if (const double step = inspection_.step(); step > 0)
            take(note, inspection_.planes[before] + step, step, static_cast<int>(gap.frames));
    }

    void of_end(const StackFacts& stack, const Finding& finding, bool first) {
        const auto end = first ? stack.frames.front() : stack.frames.back();
        Note& note = add(tone_of(finding.level), finding.code, finding.text, {end});
        const double step = inspection_.step();
        if (step <= 0 || !stack.look.planes) return;
        const double beyond = first ? -outermost(*stack.look.planes, true)
                                    : outermost(*stack.look.planes, false) - stack.look.planes->frames.back();
        constexpr double most = 30;  // what lies further off is better seen by a run of its own
        const int count = static_cast<int>(std::clamp(std::ceil(beyond), 1.0, most));
        take(note, inspection_.planes[end] + (first ? -step : step), first ? -step : step, count);
    }

    /// Depth, in steps, that a hundredth of what has detail lies beyond.
    static double outermost(const imaging::FocusPlanes& planes, bool nearest) {
        std::vector<float> depths;
        for (const float depth : planes.depth.values)
            if (!std::isnan(depth)) depths.push_back(depth);
        if (depths.empty()) return 0;
        const std::size_t edge = depths.size() / 100;
        const auto at = depths.begin() + static_cast<std::ptrdiff_t>(nearest ? edge : depths.size() - 1 - edge);
        std::ranges::nth_element(depths, at);
        return static_cast<double>(*at);
    }

    /// Frames that stand together are found by adding up the movements; those of the largest group stay.
    void of_movement(const StackFacts& stack) {
        struct Stand {
            double x = 0, y = 0;
            Frames frames;
        };
        std::vector<Stand> stands;
        double x = 0, y = 0;
        const double same = std::max(2.0, 5 * stack.look.steady);  // px: what counts as moved, MODEL 11
        for (std::size_t f = 0; f < stack.frames.size(); ++f) {
            if (f > 0 && stack.look.moved(f - 1))
                x += stack.look.neighbours[f - 1].shift_x, y += stack.look.neighbours[f - 1].shift_y;
            auto stand =
                std::ranges::find_if(stands, [&](const Stand& one) { return std::hypot(one.x - x, one.y - y) < same; });
            if (stand == stands.end()) stand = stands.insert(stand, Stand{.x = x, .y = y, .frames = {}});
            stand->frames.push_back(stack.frames[f]);
        }
        const auto main = std::ranges::max_element(stands, {}, [](const Stand& one) { return one.frames.size(); });
        Frames away;
        double farthest = 0;
        for (const Stand& stand : stands) {
            if (&stand == &*main) continue;
            away.insert(away.end(), stand.frames.begin(), stand.frames.end());
            farthest = std::max(farthest, std::hypot(stand.x - main->x, stand.y - main->y));
        }
        std::ranges::sort(away);
        const auto& first = stack.moved.front();
        if (away.empty())  // turned about its middle and nothing else
            for (auto f = static_cast<std::size_t>(first.frame - 1); f < inspection_.frames.size(); ++f)
                away.push_back(f);
        const bool last = away.back() + 1 == inspection_.frames.size();
        std::string turned;
        if (std::abs(first.turn) >= 0.1) turned = fmt::format(", turned by {}\u00b0", text::number_text(first.turn, 2));
        const int width = inspection_.frames[stack.frames.front()].scan->width;
        constexpr double small = 0.01;  // of the frame: programs that combine align so much (common practice)
        const bool aligns = farthest < small * width && std::abs(first.turn) < 0.5;
        Note& note =
            add(aligns ? Tone::caution : Tone::stop, Code::moved,
                fmt::format(
                    "{} {} elsewhere, {} px{}: the camera was touched, or the subject slipped. {}",
                    frames_text(away, inspection_.frames.size()), away.size() == 1 ? "stands" : "stand",
                    text::number_text(std::max(farthest, first.shift), 2), turned,
                    aligns  ? "Programs that combine frames put so small a shift right, and lose that much of the "
                              "edge; taken again they fit as they are."
                    : !last ? "Take them again."
                            : "Flip between it and a frame before it while you set it back, and take them again; or "
                              "leave it as it stands now and take the others."),
                away);
        again(note, away);
    }

    void offered(Note& note, std::size_t offer) {
        note.action = offers_[offer].action;
        note.offer = offer;
    }

    /// How light the subject came out, of all frames together.
    void of_exposure() {
        std::vector<double> over;
        for (const auto& frame : inspection_.frames)
            if (frame.over_plan) over.push_back(*frame.over_plan);
        if (over.empty()) return;
        const double stops = imaging::median(std::move(over));
        constexpr double much = 0.7, hardly = 0.35;
        const auto words = text::number_text(std::abs(stops), 2);
        const auto offer = std::ranges::find(offers_, Teaches::light, &Offer::teaches);
        if (offer != offers_.end())
            offered(add(std::abs(stops) >= much ? Tone::caution : Tone::info, std::nullopt, offer->text),
                    static_cast<std::size_t>(offer - offers_.begin()));
        else if (std::abs(stops) >= much)
            add(Tone::caution, std::nullopt,
                fmt::format("The subject is {} stops {} than in the plan's picture: {}. Learn it at Light, Test, or "
                            "correct by that much.",
                            words, stops < 0 ? "darker" : "lighter",
                            stops < 0 ? "light is lost on the way, or it reflects less"
                                      : "more light arrives than is planned, or it reflects more"));
        else if (std::abs(stops) < hardly)
            add(Tone::well, std::nullopt, "The subject is as light as planned");
    }

    /// How large it came out, where it stands, and how level.
    void of_framing() {
        const auto of = [&](auto member) {
            std::vector<double> values;
            for (const auto& frame : inspection_.frames)
                if (frame.*member) values.push_back(*(frame.*member));
            const bool most = !values.empty() && 2 * values.size() >= inspection_.frames.size();
            return most ? std::optional(imaging::median(std::move(values))) : std::nullopt;
        };
        const auto past = of(&FrameFacts::past_picture);
        constexpr double clearly = 0.01;  // of the width
        if (past && *past > clearly)
            add(Tone::caution, std::nullopt,
                fmt::format(
                    "Cut to its picture the subject loses its edge: it passes out by {} % of the frame's width. "
                    "Set it in the middle, or go further away, before the set is taken down.",
                    text::number_text(*past * 100, 2)));
        const auto fill = of(&FrameFacts::fill), planned = of(&FrameFacts::planned_fill);
        constexpr double past_the_frame = 0.97;
        if (!fill || !planned || *planned > past_the_frame) return;
        const double off = *fill / *planned - 1;
        constexpr double much = 0.1;
        if (std::abs(off) >= much) {
            add(Tone::caution, std::nullopt,
                fmt::format("The subject takes {:.0f} % of the frame where {:.0f} % are planned: {}, or keep it if "
                            "that is what was meant.",
                            *fill * 100, *planned * 100, off < 0 ? "go nearer" : "go further away"));
            return;
        }
        const auto right = of(&FrameFacts::off_right), down = of(&FrameFacts::off_down);
        constexpr double aside = 0.05;  // of the width
        if (right && down && std::hypot(*right, *down) >= aside) {
            const bool sideways = std::abs(*right) > std::abs(*down);
            const char* where = sideways ? (*right > 0 ? "right" : "left") : *down > 0 ? "below" : "above";
            add(Tone::caution, std::nullopt,
                fmt::format("The subject stands {:.0f} % of the frame's width {}{} where it is planned: the margin is "
                            "short on that side.",
                            std::max(std::abs(*right), std::abs(*down)) * 100, where, sideways ? " of" : ""));
        }
        const auto turned = of(&FrameFacts::turned);
        constexpr double askew = 3, another = 30;  // degrees
        if (turned && std::abs(*turned) >= askew && std::abs(*turned) < another)
            add(Tone::caution, std::nullopt,
                fmt::format("It leans {:.0f}\u00b0 {} against the plan: level the camera, or turn the subject.",
                            std::abs(*turned), *turned > 0 ? "clockwise" : "counter-clockwise"));
    }

    void what_is_well() {
        const auto& frames = inspection_.frames;
        const bool read = std::ranges::all_of(frames, [](const auto& frame) { return frame.scan != nullptr; });
        if (!read || frames.empty()) return;
        const bool told = std::ranges::all_of(frames, [](const auto& frame) { return frame.exif.known; });
        if (told && !any(Code::settings) && frames.front().exif.f_number > 0)
            add(Tone::well, std::nullopt,
                fmt::format("{} and {} mm, as they should be",
                            text::exposure_text(frames.front().exif.f_number, frames.front().exif.shutter,
                                                frames.front().exif.iso),
                            text::number_text(frames.front().exif.focal_length, 3)));
        if (!any(Code::clipped)) add(Tone::well, std::nullopt, "Nothing that counts is clipped");
        if (!inspection_.stack) {
            if (!any(Code::blurred) && !any(Code::shaken) && frames.front().has_detail)
                add(Tone::well, std::nullopt, frames.size() == 1 ? "Sharp detail is in it" : "Sharp detail in each");
            return;
        }
        const auto& stack = *inspection_.stack;
        if (!any(Code::uneven)) add(Tone::well, std::nullopt, "Light even from frame to frame");
        if (!any(Code::moved) && !stack.look.neighbours.empty()) add(Tone::well, std::nullopt, "Nothing moved");
        if (!stack.look.planes) {
            add(Tone::info, std::nullopt,
                "Too little detail, or too few frames, to tell gaps and ends: look at them at full size.");
            return;
        }
        if (!any(Code::gap)) add(Tone::well, std::nullopt, "No gap between frames");
        of_overlap(*stack.look.planes);
        if (!any(Code::end_open)) add(Tone::well, std::nullopt, ends_text(stack));
    }

    /// How much of the finest detail is left half way between two frames.
    void of_overlap(const imaging::FocusPlanes& planes) {
        const auto kept = [&](double step) {  // amplitude, as the common curve has it
            const double off = step / 2 / planes.width;
            return std::pow(1 + off * off, -0.75);
        };
        constexpr double soft = 0.75, plenty = 0.9;
        constexpr std::size_t many = 12;  // frames
        if (kept(1) < soft)
            add(Tone::caution, std::nullopt,
                fmt::format("Half way between two frames the finest detail is down to {:.0f} % of its contrast: soft "
                            "bands. Overlap more, or stop down.",
                            kept(1) * 100));
        else if (kept(2) >= plenty && planes.frames.size() >= many)
            add(Tone::info, std::nullopt,
                fmt::format(
                    "Half way between two frames the finest detail keeps {:.0f} % of its contrast; with half as "
                    "many frames it would keep {:.0f} %.",
                    kept(1) * 100, kept(2) * 100));
    }

    std::string ends_text(const StackFacts& stack) const {
        std::size_t nearest = stack.frames.size(), farthest = 0;
        std::vector<std::size_t> tiles(stack.frames.size(), 0);
        for (const auto frame : stack.look.planes->sharpest)
            if (frame < tiles.size()) ++tiles[frame];
        constexpr std::size_t some = 3;  // tiles
        for (std::size_t f = 0; f < tiles.size(); ++f)
            if (tiles[f] >= some) nearest = std::min(nearest, f), farthest = f;
        if (nearest > farthest) return "Both ends are covered";
        return fmt::format("Both ends are covered: sharp from frame {} to {}", stack.frames[nearest] + 1,
                           stack.frames[farthest] + 1);
    }

    const Inspection& inspection_;
    const std::vector<Offer>& offers_;
    std::vector<Note> notes_;
};

}  // namespace

std::vector<Note> notes_of(const Inspection& inspection, const std::vector<Offer>& offers) {
    return Notes(inspection, offers).all();
}

std::vector<Note> notes_so_far(const std::vector<std::shared_ptr<const FrameFacts>>& frames, const Request& request) {
    std::vector<FrameFacts> seen;
    std::vector<std::size_t> places;
    for (std::size_t i = 0; i < frames.size(); ++i)
        if (frames[i]) seen.push_back(*frames[i]), places.push_back(i);
    if (seen.empty()) return {};
    auto single = request;
    single.singles = true;
    single.planes.clear();
    auto notes = notes_of(*judge(std::move(seen), single));
    std::erase_if(notes, [](const Note& note) {
        // How sharp it is, is told beside its neighbours; what is well, when all are there.
        return note.tone > Tone::caution || !note.code || note.code == Code::blurred || note.code == Code::shaken;
    });
    for (Note& note : notes) {
        for (auto& frame : note.frames) frame = places[frame];
        note.again = false;
        note.action.clear();
    }
    return notes;
}

std::vector<double> planes_to_take(const std::vector<Note>& notes, const Inspection& inspection) {
    std::vector<double> planes;
    for (const Note& note : notes)
        if (note.again && note.tone == Tone::stop) planes.insert(planes.end(), note.planes.begin(), note.planes.end());
    std::ranges::sort(planes);
    const double same = inspection.step() / 4;
    planes.erase(
        std::unique(planes.begin(), planes.end(), [&](double one, double other) { return other - one <= same; }),
        planes.end());
    return planes;
}

const char* outcome_text(Outcome outcome) {
    constexpr const char* texts[] = {"whole", "look", "mendable", "hopeless"};
    return texts[static_cast<int>(outcome)];
}

Summary summary_of(const Inspection& inspection, const std::vector<Note>& notes) {
    Summary summary;
    std::vector<bool> again(inspection.frames.size(), false);
    int more = 0;  // between and beyond them
    for (const Note& note : notes) {
        if (note.tone == Tone::well || note.tone == Tone::info) continue;
        if (summary.why.empty()) summary.why = note.code ? matter_of(*note.code) : "not as the plan has it";
        summary.outcome = std::max(summary.outcome, note.tone == Tone::stop ? Outcome::mendable : Outcome::look);
        if (!note.again || note.tone != Tone::stop) continue;
        if (note.code == Code::gap || note.code == Code::end_open) {
            more += static_cast<int>(note.planes.size());
        } else {
            for (const auto i : note.frames) again[i] = true;
        }
    }
    const auto spoilt = std::ranges::count(again, true);
    summary.to_take = static_cast<int>(spoilt) + more;
    if (summary.outcome == Outcome::mendable && 2 * static_cast<std::size_t>(summary.to_take) > again.size())
        summary.outcome = Outcome::hopeless;
    return summary;
}

}  // namespace poquito::proof
