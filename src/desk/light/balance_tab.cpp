#include "desk/light/balance_tab.hpp"

#include "advice/proposals/proposals.hpp"
#include "desk/light/balance_chart.hpp"
#include "desk/light/tone_strip.hpp"
#include "desk/pages/options.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "light/continuous.hpp"
#include "shoot/change/edit.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

BalanceTab::BalanceTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(3);
    column->setSpacing(6);
    addExposure(column);
    addAmbient(column);
    addOtherLight(column);
    column->addSpacing(6);
    tones_ = new ToneStrip(document, this);
    connect(tones_, &ToneStrip::asked, this, [this](const whatif::ToneAsked& tone, const QString& visit) {
        this->document().editShot({tr("Ask for a tone"), visit}, [&](Shot& now) { now = tone.shot; });
    });
    column->addWidget(tones_, 1);
    auto* second = addColumn(7);
    second->setSpacing(4);
    chart_ = new BalanceChart(document, this);
    second->addWidget(chart_, 1);
    black_ = new Sentence(2, this);
    black_->setObjectName(QStringLiteral("blackFrameText"));
    second->addWidget(black_);
}

void BalanceTab::addExposure(QLayout* column) {
    auto* exposure = addGroup(column, {});
    addQuantity(
        exposure, {"shutterField", tr("Shutter"), tr("Arrow keys and wheel step in thirds of a stop")},
        shutterQuantity(), [](const Shot& s) { return s.exposure.shutter; },
        [](Shot& s, double v) { s.exposure.shutter = v; });
    addQuantity(
        exposure, {"isoField", tr("ISO"), tr("Arrow keys and wheel step in thirds of a stop")}, isoQuantity(),
        [](const Shot& s) { return s.exposure.iso; }, [](Shot& s, double v) { s.exposure.iso = v; });
    highSpeed_ = addCheck(
        exposure,
        {"highSpeedCheck", tr("High-speed sync"),
         tr("Past the sync speed the flash lasts over the whole travel of the shutter: no band, less light, no "
            "freeze")},
        [](const Shot& s) { return s.exposure.high_speed_sync; },
        [](Shot& s, bool on) { s.exposure.high_speed_sync = on; });
}

void BalanceTab::addAmbient(QLayout* column) {
    auto* group = addGroup(column, {});
    addCheck(
        group, {"ambientCheck", tr("Ambient light"), tr("Window, sun or room; off in a dark room")},
        [](const Shot& s) { return s.ambient.has_value(); },
        [](Shot& s, bool on) { s.ambient = on ? std::optional(Ambient{}) : std::nullopt; });
    const auto with = [](Shot& s, auto change) {
        if (s.ambient) change(*s.ambient);
    };
    const auto of = [](const Shot& s) { return s.ambient.value_or(Ambient{}); };
    ambientOnly_ = {
        addQuantity(
            group,
            {"ambientField", tr("Reading"),
             tr("Exposure value at ISO 100: sun 15, overcast 12, a bright window 9, a lit room 6")},
            exposureValueQuantity(), [of](const Shot& s) { return of(s).ev100; },
            [with](Shot& s, double v) { with(s, [&](Ambient& a) { a.ev100 = v; }); }),
        addChoice(
            group, {"ambientKindChoice", tr("Comes from"), tr("How soft it is and where its shadows fall")},
            enumerated({"all round", "a window", "the sky"}), [of](const Shot& s) { return idOf(of(s).kind); },
            [with](Shot& s, const std::string& id) {
                with(s, [&](Ambient& a) {
                    a.kind = valueOf<AmbientKind>(id);
                    if (a.kind != AmbientKind::window) return;
                    const Ambient window = ambient_at(Place::window);
                    a.position = window.position;
                    a.size = window.size;
                });
            })};
    sky_ = addChoice(
        group,
        {"skyChoice", tr("Sky"), tr("Sets the usual reading of such a sky (common practice); type your own over it")},
        [](const Kit&) {
            Options options;
            for (const auto& sky : light::skies()) options.emplace_back(sky.id, sky.name);
            return options;
        },
        [of](const Shot& s) -> std::string {
            const auto& skies = light::skies();
            const auto same = std::ranges::find_if(skies, [&](const auto& sky) { return sky.size == of(s).size; });
            return same == skies.end() ? "" : same->id;
        },
        [with](Shot& s, const std::string& id) {
            with(s, [&](Ambient& a) {
                const auto sky = std::ranges::find_if(light::skies(), [&](const auto& one) { return one.id == id; });
                a.ev100 = sky->ev100;
                a.size = sky->size;
            });
        });
    addFilters(group);
    directedOnly_ = {
        addQuantity(
            group,
            {"ambientAzimuthField", tr("Azimuth"), tr("From the camera's side of the axis, positive to the right")},
            angleQuantity(), [of](const Shot& s) { return of(s).position.azimuth; },
            [with](Shot& s, double v) { with(s, [&](Ambient& a) { a.position.azimuth = v; }); }),
        addQuantity(
            group, {"ambientElevationField", tr("Elevation"), tr("Above the horizontal")}, angleQuantity(),
            [of](const Shot& s) { return of(s).position.elevation; },
            [with](Shot& s, double v) { with(s, [&](Ambient& a) { a.position.elevation = v; }); }),
        addQuantity(
            group,
            {"ambientSizeField", tr("Wide"),
             tr("Seen from the subject: the sun half a degree, a window near by 60\u00b0, a grey sky 150\u00b0")},
            angleQuantity(), [of](const Shot& s) { return of(s).size; },
            [with](Shot& s, double v) { with(s, [&](Ambient& a) { a.size = std::clamp(std::abs(v), 0.1, 180.0); }); })};
}

/// Those of the kit that fit the lens, and what is on it already.
void BalanceTab::addFilters(QGridLayout* group) {
    filters_ = addChoice(
        group, {"filterChoice", tr("Filter"), tr("Before the lens: it takes from all light alike")},
        [this](const Kit& kit) {
            Options options = {{"", "none"}};
            const Shot* s = this->document().shot();
            if (!s) return options;
            const double thread = lens_of(kit, *s).filter_thread;
            for (const auto& filter : kit.filters)
                if (filter.thread == thread || std::ranges::count(s->rig.filters, filter.id) > 0)
                    options.emplace_back(filter.id, filter.name);
            return options;
        },
        [](const Shot& s) { return s.rig.filters.empty() ? std::string() : s.rig.filters.back(); },
        [](Shot& s, const std::string& id) {
            s.rig.filters.clear();
            if (!id.empty()) s.rig.filters.push_back(id);
        });
}

void BalanceTab::addOtherLight(QVBoxLayout* column) {
    otherLight_ =
        captionedButton({"otherLightButton", QString(), tr("Takes these settings and keeps those of now: W")}, this);
    otherLight_->setProperty("link", true);
    connect(otherLight_, &QPushButton::clicked, this,
            [this] { document().editShot({tr("Switch the light")}, switch_light); });
    prepare_ = captionedButton({"prepareLightButton", QString(),
                                tr("Settings of the same kind, three values of light away (common practice: sun EV 14, "
                                   "cloud EV 11), ready for "
                                   "one key, W")},
                               this);
    connect(prepare_, &QPushButton::clicked, this, [this] {
        const auto other = advice::prepare_other_light(document().kit(), *document().shot(),
                                                       shoot::terms_of(document().shoot(), *document().shot()));
        if (other) document().editShot({tr("Prepare for the other light")}, [&](Shot& s) { s.other_light = other; });
    });
    column->addWidget(otherLight_);
    column->addWidget(prepare_);
}

/// What to dial where the camera is left to expose by itself, by what that goes, and what it then sets.
QString BalanceTab::automaticText(const plan::LightReport& light) {
    if (!light.automatic || !light.automatic_shutter) return {};
    const auto& metering = *light.automatic;
    using By = plan::MeteringReport::By;
    const QString by = metering.by == By::learned
                           ? tr("by %1").arg(toQt(count_text(metering.learned.count, "test frame", "test frames")))
                       : metering.by == By::practice
                           ? tr("as practice begins; an average would ask for %1").arg(stopsText(-metering.error))
                           : tr("by an average over the frame; cameras differ");
    return tr(" Automatic: dial %1 (%2), it sets about %3.")
        .arg(stopsText(metering.advised), by, toQt(shutter_text(text::nearest_shutter(*light.automatic_shutter))));
}

void BalanceTab::showShot(const Shot& shot, const Report& report) {
    const auto& other = shot.other_light;
    otherLight_->setVisible(shot.ambient && other);
    prepare_->setVisible(shot.ambient.has_value());
    if (shot.ambient) {
        const bool to_sun = other ? other->ev100 > shot.ambient->ev100 : shot.ambient->ev100 < sun_from_ev;
        prepare_->setText(other ? tr("Prepare it anew") : to_sun ? tr("Prepare for sun") : tr("Prepare for cloud"));
        if (other) {
            const auto& exposure = other->exposure;
            otherLight_->setText(tr("%1, EV %2: %3")
                                     .arg(to_sun ? tr("Sun") : tr("Cloud"), toQt(number_text(other->ev100, 3)),
                                          toQt(exposure_text(exposure.f_number, exposure.shutter, exposure.iso))));
        }
    }
    for (QWidget* control : ambientOnly_) setRowEnabled(control, shot.ambient.has_value());
    const bool directed = shot.ambient && shot.ambient->kind != AmbientKind::even;
    for (QWidget* control : directedOnly_) setRowVisible(control, directed);
    setRowVisible(sky_, shot.ambient && shot.ambient->kind == AmbientKind::sky);
    const double thread = document().assessment()->plan.lens.filter_thread;
    setRowVisible(filters_, !shot.rig.filters.empty() ||
                                std::ranges::any_of(document().kit().filters,
                                                    [&](const Filter& filter) { return filter.thread == thread; }));
    const bool could = std::ranges::any_of(document().kit().flashes, &Flash::high_speed_sync);
    highSpeed_->setVisible(could || shot.exposure.high_speed_sync);
    QString line;
    if (const auto& black = report.light.black_frame; black && report.light.flash) {
        if (black->over <= 0)
            line = tr("Without flash the frame is black: what stays on lies %1 stops under.")
                       .arg(toQt(number_text(-*report.light.continuous, 2)));
        else
            line =
                tr("Without flash the frame is not black, %1 stops. It is from %2, from %3, or from ISO %4; or %5.")
                    .arg(stopsText(*report.light.continuous),
                         black->shutter ? toQt(shutter_text(*black->shutter)) : tr("no shutter within sync"),
                         toQt(f_number_text(black->f_number)), toQt(number_text(black->iso, 3)), tr("darken the room"));
    } else if (report.light.continuous) {
        line = tr("No flash: the light that is there makes the exposure.") + automaticText(report.light);
    } else if (report.light.flash) {
        line = tr("Only flash makes the exposure: the shutter time does not matter up to sync.");
    }
    black_->setText(line);
    chart_->refresh();
    tones_->update();
}

}  // namespace poquito::desk

#include "desk/light/moc_balance_tab.moc"
