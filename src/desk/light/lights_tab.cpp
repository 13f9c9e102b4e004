#include "desk/light/lights_tab.hpp"

#include "desk/light/light_scale.hpp"
#include "desk/session/chosen_light.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/theme.hpp"
#include "light/gels.hpp"
#include "light/store.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "shoot/names.hpp"
#include "text/text.hpp"
#include "whatif/grey_patch.hpp"
#include "whatif/power_sets.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QDateTime>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QToolButton>

#include <algorithm>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

namespace {

/// A unit of the kit as an id of a choice: flashes and lamps may bear the same one.
constexpr const char* flash_prefix = "flash:";
constexpr const char* lamp_prefix = "lamp:";
constexpr const char* card_prefix = "card:";

std::string unit_id(const Light& light) {
    if (is_reflector(light)) return card_prefix;
    return is_flash(light) ? flash_prefix + light.flash : lamp_prefix + *light.lamp;
}

/// A card of the kit's, or one that it does not list.
void take_card(const Kit& kit, Light& light, const std::string& id) {
    const Card* card = find_gear(kit.cards, id);
    Light made{.reflector = Reflector{}, .position = light.position};
    if (card) made.reflector = Reflector{.reflectance = *card->reflectance, .diameter = card->diameter};
    light = made;
}

void take_unit(const Kit& kit, Light& light, const std::string& id) {
    const std::string card = card_prefix;
    if (id.starts_with(card)) {
        take_card(kit, light, id.substr(card.size()));
        return;
    }
    light.reflector.reset();
    const std::string lamp = lamp_prefix;
    if (id.starts_with(lamp)) {
        light.lamp = id.substr(lamp.size());
        light.flash.clear();
        light.power = std::min(light.power.value_or(1), 1.0);  // a lamp is never automatic
        light.metered.reset();
        light.own_stops.reset();
        light.on_lens = false;
        return;
    }
    light.lamp.reset();
    light.flash = id.substr(std::string(flash_prefix).size());
}

}  // namespace

LightsTab::LightsTab(Document& document, ChosenLight& chosen, QWidget* parent)
    : StationPage(document, parent), chosen_(chosen) {
    auto* first = addColumn(7);
    first->setSpacing(4);
    addHeader(first);
    fields_ = new QWidget(this);
    auto* side_by_side = new QHBoxLayout(fields_);
    side_by_side->setContentsMargins(0, 0, 0, 0);
    side_by_side->setSpacing(14);
    auto* unit = new QVBoxLayout;
    auto* place = new QVBoxLayout;
    side_by_side->addLayout(unit, 6);
    side_by_side->addLayout(place, 4);
    addUnit(unit);
    addPlace(place);
    unit->addStretch();
    place->addStretch();
    first->addWidget(fields_);
    first->addStretch();
    scale_ = new LightScale(document, LightScale::Shows::sources, this);
    addDrawing(scale_, 5);
    connect(&chosen_, &ChosenLight::chosen, this, &LightsTab::refresh);
}

const Light& LightsTab::at(const Shot& shot) const {
    static const Light none;
    return shot.lights.empty() ? none : shot.lights[chosen_.index(shot)];
}

template <typename Change>
void LightsTab::with(Shot& shot, Change change) const {
    if (!shot.lights.empty()) change(shot.lights[chosen_.index(shot)]);
}

void LightsTab::addHeader(QVBoxLayout* column) {
    auto* header = new QWidget(this);
    tabs_ = new QHBoxLayout(header);
    tabs_->setContentsMargins(0, 0, 0, 0);
    tabs_->setSpacing(4);
    const auto link = [&](const Caption& caption) {
        auto* made = new QToolButton(header);
        made->setText(caption.label);
        nameControl(made, caption);
        made->setProperty("link", true);
        return made;
    };
    auto* add = link({"addFlashButton", tr("Add"), tr("Another light, opposite to the last")});
    connect(add, &QToolButton::clicked, this, &LightsTab::addFlash);
    powers_ = link({"powersButton", tr("Powers\u2026"), tr("Stored powers of the groups: call up, store, forget")});
    powers_->setMenu(new QMenu(powers_));
    powers_->setPopupMode(QToolButton::InstantPopup);
    connect(powers_->menu(), &QMenu::aboutToShow, this, &LightsTab::showPowerMenu);
    remove_ = new QPushButton(this);
    remove_->setObjectName(QStringLiteral("removeFlashButton"));
    remove_->setAccessibleName(tr("Remove this light"));
    remove_->setProperty("link", true);
    connect(remove_, &QPushButton::clicked, this, &LightsTab::removeFlash);
    tabs_->addStretch();
    tabs_->addWidget(add);
    tabs_->addWidget(remove_);
    tabs_->addWidget(powers_);
    column->addWidget(header);
    noFlash_ = new QLabel(tr("No flash and no lamp: the ambient light makes the exposure."), this);
    noFlash_->setProperty("quiet", true);
    noFlash_->setWordWrap(true);
    column->addWidget(noFlash_);
}

void LightsTab::addUnit(QLayout* column) {
    auto* group = addGroup(column, {});
    addChoice(
        group,
        {"flashChoice", tr("Unit"),
         tr("Flash or lamp from the kit, or a card that sends back the light that is there")},
        [](const Kit& kit) {
            Options options;
            for (const auto& flash : kit.flashes) options.emplace_back(flash_prefix + flash.id, flash.name);
            for (const auto& lamp : kit.lamps) options.emplace_back(lamp_prefix + lamp.id, lamp.name);
            options.emplace_back(card_prefix, "reflector");
            for (const auto& card : kit.cards)
                if (card.reflectance) options.emplace_back(card_prefix + card.id, card.name);
            return options;
        },
        [this](const Shot& s) { return s.lights.empty() ? std::string() : unit_id(at(s)); },
        [this](Shot& s, const std::string& id) { with(s, [&](Light& l) { take_unit(document().kit(), l, id); }); });
    modifier_ = addChoice(
        group, {"modifierChoice", tr("Modifier"), tr("Softens or narrows the light and costs some")},
        [](const Kit& kit) {
            Options options = {{"", "bare"}};
            for (const auto& modifier : kit.modifiers) options.emplace_back(modifier.id, modifier.name);
            return options;
        },
        [this](const Shot& s) { return at(s).modifier.value_or(""); },
        [this](Shot& s, const std::string& id) {
            with(s, [&](Light& l) { l.modifier = id.empty() ? std::nullopt : std::optional(id); });
        });
    layer_ = addCheck(
        group, {"secondLayerCheck", tr("Second layer of diffuser"), tr("Softer still, for the stops its record gives")},
        [this](const Shot& s) { return at(s).second_layer; },
        [this](Shot& s, bool on) { with(s, [&](Light& l) { l.second_layer = on; }); });
    addCheck(
        group, {"lightOffCheck", tr("Stays dark"), tr("It stands there and does not fire; its setting is kept")},
        [this](const Shot& s) { return at(s).off; },
        [this](Shot& s, bool on) { with(s, [&](Light& l) { l.off = on; }); });
    group_ = addChoice(
        group, {"groupChoice", tr("Group"), tr("Lights of a group are set together and stored together")},
        [](const Kit&) {
            return Options{{"", "of its own"}, {"A", "A"}, {"B", "B"}, {"C", "C"}};
        },
        [this](const Shot& s) { return at(s).group.value_or(""); },
        [this](Shot& s, const std::string& id) {
            with(s, [&](Light& l) { l.group = id.empty() ? std::nullopt : std::optional(id); });
        });
    addPower(group);
    addStore(group);
    addGel(group);
    addCard(group);
}

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

void LightsTab::addPlace(QLayout* column) {
    auto* group = addGroup(column, {});
    const auto place = [&](const Caption& caption, const Quantity& quantity, auto member) {
        placement_.push_back(addQuantity(
            group, caption, quantity, [this, member](const Shot& s) { return member(at(s)); },
            [this, member](Shot& s, double v) { with(s, [&](Light& l) { member(l) = v; }); }));
    };
    onLens_ = addCheck(
        group,
        {"onLensCheck", tr("On the lens"),
         tr("Hangs on the front: its distance and angle follow from front diameter and working distance")},
        [this](const Shot& s) { return at(s).on_lens; },
        [this](Shot& s, bool on) { with(s, [&](Light& l) { l.on_lens = on; }); });
    ratio_ = addQuantity(
        group,
        {"ratioField", tr("Right to left"),
         tr("Stops that the tube to the right gives more than the other; \u00b18: the other is off")},
        stopsQuantity(), [this](const Shot& s) { return at(s).ratio; },
        [this](Shot& s, double v) { with(s, [&](Light& l) { l.ratio = std::clamp(v, -8.0, 8.0); }); });
    place(
        {"lightDistanceField", tr("Distance"), tr("Light to the subject's centre; bounced: from the card")},
        lengthQuantity(text::range::size), [](auto& l) -> auto& { return l.position.distance; });
    place(
        {"azimuthField", tr("Azimuth"),
         tr("From the camera's side of the axis, positive to the right; 180\u00b0 is behind the subject")},
        angleQuantity(), [](auto& l) -> auto& { return l.position.azimuth; });
    place(
        {"elevationField", tr("Elevation"), tr("Above the horizontal")}, angleQuantity(),
        [](auto& l) -> auto& { return l.position.elevation; });
    const auto before_aim = placement_.size();
    place(
        {"turnField", tr("Turned"), tr("Past the subject, to its own right; 0 looks straight at it")}, angleQuantity(),
        [](auto& l) -> auto& { return l.aim.turn; });
    place(
        {"tipField", tr("Tipped"), tr("Up, past the subject; 0 looks straight at it")}, angleQuantity(),
        [](auto& l) -> auto& { return l.aim.tip; });
    aims_.assign(placement_.begin() + static_cast<std::ptrdiff_t>(before_aim), placement_.end());
    addBounce(group);
}

void LightsTab::addBounce(QGridLayout* group) {
    bounced_ = addCheck(
        group,
        {"bounceCheck", tr("Off a card or ceiling"),
         tr("Distance and angles are then the surface's; the whole path counts, and what the surface swallows")},
        [this](const Shot& s) { return at(s).bounce.has_value(); },
        [this](Shot& s, bool on) {
            with(s, [&](Light& l) { l.bounce = on ? std::optional(Bounce{}) : std::nullopt; });
        });
    const auto bounce = [&](const Caption& caption, const Quantity& quantity, auto member) {
        bounceOnly_.push_back(addQuantity(
            group, caption, quantity,
            [this, member](const Shot& s) {
                Bounce shown = at(s).bounce.value_or(Bounce{});
                return member(shown);
            },
            [this, member](Shot& s, double v) {
                with(s, [&](Light& l) {
                    if (l.bounce) member(*l.bounce) = v;
                });
            }));
    };
    bounce(
        {"bounceDistanceField", tr("Lamp to it"), tr("From the lamp to the surface")},
        lengthQuantity(text::range::size), [](auto& b) -> auto& { return b.from_lamp; });
    bounce(
        {"bounceReflectanceField", tr("Reflects"), tr("White card 85 %, white ceiling 70 %, cream wall 50 %")},
        shareQuantity(text::range::reflecting), [](auto& b) -> auto& { return b.reflectance; });
    bounce(
        {"bounceSizeField", tr("Lit patch"), tr("Diameter of the card, or of what the lamp lights of the surface")},
        lengthQuantity(text::range::size), [](auto& b) -> auto& { return b.diameter; });
}

void LightsTab::addFlash() {
    const auto& kit = document().kit();
    if (kit.flashes.empty() && kit.lamps.empty()) return;
    document().editShot({tr("Add a light")}, [&](Shot& shot) {
        Light light;
        if (kit.flashes.empty()) {
            light.lamp = kit.lamps.front().id;
            light.power = 1;
        } else {
            light.flash = kit.flashes.front().id;
        }
        if (!kit.modifiers.empty()) light.modifier = kit.modifiers.front().id;
        // Opposite to the last one, so that a second light is a second side.
        const double side = shot.lights.empty() ? -45 : -shot.lights.back().position.azimuth;
        light.position = {.distance = 300, .azimuth = side, .elevation = 40};
        shot.lights.push_back(light);
    });
    chosen_.choose(document().shot()->lights.size() - 1);
}

void LightsTab::removeFlash() {
    document().editShot({tr("Remove a light")}, [&](Shot& shot) {
        if (!shot.lights.empty())
            shot.lights.erase(shot.lights.begin() + static_cast<std::ptrdiff_t>(chosen_.index(shot)));
    });
}

void LightsTab::showPowerMenu() {
    auto* menu = powers_->menu();
    menu->clear();
    for (const PowerSet& set : document().shoot().power_sets) {
        QString words = toQt(set.name);
        for (const auto& [group, power] : set.powers)
            words += QStringLiteral("   %1 %2").arg(toQt(group), toQt(power_text(power)));
        connect(menu->addAction(words), &QAction::triggered, this, [this, set] {
            document().editShot({tr("Call up powers")}, [&](Shot& shot) { whatif::call_up(set, shot); });
        });
    }
    if (!menu->isEmpty()) menu->addSeparator();
    auto* store = menu->addAction(tr("Store these\u2026"));
    store->setEnabled(document().shot() && !document().shot()->lights.empty());
    connect(store, &QAction::triggered, this, [this] {
        bool ok = false;
        const QString name =
            QInputDialog::getText(this, tr("Store powers"), tr("What these powers are for, such as \u201cclose\u201d"),
                                  QLineEdit::Normal, tr("close"), &ok);
        if (!ok || name.trimmed().isEmpty()) return;
        const Shot shot = *document().shot();
        document().edit({tr("Store powers")},
                        [&](Shoot& shoot) { whatif::store_powers(shoot, shot, name.trimmed().toStdString()); });
    });
    if (document().shoot().power_sets.empty()) return;
    auto* forget = menu->addMenu(tr("Forget"));
    for (const PowerSet& set : document().shoot().power_sets)
        connect(forget->addAction(toQt(set.name)), &QAction::triggered, this, [this, name = set.name] {
            document().edit({tr("Forget powers")}, [&](Shoot& shoot) { whatif::forget_powers(shoot, name); });
        });
}

void LightsTab::showTabs(const Shot& shot) {
    while (tabButtons_.size() < shot.lights.size()) {
        const auto i = static_cast<int>(tabButtons_.size());
        auto* button = new QToolButton(tabs_->parentWidget());
        button->setObjectName(QStringLiteral("flashTab%1").arg(QChar('A' + i)));
        button->setCheckable(true);
        button->setFocusPolicy(Qt::StrongFocus);  // ends the visit to a field of the other light
        tabs_->insertWidget(i, button);
        connect(button, &QToolButton::clicked, this, [this, i] {
            chosen_.choose(static_cast<std::size_t>(i));
            refresh();
        });
        tabButtons_.push_back(button);
    }
    for (std::size_t i = 0; i < tabButtons_.size(); ++i) {
        tabButtons_[i]->setVisible(i < shot.lights.size());
        if (i >= shot.lights.size()) continue;
        const QString label = toQt(light_label(shot, i));
        tabButtons_[i]->setText(label);
        tabButtons_[i]->setAccessibleName(tr("Light %1").arg(label));
        tabButtons_[i]->setChecked(i == chosen_.index(shot));
    }
}

void LightsTab::showShot(const Shot& shot, const Report&) {
    const bool any = !shot.lights.empty();
    showTabs(shot);
    fields_->setVisible(any);
    noFlash_->setVisible(!any);
    remove_->setVisible(any);
    scale_->update();
    if (!any) return;
    const Light& light = at(shot);
    const bool flash = is_flash(light);
    remove_->setText(tr("Remove %1").arg(toQt(light_label(shot, chosen_.index(shot)))));
    const bool card = is_reflector(light);
    automatic_->setVisible(flash);
    setRowVisible(power_, !card);
    setRowVisible(modifier_, !card);
    setRowVisible(group_, !card);
    setRowVisible(gel_, !card);
    const auto& report = *document().report();
    const auto& fired = report.light.sources[chosen_.index(shot)];
    const bool in_burst = flash && fired.fires && report.capture.frames > 1;
    setRowVisible(whole_, in_burst);
    if (in_burst) whole_->setValue(fired.whole_frames.value_or(frames_in_a_row(report)));
    for (QWidget* control : cardOnly_) setRowVisible(control, card);
    setRowVisible(own_, flash && !light.power && !light.metered);
    setRowVisible(ownStops_, light.own_stops.has_value());
    setRowEnabled(power_, light.power.has_value());
    const auto reading = whatif::reading_of(document().assessment()->plan, chosen_.index(shot));
    setRowVisible(reading_, reading.has_value());
    if (reading) reading_->setValue(*reading);
    metered_->setVisible(flash && !light.power && !light.own_stops);
    setRowVisible(compensation_, flash && light.metered.has_value());
    layer_->setVisible(light.modifier.has_value());
    const auto* unit = document().assessment()->plan.sources[chosen_.index(shot)].flash;
    const bool hangs = unit && (unit->heads != Heads::one || unit->front_thread);
    onLens_->setVisible(hangs || light.on_lens);
    setRowVisible(ratio_, light.on_lens && unit && unit->heads != Heads::one);
    for (QWidget* control : placement_) setRowVisible(control, !light.on_lens);
    for (QWidget* control : aims_) setRowVisible(control, !light.on_lens && !card);
    bounced_->setVisible(!light.on_lens && !card);
    for (QWidget* control : bounceOnly_) setRowVisible(control, !light.on_lens && light.bounce.has_value());
}

}  // namespace poquito::desk

#include "desk/light/moc_lights_tab.moc"
