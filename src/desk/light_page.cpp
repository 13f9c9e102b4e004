#include "desk/light_page.hpp"

#include "desk/light_scale.hpp"
#include "desk/theme.hpp"

#include <QCheckBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>

#include <algorithm>

namespace poquito::desk {

using namespace shoot;

LightPage::LightPage(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* first = addColumn(3);
    addExposure(first);
    addBackground(first);
    first->addStretch();
    auto* second = addColumn(5);
    addFlashes(second);
    second->addStretch();
    scale_ = new LightScale(document, this);
    addDrawing(scale_, 5);
}

void LightPage::addExposure(QLayout* column) {
    auto* exposure = addGroup(column, tr("Exposure and ambient"));
    addQuantity(
        exposure, {"shutterField", tr("Shutter"), tr("Arrow keys and wheel step in thirds of a stop")},
        shutterQuantity(), [](const Shot& s) { return s.exposure.shutter; },
        [](Shot& s, double v) { s.exposure.shutter = v; });
    addQuantity(
        exposure, {"isoField", tr("ISO"), tr("Arrow keys and wheel step in thirds of a stop")}, isoQuantity(),
        [](const Shot& s) { return s.exposure.iso; }, [](Shot& s, double v) { s.exposure.iso = v; });
    addCheck(
        exposure, {"ambientCheck", tr("Ambient light"), tr("Window, lamp or sun; off in a dark room")},
        [](const Shot& s) { return s.ambient.has_value(); },
        [](Shot& s, bool on) { s.ambient = on ? std::optional(Ambient{}) : std::nullopt; });
    ambient_ = addQuantity(
        exposure,
        {"ambientField", tr("Reading"),
         tr("Exposure value at ISO 100: sun 15, overcast 12, a bright window 9, a lit room 6")},
        exposureValueQuantity(), [](const Shot& s) { return s.ambient ? s.ambient->ev100 : 0; },
        [](Shot& s, double v) {
            if (s.ambient) s.ambient->ev100 = v;
        });
}

void LightPage::addBackground(QLayout* column) {
    auto* group = addGroup(column, {});
    addCheck(
        group, {"backgroundCheck", tr("Background"), tr("A card or wall that faces the camera")},
        [](const Shot& s) { return s.background.has_value(); },
        [](Shot& s, bool on) { s.background = on ? std::optional(Background{}) : std::nullopt; });
    backgroundOnly_ = {
        addQuantity(
            group, {"backgroundDistanceField", tr("Behind"), tr("From the subject's centre")}, lengthQuantity(),
            [](const Shot& s) { return s.background ? s.background->distance : 0; },
            [](Shot& s, double v) {
                if (s.background) s.background->distance = v;
            }),
        addQuantity(
            group,
            {"backgroundReflectanceField", tr("Reflectance"),
             tr("Black velvet 1 %, black card 4 %, mid grey 18 %, white 90 %")},
            shareQuantity(0, 1), [](const Shot& s) { return s.background ? s.background->reflectance : 0; },
            [](Shot& s, double v) {
                if (s.background) s.background->reflectance = v;
            }),
        addQuantity(
            group, {"backgroundDetailField", tr("Detail"), tr("Size of a detail one might recognise in it")},
            lengthQuantity(false), [](const Shot& s) { return s.background ? s.background->detail : 10; },
            [](Shot& s, double v) {
                if (s.background) s.background->detail = v;
            }),
    };
}

std::size_t LightPage::index(const Shot& shot) const {
    return static_cast<std::size_t>(std::clamp(chosen_, 0, std::max(0, static_cast<int>(shot.lights.size()) - 1)));
}

void LightPage::addFlashes(QLayout* column) {
    auto* header = new QWidget(this);
    tabs_ = new QHBoxLayout(header);
    tabs_->setContentsMargins(0, 0, 0, 0);
    tabs_->setSpacing(4);
    auto* title = new QLabel(tr("Flashes"), header);
    title->setFont(textFont(12, QFont::DemiBold));
    tabs_->addWidget(title);
    auto* add = new QToolButton(header);
    add->setText(tr("Add"));
    add->setObjectName(QStringLiteral("addFlashButton"));
    add->setAccessibleName(tr("Add a flash"));
    add->setProperty("link", true);
    connect(add, &QToolButton::clicked, this, &LightPage::addFlash);
    tabs_->addStretch();
    tabs_->addWidget(add);
    column->addWidget(header);
    noFlash_ = new QLabel(tr("No flash: the ambient light makes the exposure."), this);
    noFlash_->setProperty("quiet", true);
    noFlash_->setWordWrap(true);
    column->addWidget(noFlash_);

    auto* group = addGroup(column, {});
    flashFields_ = group->parentWidget();
    const auto at = [this](const Shot& s) -> const Light& {
        static const Light none;
        return s.lights.empty() ? none : s.lights[index(s)];
    };
    const auto with = [this](Shot& s, auto change) {
        if (!s.lights.empty()) change(s.lights[index(s)]);
    };
    addChoice(
        group, {"flashChoice", tr("Unit"), tr("Flash from the kit")},
        [](const Kit& kit) {
            Options options;
            for (const auto& flash : kit.flashes) options.emplace_back(flash.id, flash.name);
            return options;
        },
        [at](const Shot& s) { return at(s).flash; },
        [with](Shot& s, const std::string& id) { with(s, [&](Light& l) { l.flash = id; }); });
    addChoice(
        group, {"modifierChoice", tr("Modifier"), tr("Softens the light and costs some")},
        [](const Kit& kit) {
            Options options = {{"", "bare"}};
            for (const auto& modifier : kit.modifiers) options.emplace_back(modifier.id, modifier.name);
            return options;
        },
        [at](const Shot& s) { return at(s).modifier.value_or(""); },
        [with](Shot& s, const std::string& id) {
            with(s, [&](Light& l) { l.modifier = id.empty() ? std::nullopt : std::optional(id); });
        });
    addQuantity(
        group, {"lightDistanceField", tr("Distance"), tr("Light to the subject's centre; bounced: the whole path")},
        lengthQuantity(false), [at](const Shot& s) { return at(s).position.distance; },
        [with](Shot& s, double v) { with(s, [&](Light& l) { l.position.distance = v; }); });
    addQuantity(
        group,
        {"azimuthField", tr("Azimuth"),
         tr("From the camera's side of the axis, positive to the right; 180° is behind the subject")},
        angleQuantity(), [at](const Shot& s) { return at(s).position.azimuth; },
        [with](Shot& s, double v) { with(s, [&](Light& l) { l.position.azimuth = v; }); });
    addQuantity(
        group, {"elevationField", tr("Elevation"), tr("Above the horizontal")}, angleQuantity(),
        [at](const Shot& s) { return at(s).position.elevation; },
        [with](Shot& s, double v) { with(s, [&](Light& l) { l.position.elevation = v; }); });
    addCheck(
        group,
        {"automaticCheck", tr("Find the power"),
         tr("The power that makes the exposure correct; several share what ambient and fixed flashes leave")},
        [at](const Shot& s) { return !at(s).power.has_value(); },
        [this, with](Shot& s, bool on) {
            const auto suggested = this->document().report()->light.sources[index(s)].suggested_power;
            with(s, [&](Light& l) { l.power = on ? std::nullopt : std::optional(suggested.value_or(1.0 / 16)); });
        });
    power_ = addQuantity(
        group, {"powerField", tr("Power"), tr("Fraction of full, such as 1/8 or 1/8 +0.3")}, powerQuantity(),
        [this, at](const Shot& s) {
            if (s.lights.empty()) return 1.0;
            const auto& source = this->document().report()->light.sources[index(s)];
            return at(s).power.value_or(source.suggested_power.value_or(1));
        },
        [with](Shot& s, double v) { with(s, [&](Light& l) { l.power = v; }); });
    remove_ = new QPushButton(this);
    remove_->setObjectName(QStringLiteral("removeFlashButton"));
    remove_->setAccessibleName(tr("Remove this flash"));
    remove_->setProperty("link", true);
    connect(remove_, &QPushButton::clicked, this, &LightPage::removeFlash);
    group->addWidget(remove_, group->rowCount(), 0, 1, 2, Qt::AlignLeft);
}

void LightPage::addFlash() {
    const auto& kit = document().kit();
    if (kit.flashes.empty()) return;
    document().editShot({tr("Add a flash")}, [&](Shot& shot) {
        Light light{.flash = kit.flashes.front().id};
        if (!kit.modifiers.empty()) light.modifier = kit.modifiers.front().id;
        // Opposite to the last one, so that a second light is a second side.
        const double side = shot.lights.empty() ? -45 : -shot.lights.back().position.azimuth;
        light.position = {.distance = 300, .azimuth = side, .elevation = 40};
        shot.lights.push_back(light);
        chosen_ = static_cast<int>(shot.lights.size()) - 1;
    });
}

void LightPage::removeFlash() {
    document().editShot({tr("Remove a flash")}, [&](Shot& shot) {
        if (!shot.lights.empty()) shot.lights.erase(shot.lights.begin() + static_cast<std::ptrdiff_t>(index(shot)));
    });
}

void LightPage::showTabs(const Shot& shot) {
    while (tabButtons_.size() < shot.lights.size()) {
        const auto i = static_cast<int>(tabButtons_.size());
        auto* button = new QToolButton(tabs_->parentWidget());
        button->setText(QChar('A' + i));
        button->setObjectName(QStringLiteral("flashTab%1").arg(QChar('A' + i)));
        button->setAccessibleName(tr("Flash %1").arg(QChar('A' + i)));
        button->setCheckable(true);
        button->setFocusPolicy(Qt::StrongFocus);  // ends the visit to a field of the other flash
        tabs_->insertWidget(1 + i, button);
        connect(button, &QToolButton::clicked, this, [this, i] {
            chosen_ = i;
            refresh();
        });
        tabButtons_.push_back(button);
    }
    for (std::size_t i = 0; i < tabButtons_.size(); ++i) {
        tabButtons_[i]->setVisible(i < shot.lights.size());
        tabButtons_[i]->setChecked(i == index(shot));
    }
}

void LightPage::showShot(const Shot& shot, const Report&) {
    const bool any = !shot.lights.empty();
    showTabs(shot);
    flashFields_->setVisible(any);
    noFlash_->setVisible(!any);
    if (any) remove_->setText(tr("Remove flash %1").arg(QChar('A' + static_cast<int>(index(shot)))));
    setRowEnabled(ambient_, shot.ambient.has_value());
    setRowEnabled(power_, any && shot.lights[index(shot)].power.has_value());
    for (QWidget* control : backgroundOnly_) setRowEnabled(control, shot.background.has_value());
    scale_->update();
}

}  // namespace poquito::desk
