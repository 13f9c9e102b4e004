#include "desk/run/stack_tab.hpp"

#include "desk/pages/options.hpp"
#include "desk/run/stack_drawing.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/plan.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

namespace {

QString mm(double length) { return toQt(length_text(length)); }
QString number(double value, int digits = 3) { return toQt(number_text(value, digits)); }

/// Where a plane lies, in words.
QString place(double plane) {
    if (std::abs(plane) < 1e-9) return QObject::tr("at the nearest point");
    return plane < 0 ? QObject::tr("%1 in front").arg(mm(-plane)) : QObject::tr("%1 behind").arg(mm(plane));
}

void add_ring(std::vector<Fact>& facts, const StackReport& stack, const CaptureReport& capture) {
    if (!stack.ring()) {
        const auto* missing = stack.out_of_reach();
        facts.push_back({QObject::tr("Ring"), QObject::tr("cannot make it"),
                         missing && missing->in_front > 0
                             ? QObject::tr("%1 in front are out of its reach").arg(mm(missing->in_front))
                             : QString(),
                         theme().stop});
        return;
    }
    const auto& ring = *stack.ring();
    facts.push_back({QObject::tr("Ring"),
                     QObject::tr("%1 to %2").arg(number(ring.first_ring, 4), number(ring.last_ring, 4)),
                     QObject::tr("%1 of its travel a step: %2 near, %3 far")
                         .arg(percentText(ring.ring_step), mm(ring.least_step), mm(ring.greatest_step))});
    facts.push_back({QObject::tr("Lens against sensor"), mm(ring.image_travel), QObject::tr("over the whole stack")});
    facts.push_back(
        {QObject::tr("Room left"), mm(ring.room_in_front) + QObject::tr(" in front"),
         ring.room_behind ? mm(*ring.room_behind) + QObject::tr(" behind") : QObject::tr("to infinity behind")});
    if (capture.ring_travel)
        facts.push_back({QObject::tr("Scale changes"), percentText(std::abs(capture.ring_travel->scale_change)),
                         QObject::tr("%1 of the frame lost").arg(percentText(capture.ring_travel->crop))});
}

void add_rail(std::vector<Fact>& facts, const StackReport& stack, const CaptureReport& capture) {
    const auto& rail = *stack.rail();
    if (rail.units > 0) {
        QString remark = QObject::tr("%1 least steps of %2").arg(number(rail.units, 6), mm(rail.unit));
        if (rail.motor) remark = QObject::tr("%1 motor steps").arg(number(rail.units, 6));
        if (rail.turns) {
            remark += *rail.turns >= 1 ? QObject::tr(", %1 turns").arg(number(*rail.turns))
                                       : QObject::tr(", %1\u00b0 of a turn").arg(number(*rail.turns * 360));
        }
        facts.push_back({QObject::tr("Rail moves"), mm(*capture.step), remark});
        facts.push_back({QObject::tr("Travel"), mm(rail.travel),
                         rail.spare >= 0 ? QObject::tr("%1 of the rail to spare").arg(mm(rail.spare))
                                         : QObject::tr("%1 too short").arg(mm(-rail.spare)),
                         rail.spare >= 0 ? QColor() : theme().stop});
        facts.push_back({QObject::tr("Backlash"), mm(rail.take_up), QObject::tr("go back too far, then forwards")});
    } else {
        facts.push_back({QObject::tr("Rail moves"), mm(*capture.step), QObject::tr("choose a rail to see its steps")});
    }
    if (rail.clearance)
        facts.push_back({QObject::tr("Lens comes to"), mm(*rail.clearance),
                         QObject::tr("front to nearest point, at the end"),
                         *rail.clearance < 0 ? theme().stop : QColor()});
    if (capture.viewpoint_change)
        facts.push_back({QObject::tr("Viewpoint moves by"), percentText(*capture.viewpoint_change),
                         QObject::tr("of its distance; edges shift")});
}

void add_hand(std::vector<Fact>& facts, const HandStack& hand, double frames) {
    facts.push_back({QObject::tr("A burst"), toQt(count_text(hand.burst_frames, "frame", "frames")),
                     QObject::tr("%1 for a sharp one at one plane").arg(percentText(hand.plane.chance))});
    const bool hopeful = std::isfinite(hand.bursts);
    facts.push_back({QObject::tr("All planes, 95 %"),
                     hopeful ? toQt(count_text(hand.bursts, "burst", "bursts")) : QObject::tr("hopeless"), QString(),
                     hopeful ? QColor() : theme().stop});
    facts.push_back({QObject::tr("Sensible by hand"), toQt(count_text(hand.largest, "frame", "frames")), QString(),
                     frames > hand.largest ? theme().caution : QColor()});
    for (std::size_t i = 0; i < hand.braced.size(); ++i) {
        const auto& odds = hand.braced[i];
        facts.push_back(
            {i == 0 ? QObject::tr("One plane, held") : QObject::tr("\u2026 held"),
             std::isfinite(odds.bursts)
                 ? QObject::tr("%1, %2").arg(percentText(odds.chance), toQt(count_text(odds.bursts, "burst", "bursts")))
                 : QObject::tr("no chance"),
             QString::fromUtf8(braces()[i].name)});
    }
}

void add_bracket(std::vector<Fact>& facts, const Plan& plan, const CaptureReport& capture) {
    const BracketStack& bracket = *capture.stack->bracket();
    if (bracket.choice)
        facts.push_back({QObject::tr("Step setting"), number(bracket.choice->setting),
                         QObject::tr("%1 (%2 to %3) by %4 readings")
                             .arg(mm(bracket.choice->step), mm(bracket.choice->least), mm(bracket.choice->greatest))
                             .arg(bracket.choice->readings)});
    else if (bracket.unmeasured)
        facts.push_back({QObject::tr("Step setting"), QObject::tr("not measured"),
                         QObject::tr("see the leaf Step sizes"), theme().caution});
    else if (bracket.too_coarse)
        facts.push_back(
            {QObject::tr("Step setting"), QObject::tr("none is narrow enough"), QString(), theme().caution});
    const bool centre = starts_centred(plan);
    for (std::size_t i = 0; i < bracket.passes.size() && i < 3; ++i) {
        const auto& pass = bracket.passes[i];
        facts.push_back(
            {bracket.passes.size() > 1 ? QObject::tr("Pass %1 of %2").arg(i + 1).arg(bracket.passes.size())
                                       : QObject::tr("Bracket"),
             toQt(count_text(static_cast<double>(pass.frames), "frame", "frames")),
             QObject::tr("focus %1%2")
                 .arg(place(pass.focus),
                      centre ? QObject::tr("; %1 nearer, %2 further").arg(bracket.before).arg(bracket.behind)
                             : QString())});
    }
    if (centre) {
        if (plan.shot.capture.composite && plan.camera.bracket.combine > 0)
            facts.push_back({QObject::tr("Combines for"), toQt(time_text(plan.camera.bracket.combine)),
                             QObject::tr("and takes nothing meanwhile; stopped early it makes no composite")});
        return;
    }
    // Set to more frames than it takes and stopped by hand, it leaves what the planned number would.
    const double step = capture.frames > 1 ? (capture.stack->last - capture.stack->first) / (capture.frames - 1) : 0;
    const double before = step > 0 ? std::max(0.0, std::ceil(-capture.stack->first / step - 1e-9)) : 0;
    facts.push_back({QObject::tr("Before the nearest"), toQt(count_text(before, "frame", "frames")),
                     before > 0 ? QString() : QObject::tr("\u201cLead\u201d puts some there")});
    const double half = std::ceil(capture.frames / 2);
    facts.push_back({QObject::tr("Stopped by hand"),
                     QObject::tr("after %1").arg(toQt(count_text(capture.frames, "frame", "frames"))),
                     QObject::tr("%1 in; after %2 the nearer %3 is held")
                         .arg(toQt(time_text(capture.cost.cadence.frame * (capture.frames - 1))), number(half, 4),
                              percentText(held_after(plan, capture, half)))});
}

}  // namespace

StackTab::StackTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(5);
    addWhat(column);
    column->addStretch();
    drawing_ = new StackDrawing(document, this);
    addDrawing(drawing_, 8);
    facts_ = new FactsView("stackFacts", tr("How it is taken"), this);
    addDrawing(facts_, 6);
}

void StackTab::addWhat(QVBoxLayout* column) {
    auto* group = addGroup(column, {});
    addChoice(
        group, {"stackModeChoice", tr("Frames"), tr("One frame, or several stepped through the depth and combined")},
        enumerated({"one frame", "a stack"}), [](const Shot& s) { return idOf(s.capture.mode); },
        [](Shot& s, const std::string& id) { s.capture.mode = valueOf<CaptureMode>(id); });
    stackOnly_ = {
        addChoice(
            group,
            {"stackMoverChoice", tr("Moved by"),
             tr("Ring: perspective stays, scale changes. Rail: scale stays, perspective changes. Hand: bursts")},
            enumerated({"focus ring", "rail", "hand, in bursts"}), [](const Shot& s) { return idOf(s.capture.mover); },
            [](Shot& s, const std::string& id) { s.capture.mover = valueOf<Mover>(id); }),
    };
    rail_ = addChoice(
        group, {"stackRailChoice", tr("Rail"), tr("Its steps, travel and backlash come from the kit")},
        [](const Kit& kit) {
            Options options = {{"", "any"}};
            for (const auto& rail : kit.rails) options.emplace_back(rail.id, rail.name);
            return options;
        },
        [](const Shot& s) { return s.rig.rail.value_or(""); },
        [](Shot& s, const std::string& id) { s.rig.rail = id.empty() ? std::nullopt : std::optional(id); });
    addSpan(group);
    addPace(group);
    addHand(group);
    composite_ = addCheck(
        group, {"compositeCheck", tr("Camera combines"), tr("Its own composite of few frames; else all are kept")},
        [](const Shot& s) { return s.capture.composite; }, [](Shot& s, bool on) { s.capture.composite = on; });
    addEnds(column);
}

/// What of the depth it steps through, and how closely.
void StackTab::addSpan(QGridLayout* group) {
    const auto slice = [this](Shot& s) -> Slice& {
        if (!s.capture.slice) s.capture.slice = Slice{.from = 0, .to = this->document().report()->extent.depth};
        return *s.capture.slice;
    };
    const auto add = [&](const Caption& caption, const Quantity& quantity, auto get, auto set) {
        stackOnly_.push_back(addQuantity(group, caption, quantity, get, set));
    };
    add(
        {"sliceFromField", tr("Sharp from"), tr("Behind the nearest point; what lies in front may fall off")},
        lengthQuantity(), [](const Shot& s) { return s.capture.slice ? s.capture.slice->from : 0; },
        [slice](Shot& s, double v) {
            auto& chosen = slice(s);
            chosen.from = v;
            chosen.to = std::max(chosen.to, v);
        });
    add(
        {"sliceToField", tr("\u2026 to"), tr("Behind the nearest point; what lies behind may fall off")},
        lengthQuantity(),
        [this](const Shot& s) {
            const auto* report = this->document().report();
            return s.capture.slice ? s.capture.slice->to : report ? report->extent.depth : 0;
        },
        [slice](Shot& s, double v) {
            auto& chosen = slice(s);
            chosen.to = v;
            chosen.from = std::min(chosen.from, v);
        });
    add(
        {"stackLeadField", tr("Begins before"), tr("Begin this far in front of it")}, lengthQuantity(),
        [](const Shot& s) { return s.capture.lead; }, [](Shot& s, double v) { s.capture.lead = v; });
    add(
        {"stackTailField", tr("Ends behind"), tr("End this far behind it")}, lengthQuantity(),
        [](const Shot& s) { return s.capture.tail; }, [](Shot& s, double v) { s.capture.tail = v; });
    add(
        {"stackOverlapField", tr("Overlap"), tr("Share of a frame's depth that the next one repeats")},
        shareQuantity(text::range::overlap), [](const Shot& s) { return s.capture.overlap; },
        [](Shot& s, double v) { s.capture.overlap = v; });
}

void StackTab::addPace(QGridLayout* group) {
    settle_ = addQuantity(
        group, {"settleField", tr("Settle"), tr("Rest after each move, before the exposure")},
        secondsQuantity(text::range::seconds),
        [](const Shot& s) { return s.capture.settle.value_or(default_settle(s.capture.mover)); },
        [](Shot& s, double v) { s.capture.settle = v; });
    stackOnly_.push_back(settle_);
    interval_ = addQuantity(
        group,
        {"stackIntervalField", tr("Frame every"),
         tr("Interval set on camera or remote, so that the flash keeps up; 0.5 s is about as fast as brackets go")},
        secondsQuantity(), [](const Shot& s) { return s.capture.interval.value_or(0.5); },
        [](Shot& s, double v) { s.capture.interval = v; });
    stackOnly_.push_back(interval_);
    cadence_ = addQuantity(
        group,
        {"cadenceField", tr("Bracket fires"),
         tr("Every so many seconds, as this camera does by itself; decides how long a flash lasts. 0.5 s where it is "
            "not known")},
        secondsQuantity(), [](const Shot& s) { return s.capture.cadence.value_or(s.capture.interval.value_or(0.5)); },
        [](Shot& s, double v) {
            s.capture.cadence = v;
            s.capture.interval.reset();
        });
    stackOnly_.push_back(cadence_);
}

/// Both ends pointed at, or the whole of it.
void StackTab::addEnds(QVBoxLayout* column) {
    auto* row = new QHBoxLayout;
    row->setSpacing(4);
    auto* click = captionedButton({"slicePointsButton", tr("Two points\u2026"),
                                   tr("The nearest and the farthest point that have to be sharp, in the finder")},
                                  this);
    connect(click, &QPushButton::clicked, this, [this] { Q_EMIT slicePointsWanted(); });
    row->addWidget(click);
    all_ = captionedButton({"wholeSliceButton", tr("All of it"), tr("From the nearest point to the farthest")}, this);
    connect(all_, &QPushButton::clicked, this,
            [this] { this->document().editShot({tr("Stack all of it")}, [](Shot& s) { s.capture.slice.reset(); }); });
    row->addWidget(all_);
    row->addStretch();
    column->addLayout(row);
    stackOnly_.push_back(click);
}

void StackTab::addHand(QGridLayout* group) {
    handOnly_ = {
        addChoice(
            group, {"braceChoice", tr("Held"), tr("What usual sways are; measure your own for better")},
            [](const Kit&) {
                Options options = {{"", "as below"}};
                for (const auto& brace : braces()) options.emplace_back(brace.id, brace.name);
                return options;
            },
            [](const Shot& s) {
                for (const auto& brace : braces())
                    if (brace.speed == s.capture.hand.speed && brace.range == s.capture.hand.range)
                        return std::string(brace.id);
                return std::string();
            },
            [](Shot& s, const std::string& id) {
                for (const auto& brace : braces())
                    if (id == brace.id) {
                        s.capture.hand.speed = brace.speed;
                        s.capture.hand.range = brace.range;
                    }
            }),
        addQuantity(
            group, {"burstRateField", tr("Frames a second"), tr("Of the continuous drive")},
            ratioQuantity(text::range::some_frequency), [](const Shot& s) { return s.capture.hand.frames_per_second; },
            [](Shot& s, double v) { s.capture.hand.frames_per_second = v; }),
        addQuantity(
            group, {"burstLengthField", tr("A burst lasts"), tr("How long the shutter is held")}, secondsQuantity(),
            [](const Shot& s) { return s.capture.hand.burst; },
            [](Shot& s, double v) {
                if (v > 0) s.capture.hand.burst = v;
            }),
        addQuantity(
            group, {"swaySpeedField", tr("Sway"), tr("How fast the camera moves to and fro")},
            speedQuantity(text::range::some_speed), [](const Shot& s) { return s.capture.hand.speed; },
            [](Shot& s, double v) {
                if (v > 0) s.capture.hand.speed = v;
            }),
        addQuantity(
            group, {"swayRangeField", tr("\u2026 through"), tr("From one end of the sway to the other")},
            lengthQuantity(text::range::size), [](const Shot& s) { return s.capture.hand.range; },
            [](Shot& s, double v) { s.capture.hand.range = v; }),
    };
}

void StackTab::showShot(const Shot& shot, const Report& report) {
    const auto& capture = report.capture;
    const bool stack = shot.capture.mode == CaptureMode::stack;
    for (QWidget* control : stackOnly_) setRowEnabled(control, stack);
    const auto mover = shot.capture.mover;
    for (QWidget* control : handOnly_) setRowVisible(control, stack && mover == Mover::hand);
    setRowVisible(rail_, stack && mover == Mover::rail);
    setRowVisible(settle_, mover == Mover::rail || (mover == Mover::ring && !shot.capture.cadence));
    setRowVisible(interval_, mover == Mover::rail);  // the camera's own pace elsewhere
    setRowVisible(cadence_, stack && mover == Mover::ring);
    setRowVisible(composite_, stack && mover == Mover::ring);
    all_->setEnabled(stack && shot.capture.slice.has_value());
    std::vector<Fact> facts;
    if (!stack || !capture.stack) {
        facts.push_back(
            {tr("Frames"), tr("one"),
             capture.frame_depth ? tr("it holds %1").arg(mm(*capture.frame_depth)) : tr("sharp without end")});
    } else {
        facts.push_back({tr("Frames"), number(capture.frames, 6),
                         tr("for %1, each holds %2").arg(mm(capture.stack->span.length()), mm(*capture.frame_depth))});
        facts.push_back({tr("Step"), mm(*capture.step),
                         *capture.step < *capture.by_rule.step * (1 - 1e-6)
                             ? tr("the rule would allow %1").arg(mm(*capture.by_rule.step))
                             : QString()});
        facts.push_back(
            {tr("First plane"), place(capture.stack->first), tr("last %1").arg(place(capture.stack->last))});
        if (capture.stack->bracket()) add_bracket(facts, document().assessment()->plan, capture);
        if (mover == Mover::ring) add_ring(facts, *capture.stack, capture);
        if (capture.stack->rail()) add_rail(facts, *capture.stack, capture);
        if (capture.stack->hand()) add_hand(facts, *capture.stack->hand(), capture.frames);
    }
    facts_->setFacts(std::move(facts));
    drawing_->update();
}

}  // namespace poquito::desk

#include "desk/run/moc_stack_tab.moc"
