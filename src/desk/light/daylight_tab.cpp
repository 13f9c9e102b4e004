#include "desk/light/daylight_tab.hpp"

#include "desk/light/tone_strip.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "desk/toolkit/sentence.hpp"
#include "plan/light/ambient.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using namespace text;
using namespace shoot;
using namespace plan;

namespace {

Ambient there(const Shot& shot) { return shot.ambient.value_or(Ambient{}); }

template <typename Change>
void with(Shot& shot, Change change) {
    if (shot.ambient) change(*shot.ambient);
}

}  // namespace

DaylightTab::DaylightTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* first = addColumn(3);
    addSource(first);
    first->addStretch();
    auto* second = addColumn(3);
    addPanel(second);
    addReading(second);
    second->addStretch();
    auto* third = addColumn(5);
    says_ = new Sentence(5, this);
    says_->setObjectName(QStringLiteral("daylightSays"));
    third->addWidget(says_);
    tones_ = new ToneStrip(document, this);
    tones_->setObjectName(QStringLiteral("daylightTones"));
    third->addWidget(tones_, 1);
    connect(tones_, &ToneStrip::asked, this, [this](const whatif::ToneAsked& tone, const QString& visit) {
        this->document().editShot({tr("Ask for a tone"), visit}, [&](Shot& now) { now = tone.shot; });
    });
}

void DaylightTab::addSource(QLayout* column) {
    auto* group = addGroup(column, tr("Where it comes from"));
    windowOnly_ = {
        addQuantity(
            group,
            {"windowDistanceField", tr("Window at"),
             tr("From the subject: near a window its light falls off; 0: far away")},
            lengthQuantity(), [](const Shot& s) { return there(s).distance.value_or(0); },
            [](Shot& s, double v) {
                with(s, [&](Ambient& a) { a.distance = v > 0 ? std::optional(v) : std::nullopt; });
            }),
        addChoice(
            group,
            {"roomChoice", tr("Room"),
             tr("What walls and table give back of it: how dark the shadow side gets (common practice)")},
            [](const gear::Kit&) {
                Options options = {{"", "as usual"}};
                for (const auto& room : rooms()) options.emplace_back(number_text(room.share, 3), room.name);
                return options;
            },
            [](const Shot& s) {
                const auto share = there(s).room;
                return share ? number_text(*share, 3) : std::string();
            },
            [](Shot& s, const std::string& id) {
                with(s, [&](Ambient& a) {
                    a.room.reset();
                    if (const auto share = parse_number(id)) a.room = share;
                });
            }),
        addQuantity(
            group,
            {"turnedAwayField", tr("Turned away"),
             tr("What a meter at the subject reads with its back to the window; it says what the room gives back")},
            exposureValueQuantity(),
            [](const Shot& s) {
                const Ambient a = there(s);
                return a.ev100 + std::log2(std::max(room_share(a), 1e-4));
            },
            [](Shot& s, double v) {
                with(s, [&](Ambient& a) { a.room = std::clamp(std::exp2(v - a.ev100), 0.0, 1.0); });
            })};
    thereOnly_ = {addQuantity(
        group, {"ambientKelvinField", tr("Colour"), tr("Kelvin: shade 7000, sun 5500, warm lamps of a room 3000")},
        kelvinQuantity(), [this](const Shot& s) { return kelvin_of(there(s)); },
        [](Shot& s, double v) { with(s, [&](Ambient& a) { a.kelvin = v; }); })};
}

void DaylightTab::addPanel(QLayout* column) {
    auto* group = addGroup(column, tr("Before it"));
    panel_ = addCheck(
        group,
        {"panelCheck", tr("A diffuser panel"),
         tr("Between window or sun and the subject: softer, and darker by its loss")},
        [](const Shot& s) { return there(s).panel.has_value(); },
        [this](Shot& s, bool on) {
            with(s, [&](Ambient& a) {
                a.panel.reset();
                if (!on) return;
                Panel panel;
                for (const auto& card : this->document().kit().cards)
                    if (card.loss) panel = {.loss = *card.loss, .width = card.diameter};
                a.panel = panel;
            });
        });
    spanRow(group, panel_);
    const auto number = [&](const Caption& caption, const Quantity& quantity, double Panel::*member) {
        panelOnly_.push_back(addQuantity(
            group, caption, quantity, [member](const Shot& s) { return there(s).panel.value_or(Panel{}).*member; },
            [member](Shot& s, double v) {
                with(s, [&](Ambient& a) {
                    if (a.panel) (*a.panel).*member = v;
                });
            }));
    };
    number({"panelLossField", tr("Takes"), tr("Stops")}, stopsQuantity(), &Panel::loss);
    number({"panelWidthField", tr("Wide"), tr("Its width")}, lengthQuantity(text::range::size), &Panel::width);
    number({"panelDistanceField", tr("From the subject"), tr("The nearer, the softer")},
           lengthQuantity(text::range::size), &Panel::distance);
}

void DaylightTab::addReading(QLayout* column) {
    auto* group = addGroup(column, tr("While you work"));
    thereOnly_.push_back(addQuantity(
        group,
        {"driftField", tr("Stops an hour"),
         tr("How fast it grows or fades: a clear midday 0, an hour before sunset \u22121, after it \u22124 and more "
            "(common practice)")},
        stopsQuantity(), [](const Shot& s) { return there(s).drift; },
        [](Shot& s, double v) { with(s, [&](Ambient& a) { a.drift = v; }); }));
    addQuantity(
        group,
        {"whiteField", tr("White at"), tr("What the camera takes for white, kelvin; auto: as the strongest light")},
        kelvinQuantity(true), [](const Shot& s) { return s.exposure.kelvin.value_or(0); },
        [](Shot& s, double v) {
            s.exposure.kelvin.reset();
            if (v > 0) s.exposure.kelvin = std::clamp(v, text::range::kelvin.least, text::range::kelvin.greatest);
        });
    addQuantity(
        group,
        {"headroomField", tr("Over white"),
         tr("Stops that your files hold over paper white: 0 a JPEG, about 1 raw (common practice)")},
        stopsQuantity(), [](const Shot& s) { return s.sharpness.headroom; },
        [](Shot& s, double v) { s.sharpness.headroom = std::clamp(v, 0.0, 30.0); });
}

void DaylightTab::showShot(const Shot& shot, const Report& report) {
    const bool window = shot.ambient && shot.ambient->kind != AmbientKind::even;
    for (QWidget* control : windowOnly_) setRowEnabled(control, window);
    for (QWidget* control : thereOnly_) setRowEnabled(control, shot.ambient.has_value());
    panel_->setEnabled(window);
    for (QWidget* control : panelOnly_) setRowVisible(control, window && shot.ambient->panel.has_value());
    tones_->update();
    if (!shot.ambient) {
        says_->setText(tr("No light is there. Say on the Exposure leaf that there is some, and what it reads."));
        return;
    }
    QStringList words;
    const auto& light = report.light;
    if (light.ambient && light.ambient_front && *light.ambient - *light.ambient_front > 0.05)
        words << tr("Lens and hood take %1 stops of it on the front.")
                     .arg(toQt(number_text(*light.ambient - *light.ambient_front, 2)));
    if (window && light.tones.lit && light.tones.shadow)
        words << tr("The side away from it comes out %1 stops under the side towards it.")
                     .arg(toQt(number_text(*light.tones.lit - *light.tones.shadow, 2)));
    if (shot.background && (shot.ambient->distance || shot.ambient->panel))
        words << tr("At the backdrop it is %1 stops from the subject's.")
                     .arg(stopsText(
                         std::log2(ambient_falloff(document().assessment()->plan, shoot::background_distance(shot)))));
    if (shot.ambient->drift != 0) {
        constexpr double third = 1.0 / 3, hour = 3600;
        words << tr("The reading holds %1 within a third of a stop.")
                     .arg(toQt(time_text(third / std::abs(shot.ambient->drift) * hour)));
    }
    words << tr("White is %1 K; the light that is there has %2 K.")
                 .arg(toQt(number_text(light.white, 3)), toQt(number_text(*light.ambient_kelvin, 3)));
    says_->setText(words.join(QLatin1Char(' ')));
}

}  // namespace poquito::desk

#include "desk/light/moc_daylight_tab.moc"
