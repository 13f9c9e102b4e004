#include "advice/worth/moves.hpp"

#include "advice/proposals/proposals.hpp"
#include "advice/rules/rules.hpp"
#include "advice/worth/trouble.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/motion/chance.hpp"
#include "plan/stack/stack_plan.hpp"
#include "shoot/form/attitude.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>

namespace poquito::advice {
namespace {

constexpr double slowest = 30, fastest = 1.0 / 8000, least_iso = 100, top_iso = 102400, as_marked = 1.001;

class Moves {
  public:
    Moves(const plan::Plan& plan, const plan::Report& report)
        : plan_(plan), report_(report), kept_(worth_of(plan, report)), now_(kept_.worth) {}

    std::vector<Move> all() {
        trades();
        corrections();
        powers();
        capture();
        hands();
        lights_nearer();
        round_it();
        std::ranges::stable_sort(found_, std::greater<>(), [](const Move& move) { return move.worth.worth; });
        return std::move(found_);
    }

  private:
    const shoot::Shot& shot() const { return plan_.shot; }
    bool is_locked(shoot::Lock lock) const {
        return shot().follows && std::ranges::count(shot().follows->locks, lock) > 0;
    }
    bool flashes() const {
        return std::ranges::any_of(shot().lights,
                                   [](const auto& light) { return plan::is_flash(light) && !light.off; });
    }

    void offer(std::string label, const std::function<void(shoot::Shot&)>& change) {
        Remedy remedy{.label = std::move(label), .shot = shot()};
        change(remedy.shot);
        if (remedy.shot == shot()) return;
        const plan::Plan then = plan::plan_of(plan_, remedy.shot);
        const auto report = plan::assess(then);
        // What passes a limit that is kept now is no remedy.
        if (excess_of(then, report).sum() > excess_of(plan_, report_).sum() + 1e-9) return;
        const Worth worth = worth_of(then, report);
        if (worth.worth < now_ + worth_offering) return;
        found_.push_back({.remedy = std::move(remedy), .worth = worth});
    }

    bool on_dials(const shoot::Exposure& e) const {
        const auto& lens = plan_.train.lens;
        return e.f_number * as_marked >= lens.max_aperture && e.f_number <= lens.min_aperture * as_marked &&
               e.shutter <= slowest * as_marked && e.shutter * as_marked >= fastest && e.iso * as_marked >= least_iso &&
               e.iso <= top_iso * as_marked;
    }
    /// So many thirds smaller a stop, longer a time, higher an ISO.
    std::optional<shoot::Exposure> stepped(int stop, int time, int iso) const {
        shoot::Exposure e = shot().exposure;
        if (stop != 0) e.f_number = text::step_f_number(e.f_number, stop);
        if (time != 0) e.shutter = text::step_shutter(e.shutter, time);
        if (iso != 0) e.iso = text::step_iso(e.iso, iso);
        if (!on_dials(e)) return std::nullopt;
        const bool past_sync = flashes() && !e.high_speed_sync && e.shutter < plan_.camera.sync * (1 - 1e-9);
        if (past_sync && shot().exposure.shutter >= plan_.camera.sync * (1 - 1e-9)) return std::nullopt;
        return e;
    }
    std::string settings_text(const shoot::Exposure& e) const {
        return fmt::format("{}, {}, ISO {}", text::f_number_text(e.f_number), text::shutter_text(e.shutter),
                           text::number_text(e.iso, 6));
    }
    void expose(const std::optional<shoot::Exposure>& e) {
        if (e) offer(settings_text(*e), [&](shoot::Shot& changed) { changed.exposure = *e; });
    }

    /// The same light otherwise: what one dial takes another gives back.
    void trades() {
        if (is_locked(shoot::Lock::stop)) return;
        for (const int thirds : {1, 2, 3, 4, 6, 9})
            for (const int way : {-1, 1}) {
                const int n = way * thirds;
                expose(stepped(n, n, 0));
                expose(stepped(n, 0, n));
                expose(stepped(0, n, -n));
                if (thirds % 2 == 0) expose(stepped(n, n / 2, n / 2));
                if (thirds % 2 == 0) expose(stepped(n / 2, n, -n / 2));
            }
    }

    /// What brings a wrong exposure right, each dial alone.
    void corrections() {
        const double off = off_wanted(plan_, report_).value_or(0);
        const int thirds = static_cast<int>(std::lround(3 * off));
        if (thirds == 0 || is_locked(shoot::Lock::stop)) return;
        if (const auto e = stepped(thirds, 0, 0))
            offer(fmt::format("{} {}", thirds > 0 ? "Close to" : "Open to", text::f_number_text(e->f_number)),
                  [&](shoot::Shot& changed) { changed.exposure = *e; });
        expose(stepped(0, -thirds, 0));
        expose(stepped(0, 0, -thirds));
        // What one dial cannot give: sensitivity or power first, as far as they go, the rest by the stop.
        const int by_iso = std::clamp(thirds, -30, static_cast<int>(3 * std::log2(shot().exposure.iso / least_iso)));
        expose(stepped(thirds - by_iso, 0, -by_iso));
        if (flashes() && shot().exposure.lever != shoot::Lever::stop && !is_locked(shoot::Lock::light)) {
            constexpr int most = 12;  // thirds
            for (int by_power = std::min(most, std::abs(thirds)); by_power > 0; by_power -= 3) {
                const int way = thirds > 0 ? by_power : -by_power;
                const auto e = stepped(thirds - way, 0, 0);
                if (!e) continue;
                auto changed = with_power(std::exp2(-way / 3.0));
                changed.exposure = *e;
                offer(fmt::format("{}, {}", text::f_number_text(e->f_number), power_text(changed)),
                      [&](shoot::Shot& made) { made = changed; });
                break;
            }
        }
        expose(stepped(0, -thirds / 2, -(thirds - thirds / 2)));
        expose(stepped(thirds / 2, -(thirds - thirds / 2), 0));
    }

    shoot::Shot with_power(double factor) const {
        shoot::Shot changed = shot();
        for (std::size_t i = 0; i < changed.lights.size(); ++i) {
            auto& light = changed.lights[i];
            if (!plan::is_flash(light) || light.off || !light.power) continue;
            const auto& scale = plan_.sources[i].flash->scale;
            light.power = light::nearest_setting(scale, std::clamp(*light.power * factor, scale.least, 1.0));
        }
        return changed;
    }
    std::string power_text(const shoot::Shot& changed) const {
        for (std::size_t i = 0; i < changed.lights.size(); ++i)
            if (plan::is_flash(changed.lights[i]) && changed.lights[i].power != shot().lights[i].power)
                return fmt::format("light {} at {}", plan::light_label(changed, i),
                                   plan::setting_text(plan_.sources[i], *changed.lights[i].power));
        return "the same power";
    }

    void powers() {
        if (!flashes() || is_locked(shoot::Lock::light) || shot().exposure.lever == shoot::Lever::stop) return;
        const double off = off_wanted(plan_, report_).value_or(0);
        constexpr double seen = 0.2;
        if (std::abs(off) > seen) {
            const auto changed = with_power(std::exp2(-off));
            offer("Set " + power_text(changed), [&](shoot::Shot& made) { made = changed; });
        }
        for (const int thirds : {-12, -9, -6, -3, 3, 6}) {
            const auto e = stepped(0, 0, thirds);
            if (!e || is_locked(shoot::Lock::stop)) continue;
            auto changed = with_power(shot().exposure.iso / e->iso);
            changed.exposure.iso = e->iso;
            offer(fmt::format(
                      "ISO {}, {}", text::number_text(e->iso, 6),
                      plan::finds_power(plan_) ? (thirds < 0 ? "more power" : "less power") : power_text(changed)),
                  [&](shoot::Shot& made) { made = changed; });
        }
        offer("Flash off", [](shoot::Shot& changed) {
            for (auto& light : changed.lights)
                if (plan::is_flash(light)) light.off = true;
        });
    }

    void capture() {
        if (shot().lapse || shot().freeze) return;
        if (report_.capture.frames > 1) {
            const auto single = [](shoot::Shot& changed) { changed.capture.mode = shoot::CaptureMode::single; };
            offer("One frame", single);
            if (!report_.sharpness.best_single_f_number) return;
            const double f = std::clamp(mark_below(*report_.sharpness.best_single_f_number),
                                        plan_.train.lens.max_aperture, plan_.train.lens.min_aperture);
            offer(fmt::format("One frame at {}", text::f_number_text(f)), [&](shoot::Shot& changed) {
                single(changed);
                changed.exposure.f_number = f;
            });
            return;
        }
        const auto frames = plan::stack_frames_at(plan_, shot().exposure.f_number);
        if (frames && *frames > 1)
            offer(fmt::format("Stack of {}", text::number_text(*frames, 6)),
                  [](shoot::Shot& changed) { changed.capture.mode = shoot::CaptureMode::stack; });
    }

    void hands() {
        if (shot().rig.support != shoot::Support::hand) return;
        const auto now = plan::hands_of(plan_);
        for (const auto& brace : plan::braces()) {
            const auto held = plan::hands_braced(brace);
            if (held.shift >= now.shift && held.along >= now.along) continue;
            offer(fmt::format("Brace it: {}", brace.name),
                  [&](shoot::Shot& changed) { shoot::own_tries(changed).hands = held; });
        }
        // An animal does not wait until a stand is set up.
        if (!shoot::has_trait(shot().subject, "living") && !moves(shot().subject) && !shot().freeze)
            offer("Put it on a stand", [](shoot::Shot& changed) { changed.rig.support = shoot::Support::sturdy_head; });
    }

    /// Each light, or the card that it is bounced off, brought nearer: more light, and softer.
    void lights_nearer() {
        constexpr double least = 60;  // mm, room for a hand and for the lens
        if (is_locked(shoot::Lock::light)) return;
        for (std::size_t i = 0; i < shot().lights.size(); ++i) {
            const auto& light = shot().lights[i];
            if (light.off || light.on_lens) continue;
            for (const double times : {0.7, 0.5}) {
                const auto near = [&](double distance) { return std::round(distance * times / 10) * 10; };
                const double distance = near(light.position.distance);
                if (distance < least) continue;
                auto label =
                    fmt::format("Light {} {} from it", plan::light_label(shot(), i), text::length_text(distance));
                if (light.bounce)
                    label = fmt::format("Bounce light {} off something nearer: {} from it, {} from the lamp",
                                        plan::light_label(shot(), i), text::length_text(distance),
                                        text::length_text(near(light.bounce->from_lamp)));
                offer(std::move(label), [&](shoot::Shot& changed) {
                    auto& moved = changed.lights[i];
                    moved.position.distance = distance;
                    if (moved.bounce) moved.bounce->from_lamp = std::max(1.0, near(light.bounce->from_lamp));
                });
            }
        }
    }

    /// The camera gone round, so that the subject lies as far in the plane of focus as it can. Farther round it is
    /// another picture; and where a part of it has to be sharp, that would be another part.
    void round_it() {
        constexpr double same_picture = 25, worth_going = 1;  // degrees (common practice)
        const auto& subject = shot().subject;
        if (plan_.zone || shot().freeze || shot().plate || report_.capture.frames > 1) return;
        if (is_locked(shoot::Lock::framing) || kept_.kept(Quality::sharp) >= missed) return;
        const auto flat = shoot::least_depth(subject);
        const double angle = shoot::angle_between({.tilt = subject.tilt, .turn = subject.turn}, flat);
        if (angle < worth_going || angle > same_picture) return;
        offer(fmt::format("Go {:.0f}\u00b0 round it, into its plane", angle), [&](shoot::Shot& changed) {
            changed.subject = shoot::faced(changed.subject, flat);
            changed.sharpness.focus_offset = 0;
        });
    }

    const plan::Plan& plan_;
    const plan::Report& report_;
    Worth kept_;
    double now_;
    std::vector<Move> found_;
};

}  // namespace

std::vector<Move> moves_of(const plan::Plan& plan, const plan::Report& report) { return Moves(plan, report).all(); }

}  // namespace poquito::advice
