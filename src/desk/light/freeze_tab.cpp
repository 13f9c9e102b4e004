#include "desk/light/freeze_tab.hpp"

#include "desk/light/fall_drawing.hpp"
#include "desk/light/freeze_table.hpp"
#include "desk/pages/options.hpp"
#include "plan/motion/freeze.hpp"
#include "plan/motion/trajectory.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

light::Toss tossOf(const shoot::Freeze& freeze) { return {.speed = freeze.speed, .angle = shoot::angle_of(freeze)}; }

}  // namespace

using namespace text;
using namespace shoot;
using namespace plan;

FreezeTab::FreezeTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* first = addColumn(4);
    first->setSpacing(4);
    addWhat(first);
    addWhen(first);
    first->addStretch();
    fall_ = new FallDrawing(document, this);
    addDrawing(fall_, 2);
    table_ = new FreezeTable(document, this);
    addDrawing(table_, 7);
}

template <typename Member>
QuantityField* FreezeTab::addNumber(QGridLayout* group, const Caption& caption, const Quantity& quantity,
                                    Member member) {
    auto* field = addQuantity(
        group, caption, quantity,
        [member](const Shot& s) {
            Freeze shown = s.freeze.value_or(Freeze{});
            return static_cast<double>(member(shown));
        },
        [member](Shot& s, double v) {
            if (!s.freeze) return;
            using Number = std::decay_t<decltype(member(*s.freeze))>;
            member(*s.freeze) = static_cast<Number>(v);
            if (s.freeze->act != Act::thrown) s.freeze->drop = std::max(0.0, s.freeze->drop);
            if (s.freeze->second) s.freeze->second->column = std::min(s.freeze->second->column, s.freeze->drop);
            s.subject.speed = std::round(speed_of(*s.freeze));
        });
    planOnly_.push_back(field);
    return field;
}

void FreezeTab::addWhat(QLayout* column) {
    auto* group = addGroup(column, {});
    addCheck(
        group, {"freezeCheck", tr("Something moves"), tr("It falls, is thrown or splashes past the lens")},
        [](const Shot& s) { return s.freeze.has_value(); },
        [](Shot& s, bool on) {
            s.freeze = on ? std::optional(Freeze{}) : std::nullopt;
            s.subject.speed = on ? std::round(speed_of(*s.freeze)) : 0;
        });
    planOnly_.push_back(addChoice(
        group, {"actChoice", tr("It"), tr("Decides how its speed follows")},
        enumerated({"falls", "is thrown", "splashes", "sinks evenly"}),
        [](const Shot& s) { return idOf(s.freeze.value_or(Freeze{}).act); },
        [](Shot& s, const std::string& id) {
            if (!s.freeze) return;
            s.freeze->act = valueOf<Act>(id);
            // A plume of dye sinks by some centimetres a second (common practice).
            constexpr double plume = 30, toss = 2000, apart = 300;
            if (s.freeze->act == Act::sinks && s.freeze->speed > apart) s.freeze->speed = plume;
            if (s.freeze->act == Act::thrown && s.freeze->speed < apart) s.freeze->speed = toss;
            s.freeze->drop = s.freeze->act == Act::thrown ? s.freeze->drop : std::max(0.0, s.freeze->drop);
            s.subject.speed = std::round(speed_of(*s.freeze));
        }));
    drop_ = addNumber(
        group,
        {"dropField", tr("Drop"), tr("From where it starts down to the wanted place; negative: thrown up to it")},
        lengthQuantity(text::range::offset), [](Freeze & f) -> auto& { return f.drop; });
    thrown_ = addNumber(
        group, {"throwField", tr("Speed"), tr("As it leaves the hand; of a plume of dye, as it sinks")},
        speedQuantity(), [](Freeze & f) -> auto& { return f.speed; });
    rises_ = addQuantity(
        group, {"risesField", tr("Rises"), tr("How high over the hand it turns; sets the speed")}, lengthQuantity(),
        [](const Shot& s) { return s.freeze ? light::top_height(tossOf(*s.freeze)) : 0; },
        [](Shot& s, double v) {
            if (!s.freeze) return;
            if (const auto speed = light::speed_to_rise(v, angle_of(*s.freeze))) s.freeze->speed = *speed;
            s.subject.speed = std::round(speed_of(*s.freeze));
        });
    angle_ = addQuantity(
        group, {"angleField", tr("Angle"), tr("Over the horizontal, across the frame; past 90 it goes to the left")},
        angleQuantity(text::range::half_turn), [](const Shot& s) { return angle_of(s.freeze.value_or(Freeze{})); },
        [](Shot& s, double v) {
            if (!s.freeze) return;
            s.freeze->angle = v;
            s.subject.speed = std::round(speed_of(*s.freeze));
        });
    moment_ = addChoice(
        group, {"momentChoice", tr("Wanted"), tr("Where on its way the frame looks and the light is to meet it")},
        enumerated({"at the place", "at its top", "coming down"}),
        [](const Shot& s) { return idOf(s.freeze.value_or(Freeze{}).moment); },
        [](Shot& s, const std::string& id) {
            if (!s.freeze) return;
            s.freeze->moment = valueOf<Moment>(id);
            s.subject.speed = std::round(speed_of(*s.freeze));
        });
    addNumber(
        group, {"wantedBlurField", tr("Blur wanted"), tr("In pixels; 2 is as sharp as the sensor tells")},
        ratioQuantity(text::range::pixels), [](Freeze & f) -> auto& { return f.wanted_blur; });
}

void FreezeTab::addWhen(QLayout* column) {
    auto* group = addGroup(column, {});
    planOnly_.push_back(addChoice(
        group, {"triggerChoice", tr("Fired by"), tr("What tells the camera or the flash that it is time")},
        enumerated({"a beam", "its sound", "hand"}),
        [](const Shot& s) { return idOf(s.freeze.value_or(Freeze{}).trigger); },
        [](Shot& s, const std::string& id) {
            if (s.freeze) s.freeze->trigger = valueOf<Trigger>(id);
        }));
    beam_ = addNumber(
        group, {"beamField", tr("Beam above"), tr("Over the wanted place")}, lengthQuantity(),
        [](Freeze & f) -> auto& { return f.beam_above; });
    rise_ = addQuantity(
        group, {"beamRiseField", tr("Beam over hand"), tr("Where its way crosses the beam; or drag it in the drawing")},
        lengthQuantity(text::range::offset), [](const Shot& s) { return s.freeze ? beam_rise_of(*s.freeze) : 0; },
        [](Shot& s, double v) {
            if (s.freeze) s.freeze->beam_rise = v;
        });
    undelayed_ = addCheck(
        group, {"undelayedCheck", tr("No delay"), tr("The light comes as soon as trigger and camera can")},
        [](const Shot& s) { return s.freeze && s.freeze->undelayed; },
        [](Shot& s, bool on) {
            if (!s.freeze) return;
            s.freeze->undelayed = on;
            s.subject.speed = std::round(speed_of(*s.freeze));
        });
    sound_ = addNumber(
        group, {"soundField", tr("Sound from"), tr("From the sound to its trigger")}, lengthQuantity(),
        [](Freeze & f) -> auto& { return f.sound_distance; });
    addNumber(
        group, {"lagField", tr("Lag"), tr("Of trigger and camera together; 50 to 100 ms is common")},
        secondsQuantity(text::range::seconds), [](Freeze & f) -> auto& { return f.lag; });
    addNumber(
        group,
        {"scatterField", tr("Scatter"),
         tr("How much nearer or farther than planned it comes down: two of three within this")},
        lengthQuantity(), [](Freeze & f) -> auto& { return f.scatter; });
    second_ = addCheck(
        group, {"secondDropCheck", tr("A second drop meets it"), tr("On the column the first one throws up")},
        [](const Shot& s) { return s.freeze && s.freeze->second; },
        [](Shot& s, bool on) {
            if (!s.freeze) return;
            s.freeze->second = on ? std::optional(TwoDrops{.column = std::min(20.0, s.freeze->drop)}) : std::nullopt;
        });
    const auto drop = [](Freeze& f) -> TwoDrops& {
        static TwoDrops none;
        return f.second ? *f.second : none = TwoDrops{};
    };
    secondOnly_ = {addNumber(
                       group, {"riseField", tr("Column after"), tr("From the first drop's impact until it stands")},
                       secondsQuantity(text::range::seconds), [drop](Freeze & f) -> auto& { return drop(f).rise; }),
                   addNumber(
                       group, {"columnField", tr("Column high"), tr("As high as it then stands")},
                       lengthQuantity(), [drop](Freeze & f) -> auto& { return drop(f).column; })};
    repeating_ = addCheck(
        group, {"repeatingCheck", tr("Repeating flash"), tr("Several images of it in one frame")},
        [](const Shot& s) { return s.freeze && s.freeze->repeating; },
        [](Shot& s, bool on) {
            if (s.freeze) s.freeze->repeating = on ? std::optional(RepeatingFlash{}) : std::nullopt;
        });
    const auto burst = [](Freeze& f) -> light::Burst& {
        static RepeatingFlash none;
        return f.repeating ? f.repeating->burst : (none = RepeatingFlash{}).burst;
    };
    repeatingOnly_ = {addNumber(
                          group, {"burstCountField", tr("Flashes"), tr("In one frame")},
                          countQuantity({.least = 1, .greatest = text::range::most}),
                          [burst](Freeze & f) -> auto& { return burst(f).flashes; }),
                      addNumber(
                          group, {"burstFrequencyField", tr("Each second"), tr("Hertz, as set on the unit")},
                          frequencyQuantity(text::range::some_frequency), [burst](Freeze & f) -> auto& {
                              return burst(f).frequency;
                          })};
}

void FreezeTab::showShot(const Shot& shot, const Report&) {
    const bool on = shot.freeze.has_value();
    const Freeze freeze = shot.freeze.value_or(Freeze{});
    for (QWidget* control : planOnly_) setRowVisible(control, on);
    const bool thrown = on && freeze.act == Act::thrown;
    for (QWidget* control : std::initializer_list<QWidget*>{thrown_, rises_, angle_, moment_})
        setRowVisible(control, thrown);
    const bool sinks = on && freeze.act == Act::sinks;
    setRowVisible(thrown_, thrown || sinks);
    setRowVisible(drop_, on && !(thrown && freeze.moment == Moment::top));
    rises_->setEnabled(light::top_height(tossOf(freeze)) > 0);
    setRowVisible(beam_, on && !thrown && freeze.trigger == Trigger::beam);
    setRowVisible(rise_, thrown && freeze.trigger == Trigger::beam);
    undelayed_->setVisible(on && freeze.trigger == Trigger::beam);
    setRowVisible(sound_, on && freeze.trigger == Trigger::sound);
    second_->setVisible(on && freeze.act == Act::splash);
    for (QWidget* control : secondOnly_) setRowVisible(control, on && freeze.act == Act::splash && freeze.second);
    repeating_->setVisible(on);
    for (QWidget* control : repeatingOnly_) setRowVisible(control, on && freeze.repeating.has_value());
    // A throw goes across, a fall only down.
    fall_->setFocusPolicy(thrown && freeze.trigger == Trigger::beam ? Qt::StrongFocus : Qt::NoFocus);
    setShare(fall_, thrown ? 5 : 2);
    setShare(table_, thrown ? 5 : 7);
    fall_->update();
    table_->refresh();
}

}  // namespace poquito::desk

#include "desk/light/moc_freeze_tab.moc"
