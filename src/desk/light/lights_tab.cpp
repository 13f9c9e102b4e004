#include "desk/light/lights_tab.hpp"

#include "desk/light/light_scale.hpp"
#include "desk/session/chosen_light.hpp"
#include "desk/text/to_qt.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "text/text.hpp"
#include "whatif/grey_patch.hpp"
#include "whatif/power_sets.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QToolButton>
#include <QWidget>

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

void LightsTab::with(Shot& shot, const std::function<void(shoot::Light&)>& change) const {
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
