#include "desk/light/lights_tab.hpp"

#include "desk/session/chosen_light.hpp"
#include "light/gels.hpp"
#include "light/store.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "shoot/names.hpp"
#include "text/text.hpp"
#include "whatif/grey_patch.hpp"

#include <QDateTime>
#include <QGridLayout>

#include <algorithm>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

void LightsTab::addGel(QGridLayout* group) {
    gel_ = addChoice(
        group, {"gelChoice", tr("Gel"), tr("Warms or cools its light, so that it matches the other light there is")},
        [](const Kit&) {
            Options options = {{"0", "none"}};
            for (const auto& gel : light::gels())
                options.emplace_back(number_text(gel.mired, 4),
                                     std::string(gel.name) + ", " + number_text(gel.mired, 4) + " mired");
            return options;
        },
        [this](const Shot& s) { return number_text(at(s).gel, 4); },
        [this](Shot& s, const std::string& id) { with(s, [&](Light& l) { l.gel = parse_number(id).value_or(0); }); });
}

/// Not of the shot but of the kit: how many frames of a burst were whole says what the unit stores.
void LightsTab::addStore(QGridLayout* group) {
    whole_ =
        addField(group,
                 {"wholeFramesField", tr("Whole in a row"),
                  tr("Frames at this pace before the first weak one; type how many yours gave to calibrate its store")},
                 countQuantity());
    connect(whole_, &QuantityField::valueEdited, this, [this](double count) {
        const auto* assessment = document().assessment();
        const std::size_t light = chosen_.index(*document().shot());
        const auto range = light::observed_store(rapid_fire_of(assessment->plan, assessment->report, light), count);
        if (!range || count < 1) return;
        document().edit(
            {tr("Calibrate a flash's store"), QStringLiteral("wholeFrames#%1").arg(whole_->visit())},
            [&](Shoot& shoot) {
                const auto& id =
                    std::as_const(shoot.shots)[static_cast<std::size_t>(document().current())].lights[light].flash;
                const auto unit = std::ranges::find(shoot.kit.flashes, id, &Flash::id);
                if (unit != shoot.kit.flashes.end()) unit->burst_store = (range->least + range->most) / 2;
            });
    });
}

void LightsTab::addCard(QGridLayout* group) {
    const auto card = [&](const Caption& caption, const Quantity& quantity, auto member) {
        cardOnly_.push_back(addQuantity(
            group, caption, quantity,
            [this, member](const Shot& s) {
                Reflector shown = at(s).reflector.value_or(Reflector{});
                return member(shown);
            },
            [this, member](Shot& s, double v) {
                with(s, [&](Light& l) {
                    if (l.reflector) member(*l.reflector) = v;
                });
            }));
    };
    card(
        {"cardReflectsField", tr("Sends back"), tr("White card 90 %, silver foil 80 %, cream wall 50 %")},
        shareQuantity(text::range::reflecting), [](auto& r) -> auto& { return r.reflectance; });
    card(
        {"cardSizeField", tr("Wide"), tr("Its diameter, or the side of a square one")},
        lengthQuantity(text::range::size), [](auto& r) -> auto& { return r.diameter; });
}

/// A rim light and a light on the card do not take part in the exposure: they are told what to give.
void LightsTab::addOwnStops(QGridLayout* group) {
    own_ = addChoice(
        group,
        {"ownStopsChoice", tr("It gives"),
         tr("What the front still needs, or so many stops of its own: a rim, the light on a backdrop")},
        [](const Kit&) {
            return Options{{"", "what is needed"}, {"subject", "its own, here"}, {"background", "its own, behind"}};
        },
        [this](const Shot& s) { return at(s).own_stops ? std::string(name_of(at(s).own_at)) : std::string(); },
        [this](Shot& s, const std::string& id) {
            with(s, [&](Light& l) {
                if (id.empty()) {
                    l.own_stops.reset();
                    l.own_at = OwnAt::subject;
                    return;
                }
                l.own_at = id == name_of(OwnAt::background) ? OwnAt::background : OwnAt::subject;
                l.own_stops = l.own_stops.value_or(l.own_at == OwnAt::subject ? 1 : 0);  // a rim a stop over
                l.metered.reset();
            });
        });
    ownStops_ = addQuantity(
        group, {"ownStopsField", tr("Its stops"), tr("As a meter turned to it reads; 0 is a correct exposure")},
        stopsQuantity(), [this](const Shot& s) { return at(s).own_stops.value_or(0); },
        [this](Shot& s, double v) {
            with(s, [&](Light& l) {
                if (l.own_stops) l.own_stops = v;
            });
        });
}

void LightsTab::addPower(QGridLayout* group) {
    automatic_ = addCheck(
        group,
        {"automaticCheck", tr("Find the power"),
         tr("The power that makes the exposure correct; several share what ambient and fixed flashes leave")},
        [this](const Shot& s) { return !s.lights.empty() && !at(s).power.has_value(); },
        [this](Shot& s, bool on) {
            const auto& sources = this->document().report()->light.sources;
            with(s, [&](Light& l) {
                const auto suggested = sources[chosen_.index(s)].suggested_power;
                l.power = on ? std::nullopt : std::optional(suggested.value_or(1.0 / 16));
                if (!on) l.metered.reset(), l.own_stops.reset();
            });
        });
    addOwnStops(group);
    auto quantity = powerQuantity();
    quantity.parse = [this](const std::string& text) -> std::optional<double> {
        const Shot* s = this->document().shot();
        return s && !s->lights.empty() ? parse_setting(source_of(this->document().kit(), at(*s)), text) : std::nullopt;
    };
    quantity.print = [this](double power) {
        const Shot* s = this->document().shot();
        return s && !s->lights.empty() ? setting_text(source_of(this->document().kit(), at(*s)), power)
                                       : power_text(power);
    };
    power_ = addQuantity(
        group, {"powerField", tr("Power"), tr("As the unit shows it: 1/8, 1/8 +0.3, \u22123 stops, 50 Ws or 40 %")},
        quantity,
        [this](const Shot& s) {
            if (s.lights.empty()) return 1.0;
            const auto& source = this->document().report()->light.sources[chosen_.index(s)];
            return at(s).power.value_or(source.suggested_power.value_or(1));
        },
        [this](Shot& s, double v) {
            with(s, [&](Light&) {
                // The lights of its group follow.
                const auto group_name = group_of(s, chosen_.index(s));
                for (std::size_t i = 0; i < s.lights.size(); ++i) {
                    if (group_of(s, i) != group_name || is_flash(s.lights[i]) != is_flash(at(s))) continue;
                    if (is_reflector(s.lights[i])) continue;
                    s.lights[i].own_stops.reset();
                    s.lights[i].power = v;
                    s.lights[i].metered.reset();  // a fixed power is not metered
                }
            });
        });
    addReading(group);
    metered_ = addCheck(
        group,
        {"meteredCheck", tr("The camera meters it"),
         tr("Automatic flash through the lens: it brings the average of the field to mid grey")},
        [this](const Shot& s) { return at(s).metered.has_value(); },
        [this](Shot& s, bool on) { with(s, [&](Light& l) { l.metered = on ? std::optional(0.0) : std::nullopt; }); });
    compensation_ = addQuantity(
        group, {"compensationField", tr("Compensation"), tr("Of the automatic flash, in stops; minus is darker")},
        stopsQuantity(), [this](const Shot& s) { return at(s).metered.value_or(0); },
        [this](Shot& s, double v) {
            with(s, [&](Light& l) {
                if (l.metered) l.metered = v;
            });
        });
}

/// Not of the shot but of the kit: what the meter read of the lamp corrects its record.
void LightsTab::addReading(QGridLayout* group) {
    reading_ = addField(
        group,
        {"lampReadingField", tr("Meter reads"),
         tr("Of this lamp alone, at the subject; type what your meter shows to calibrate it, here and in the bag")},
        exposureValueQuantity());
    connect(reading_, &QuantityField::valueEdited, this, [this](double ev100) {
        const auto& plan = document().assessment()->plan;
        const std::size_t light = chosen_.index(plan.shot);
        const auto now = QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm:ss")).toStdString();
        document().learn({tr("Calibrate a lamp"), QStringLiteral("lampReading#%1").arg(reading_->visit())},
                         [&](Shoot& shoot) { shoot.kit = whatif::taught_by_reading(plan, light, ev100, now); });
    });
}

}  // namespace poquito::desk
