#include "desk/day/sun_tab.hpp"

#include "desk/session/towns.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/sentence.hpp"
#include "shoot/staging.hpp"
#include "sun/shine.hpp"
#include "sun/zone.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QCompleter>
#include <QDate>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <QWidget>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using shoot::Site;

void SunTab::addPlace(QVBoxLayout* column) {
    auto* group = addGroup(column, tr("Where and when"));
    place_ = new QComboBox(this);
    place_->setEditable(true);
    place_->setInsertPolicy(QComboBox::NoInsert);
    nameControl(place_, {"sitePlaceField", tr("Place"),
                         tr("A place of your log or a town of the list brings where it lies and its "
                            "clock; or any name, with the numbers below")});
    for (const auto& town : towns()) place_->addItem(toQt(town.name));
    place_->setCurrentIndex(-1);
    place_->completer()->setCompletionMode(QCompleter::PopupCompletion);
    place_->lineEdit()->setPlaceholderText(tr("town, or any name"));
    place_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    connect(place_, &QComboBox::activated, this, [this](int index) { namePlace(place_->itemText(index)); });
    connect(place_->lineEdit(), &QLineEdit::editingFinished, this, [this] {
        if (place_->currentText().toStdString() != this->document().shoot().site.name) namePlace(place_->currentText());
    });
    group->addWidget(place_, group->rowCount(), 0, 1, 2);
    latitude_ = addNumber(group, {"latitudeField", tr("Latitude"), tr("Degrees north; south is negative")},
                          angleQuantity(text::range::inclination), [](Site& site, double v) {
                              site.latitude = v;
                              if (!site.longitude) site.longitude = 0;
                          });
    longitude_ = addNumber(group, {"longitudeField", tr("Longitude"), tr("Degrees east; west is negative")},
                           angleQuantity(text::range::half_turn), [](Site& site, double v) {
                               site.longitude = v;
                               if (!site.latitude) site.latitude = 0;
                           });
    zone_ = new QComboBox(this);
    nameControl(zone_, {"zoneChoice", tr("Clock"), tr("Zone whose clock, summer time and all, is on the wall")});
    zone_->addItem(tr("this computer's"));
    for (const auto& zone : sun::zones()) zone_->addItem(toQt(zone));
    zone_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    connect(zone_, &QComboBox::activated, this, [this](int index) {
        editSite(tr("Set the clock's zone"), QString(),
                 [&](Site& site) { site.zone = index > 0 ? zone_->itemText(index).toStdString() : std::string(); });
    });
    group->addWidget(zone_, group->rowCount(), 0, 1, 2);
    date_ =
        addLine(group, {"siteDateField", tr("Day"), tr("As 2026-11-28; empty: today")}, [this](const QString& text) {
            const auto day = text.trimmed();
            const bool good = day.isEmpty() || QDate::fromString(day, Qt::ISODate).isValid();
            markWrong(date_, good ? QString() : tr("Expected a day that there is, as 2026-11-28."));
            if (!good) return;
            editSite(tr("Set the day"), QStringLiteral("siteDate#%1").arg(visit_),
                     [&](Site& site) { site.date = day.toStdString(); });
        });
    date_->setPlaceholderText(tr("today"));
    connect(date_, &QLineEdit::editingFinished, this, [this] {
        ++visit_;
        // What is no day leaves the one that was.
        markWrong(date_, {});
        date_->setText(toQt(this->document().shoot().site.date));
    });
    addQuantity(
        group,
        {"bearingField", tr("Looks towards"),
         tr("Bearing of this shot's camera, from north over east; drag it in the "
            "drawing")},
        angleQuantity(text::range::full_turn), [](const Shot& s) { return s.bearing.value_or(0); },
        [](Shot& s, double v) { s.bearing = v; });
}

void SunTab::addLight(QVBoxLayout* column) {
    auto* group = addGroup(column, tr("Its light"));
    sky_ = new QComboBox(this);
    nameControl(sky_, {"skyChoice", tr("Sky"), tr("What of the sun's light comes down: a table of common practice")});
    sky_->addItems({tr("clear"), tr("hazy"), tr("cloudy, shadows just seen"), tr("overcast"), tr("open shade")});
    connect(sky_, &QComboBox::activated, this, [this](int index) {
        editSite(tr("Change the sky"), QString(), [&](Site& site) { site.sky = static_cast<shoot::Sky>(index); });
    });
    group->addWidget(sky_, group->rowCount(), 0, 1, 2);
    read_ = new QCheckBox(tr("A meter was read there"), this);
    nameControl(read_, {"siteReadCheck", tr("A meter was read there"),
                        tr("Its reading replaces the table, shifted by "
                           "the sun's height at other hours")});
    connect(read_, &QCheckBox::clicked, this, [this](bool on) {
        editSite(tr("Use a reading"), QString(), [&](Site& site) {
            site.reading.reset();
            const auto place = sun::place_of(site);
            if (on)
                site.reading =
                    shoot::LightReading{.ev100 = place ? std::round(sun::light_at(site, *place, moment())) : 14,
                                        .clock = clock_,
                                        .unknown = {}};
        });
    });
    group->addWidget(read_, group->rowCount(), 0, 1, 2);
    reading_ =
        addNumber(group, {"siteReadingField", tr("EV at ISO 100"), tr("A dome meter at the set, turned to the sky")},
                  exposureValueQuantity(), [](Site& site, double v) {
                      if (site.reading) site.reading->ev100 = v;
                  });
    readAt_ = addNumber(group, {"siteReadAtField", tr("at"), tr("By that clock")}, dayTimeQuantity(),
                        [](Site& site, double v) {
                            if (site.reading) site.reading->clock = v;
                        });
}

void SunTab::addBefore(QVBoxLayout* column) {
    auto* group = addGroup(column, tr("What stands before it"));
    auto* bar = new QHBoxLayout;
    obstacle_ = new QComboBox(this);
    nameControl(obstacle_,
                {"obstacleChoice", tr("Wall"), tr("A wall, a roof, trees: what hides the sun below a height")});
    connect(obstacle_, &QComboBox::activated, this, [this] { refresh(); });
    bar->addWidget(obstacle_, 1);
    auto* add = captionedButton({"addObstacleButton", tr("+ A wall"), tr("Something the sun has to come over")}, this);
    connect(add, &QPushButton::clicked, this, [this] {
        editSite(tr("Add a wall"), QString(), [](Site& site) { site.obstacles.push_back({}); });
        obstacle_->setCurrentIndex(obstacle_->count() - 1);
        refresh();
    });
    bar->addWidget(add);
    removeObstacle_ = captionedButton({"removeObstacleButton", tr("Take off"), tr("The chosen one")}, this);
    connect(removeObstacle_, &QPushButton::clicked, this, [this] {
        const int at = obstacle_->currentIndex();
        editSite(tr("Take a wall off"), QString(), [at](Site& site) {
            if (at >= 0 && at < static_cast<int>(site.obstacles.size()))
                site.obstacles.erase(site.obstacles.begin() + at);
        });
    });
    bar->addWidget(removeObstacle_);
    group->addLayout(bar, group->rowCount(), 0, 1, 2);
    const auto wall = [this](double shoot::Obstacle::*member) {
        return [this, member](Site& site, double v) {
            const auto at = static_cast<std::size_t>(std::max(0, obstacle_->currentIndex()));
            if (at < site.obstacles.size()) site.obstacles[at].*member = v;
        };
    };
    obstacleFrom_ =
        addNumber(group, {"obstacleFromField", tr("From"), tr("Bearing of its left end, seen from the set")},
                  angleQuantity(text::range::full_turn), wall(&shoot::Obstacle::from));
    obstacleTo_ = addNumber(group, {"obstacleToField", tr("to"), tr("Bearing of its right end")},
                            angleQuantity(text::range::full_turn), wall(&shoot::Obstacle::to));
    obstacleHeight_ = addNumber(group,
                                {"obstacleHeightField", tr("Height"),
                                 tr("Of its upper edge over the horizon; a fist at arm's length is 10\u00b0")},
                                angleQuantity(text::range::inclination), wall(&shoot::Obstacle::height));
    windowed_ = new QCheckBox(tr("Through a window alone"), this);
    nameControl(windowed_,
                {"siteWindowCheck", tr("Through a window alone"), tr("Indoors: the sun comes through no other place")});
    connect(windowed_, &QCheckBox::clicked, this, [this](bool on) {
        editSite(tr("Window or open sky"), QString(), [&](Site& site) {
            site.window.reset();
            if (on) site.window = shoot::SunWindow{};
        });
    });
    group->addWidget(windowed_, group->rowCount(), 0, 1, 2);
    const auto pane = [](double shoot::SunWindow::*member) {
        return [member](Site& site, double v) {
            if (site.window) (*site.window).*member = v;
        };
    };
    windowFrom_ = addNumber(group, {"windowFromField", tr("From"), tr("Bearing of its left edge, seen from the set")},
                            angleQuantity(text::range::full_turn), pane(&shoot::SunWindow::from));
    windowTo_ = addNumber(group, {"windowToField", tr("to"), tr("Bearing of its right edge")},
                          angleQuantity(text::range::full_turn), pane(&shoot::SunWindow::to));
    windowLow_ = addNumber(group, {"windowLowField", tr("Sill"), tr("Height of its lower edge over the horizon")},
                           angleQuantity(text::range::inclination), pane(&shoot::SunWindow::low));
    windowHigh_ = addNumber(group, {"windowHighField", tr("Lintel"), tr("Height of its upper edge over the horizon")},
                            angleQuantity(text::range::inclination), pane(&shoot::SunWindow::high));
}

void SunTab::addWays(QVBoxLayout* column) {
    advice_ = new Sentence(3, this);
    advice_->setObjectName(QStringLiteral("sunAdvice"));
    column->addWidget(advice_);
    auto* row = new QHBoxLayout;
    take_ = captionedButton({"takeSunButton", tr("Light it so"),
                             tr("The selected shot's ambient light becomes this sun: direction, height and reading")},
                            this);
    connect(take_, &QPushButton::clicked, this, &SunTab::take);
    row->addWidget(take_);
    fence_ = captionedButton(
        {"fenceSunButton", tr("Keep to these hours"),
         tr("The selected shot's fixed times become the stretch in which the light is like this; the order of "
            "the day keeps them")},
        this);
    connect(fence_, &QPushButton::clicked, this, &SunTab::fence);
    row->addWidget(fence_);
    column->addLayout(row);
}

}  // namespace poquito::desk
