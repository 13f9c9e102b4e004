#include "desk/day/sun_tab.hpp"

#include "desk/day/sky_drawing.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/towns.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "desk/toolkit/sentence.hpp"
#include "shoot/staging.hpp"
#include "storage/shoot_file.hpp"
#include "sun/shine.hpp"
#include "sun/zone.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QDateTime>
#include <QGridLayout>
#include <QObject>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

namespace poquito::desk {

using shoot::Shoot;
using shoot::Site;

namespace {

double now() { return static_cast<double>(QDateTime::currentSecsSinceEpoch()); }

QString stretchText(const std::string& zone, const sun::Stretch& stretch) {
    return toQt(text::day_time_text(sun::clock_at(zone, stretch.from))) + QStringLiteral("\u2013") +
           toQt(text::day_time_text(sun::clock_at(zone, stretch.to)));
}

/// Up to three, and how many more.
QString stretchesText(const std::string& zone, const std::vector<sun::Stretch>& stretches) {
    QStringList parts;
    for (const auto& one : stretches)
        if (parts.size() < 3) parts << stretchText(zone, one);
    if (stretches.size() > 3) parts << QObject::tr("%1 more").arg(stretches.size() - 3);
    return parts.isEmpty() ? QObject::tr("none") : parts.join(QStringLiteral(", "));
}

}  // namespace

SunTab::SunTab(Document& document, LogController& log, QWidget* parent) : StationPage(document, parent), log_(log) {
    auto* page = paperOn(this);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(8, 8, 8, 6);
    drawing_ = new SkyDrawing(page);
    column->addWidget(drawing_, 1);
    addDrawing(page, 1);
    addDrawing(buildSide(), 0);
    connect(drawing_, &SkyDrawing::momentDragged, this, [this](double moment) {
        clock_ = sun::clock_at(this->document().shoot().site.zone, moment);
        refresh();
    });
    connect(drawing_, &SkyDrawing::bearingDragged, this, [this](double bearing) {
        this->document().editShot({tr("Turn the camera to a bearing"), QStringLiteral("bearing")},
                                  [&](Shot& shot) { shot.bearing = bearing; });
    });
}

QWidget* SunTab::buildSide() {
    auto* said = paperOn(this);
    auto* saidColumn = new QVBoxLayout(said);
    saidColumn->setContentsMargins(14, 8, 14, 8);
    facts_ = new FactsView("sunFacts", tr("At that time"), said);
    facts_->setMinimumHeight(172);
    saidColumn->addWidget(facts_);
    addWays(saidColumn);
    auto* fields = new QWidget;
    auto* fieldColumn = new QVBoxLayout(fields);
    fieldColumn->setContentsMargins(14, 6, 14, 8);
    addPlace(fieldColumn);
    addLight(fieldColumn);
    addBefore(fieldColumn);
    fieldColumn->addStretch();
    return sideOf(said, fields, this);
}

void SunTab::editSite(const QString& label, const QString& key, const std::function<void(Site&)>& change) {
    document().edit({label, key}, [&](Shoot& shoot) { change(shoot.site); });
}

QuantityField* SunTab::addNumber(QGridLayout* group, const Caption& caption, Quantity quantity,
                                 std::function<void(Site&, double)> set) {
    auto* field = addField(group, caption, std::move(quantity));
    connect(field, &QuantityField::valueEdited, this, [this, field, set = std::move(set)](double v) {
        editSite(tr("Change the site"), QStringLiteral("%1#%2").arg(field->objectName()).arg(field->visit()),
                 [&](Site& site) { set(site, v); });
    });
    return field;
}

void SunTab::namePlace(const QString& name) {
    const auto* town = findTown(name.toStdString());
    const auto been = logged_.find(name.trimmed().toStdString());
    editSite(tr("Say the place"), QString(), [&](Site& site) {
        site.name = name.trimmed().toStdString();
        if (been != logged_.end()) {
            // What stands before it stands there still.
            site.latitude = been->second.latitude, site.longitude = been->second.longitude;
            site.zone = been->second.zone, site.obstacles = been->second.obstacles;
            return;
        }
        if (!town) return;
        site.latitude = town->latitude, site.longitude = town->longitude, site.zone = town->zone;
    });
}

void SunTab::showEvent(QShowEvent* event) {
    StationPage::showEvent(event);
    lookInLog();
}

/// Places where something was logged, with where they lie, stand before the towns.
void SunTab::lookInLog() {
    constexpr std::size_t newest = 2000, most = 12;
    log_.search({.most = newest}, this, [this](const LogController::Found& found) {
        std::set<std::string> asked;
        for (const auto& entry : found.entries) {
            if (asked.size() == most) break;
            if (entry.place.empty() || logged_.contains(entry.place) || !asked.insert(entry.place).second) continue;
            log_.look(entry.id, this, [this](const std::optional<log::Entry>& whole) {
                if (!whole || whole->plan.empty()) return;
                const auto read = storage::read_shoot(whole->plan);
                if (read) addLogged(read->site);
            });
        }
    });
}

void SunTab::addLogged(const shoot::Site& site) {
    if (site.name.empty() || !site.latitude || !site.longitude) return;
    if (!logged_.emplace(site.name, site).second || place_->findText(toQt(site.name)) >= 0) return;
    const QString shown = place_->currentText();
    const QSignalBlocker quiet(place_);
    place_->insertItem(0, toQt(site.name));
    place_->setCurrentIndex(-1);
    place_->setEditText(shown);
}
std::string SunTab::date() const {
    const auto& site = const_cast<SunTab*>(this)->document().shoot().site;
    return site.date.empty() ? sun::date_at(site.zone, now()) : site.date;
}

double SunTab::moment() const {
    const auto& site = const_cast<SunTab*>(this)->document().shoot().site;
    return sun::place_of(site) ? sun::moment_of(site.zone, date(), clock_).value_or(0) : 0;
}

void SunTab::showSite(const Site& site) {
    if (!place_->lineEdit()->hasFocus() || place_->currentText().isEmpty()) place_->setEditText(toQt(site.name));
    latitude_->setValue(site.latitude.value_or(0));
    longitude_->setValue(site.longitude.value_or(0));
    zone_->setCurrentIndex(site.zone.empty() ? 0 : std::max(0, zone_->findText(toQt(site.zone))));
    if (!date_->hasFocus() && date_->text().toStdString() != site.date) date_->setText(toQt(site.date));
    sky_->setCurrentIndex(static_cast<int>(site.sky));
    read_->setChecked(site.reading.has_value());
    for (auto* field : {reading_, readAt_}) setRowVisible(field, site.reading.has_value());
    if (site.reading) reading_->setValue(site.reading->ev100), readAt_->setValue(site.reading->clock);
    const int at = std::max(0, obstacle_->currentIndex());
    const QSignalBlocker quiet(obstacle_);
    obstacle_->clear();
    for (std::size_t i = 0; i < site.obstacles.size(); ++i) {
        const auto& one = site.obstacles[i];
        obstacle_->addItem(tr("%1: %2\u2013%3\u00b0").arg(i + 1).arg(one.from).arg(one.to));
    }
    obstacle_->setCurrentIndex(std::min(at, obstacle_->count() - 1));
    const bool any = obstacle_->currentIndex() >= 0;
    obstacle_->setVisible(any), removeObstacle_->setVisible(any);
    for (auto* field : {obstacleFrom_, obstacleTo_, obstacleHeight_}) setRowVisible(field, any);
    if (any) {
        const auto& one = site.obstacles[static_cast<std::size_t>(obstacle_->currentIndex())];
        obstacleFrom_->setValue(one.from), obstacleTo_->setValue(one.to), obstacleHeight_->setValue(one.height);
    }
    windowed_->setChecked(site.window.has_value());
    for (auto* field : {windowFrom_, windowTo_, windowLow_, windowHigh_}) setRowVisible(field, site.window.has_value());
    if (site.window) {
        windowFrom_->setValue(site.window->from), windowTo_->setValue(site.window->to);
        windowLow_->setValue(site.window->low), windowHigh_->setValue(site.window->high);
    }
}

void SunTab::showShot(const Shot& shot, const plan::Report&) {
    const auto& shoot = document().shoot();
    const auto& site = shoot.site;
    showSite(site);
    const auto place = sun::place_of(site);
    const auto day = sun::local_day(site.zone, date());
    take_->setEnabled(place.has_value()), fence_->setEnabled(place.has_value());
    if (!place || !day) {
        drawing_->setDay({});
        facts_->setFacts({});
        advice_->setText({});
        return;
    }
    SkyDay sky{.site = site, .place = *place, .day = sun::day_of(*place, day->begin, day->end)};
    sky.moment = moment();
    sky.bearing = shot.bearing.value_or(0);
    sky.shining = sun::shining(site, day->begin, day->end);
    sky.hours = sun::hours_of(site, sky.bearing, day->begin, day->end);
    for (const auto& one : shoot.shots)
        if (one.timing.not_before || one.timing.done_by)
            sky.wishes.push_back({.name = toQt(one.name),
                                  .from = one.timing.not_before,
                                  .to = one.timing.done_by,
                                  .selected = one.id == shot.id});
    drawing_->setDay(std::move(sky));
    showFacts(shot);
}

void SunTab::showFacts(const Shot& shot) {
    const auto& sky = *drawing_->day();
    const auto& zone = sky.site.zone;
    const auto position = sun::position_at(sky.place, sky.moment);
    const double azimuth = sun::azimuth_of(position.bearing, sky.bearing);
    const bool reaches = sun::reaches(sky.site, position);
    std::vector<Fact> facts;
    facts.push_back({tr("Sun"), position.elevation < 0 ? tr("down")
                                                       : tr("%1\u00b0 high, bearing %2\u00b0")
                                                             .arg(toQt(text::number_text(position.elevation, 3)))
                                                             .arg(std::lround(position.bearing))});
    if (position.elevation >= 0)
        facts.push_back({tr("Comes"), reaches ? tr("%1, %2\u00b0 to the %3")
                                                    .arg(QString::fromUtf8(sun::from_text(sun::from_of(azimuth))))
                                                    .arg(std::lround(std::abs(azimuth)))
                                                    .arg(azimuth < 0 ? tr("left") : tr("right"))
                                              : tr("not to the set")});
    const double light = sun::light_at(sky.site, sky.place, sky.moment);
    facts.push_back({tr("Light"), tr("EV %1%2").arg(toQt(text::number_text(light, 3)),
                                                    sky.site.reading ? QString() : tr(" by the table"))});
    const double holds = sun::reading_holds(sky.site, sky.place, sky.moment);
    facts.push_back({tr("Holds within 1/3 stop"), holds >= sun::longest_hold
                                                      ? tr("%1 or more").arg(toQt(text::time_text(holds)))
                                                      : toQt(text::time_text(holds))});
    if (const auto shadow = sun::shadow_length(position); shadow && reaches && *shadow < 100)
        facts.push_back({tr("Shadow"), tr("%1 times its height").arg(toQt(text::number_text(*shadow, 2)))});
    const auto at = [&](const std::optional<double>& moment) {
        return moment ? toQt(text::day_time_text(sun::clock_at(zone, *moment))) : tr("none");
    };
    facts.push_back({tr("Rises, sets"), tr("%1, %2").arg(at(sky.day.rise), at(sky.day.set))});
    facts.push_back({tr("Golden"), stretchesText(zone, sky.day.golden)});
    facts.push_back({tr("Reaches the set"), stretchesText(zone, sky.shining)});
    facts_->setFacts(std::move(facts));
    QStringList words;
    for (const auto from : {sun::From::side, sun::From::rim, sun::From::behind, sun::From::front}) {
        std::vector<sun::Stretch> stretches;
        for (const auto& one : sky.hours)
            if (one.from == from) stretches.push_back(one.stretch);
        if (!stretches.empty())
            words << tr("%1 %2").arg(QString::fromUtf8(sun::from_text(from)), stretchesText(zone, stretches));
    }
    // Its own place in the sky within the lens's view, low enough to be aimed at.
    constexpr double near = 25, high = 40;
    if (position.elevation > 0 && position.elevation < high && std::abs(azimuth) > 180 - near)
        words.prepend(
            tr("the lens points near the sun: no eye at an optical finder, live view only, and a card before "
               "it until the frame"));
    advice_->setText(words.isEmpty()
                         ? tr("The sun does not reach the set that day.")
                         : tr("%1: ").arg(toQt(shot.name)) + words.join(QStringLiteral("; ")) + QStringLiteral("."));
}

// ---- what a shot takes -------------------------------------------------------------------------------------------

void SunTab::take() {
    if (!drawing_->day()) return;
    const auto& sky = *drawing_->day();
    document().editShot({tr("Light by the sun")}, [&](Shot& shot) {
        const auto before = shot.ambient;
        shot.ambient =
            sun::ambient_at(sky.site, sky.place, sky.moment, {.bearing = sky.bearing, .down = shot.rig.inclination});
        if (before) shot.ambient->panel = before->panel;
        shot.bearing = sky.bearing;
    });
}

/// The stretch about that moment with the sun from the same side; where it does not reach the set, that in which the
/// reading holds.
void SunTab::fence() {
    if (!drawing_->day()) return;
    const auto& sky = *drawing_->day();
    double from = sky.moment, to = sky.moment + sun::reading_holds(sky.site, sky.place, sky.moment);
    for (const auto& one : sky.hours)
        if (one.stretch.from <= sky.moment && sky.moment <= one.stretch.to)
            from = one.stretch.from, to = one.stretch.to;
    const auto clock = [&](double moment) {
        constexpr double minute = 60;
        return std::round(sun::clock_at(sky.site.zone, moment) / minute) * minute;
    };
    document().editShot({tr("Keep to the sun's hours")}, [&](Shot& shot) {
        shot.timing.not_before = clock(from);
        shot.timing.done_by = std::max(clock(from), clock(std::min(to, sky.day.end - 60)));
    });
}

}  // namespace poquito::desk

#include "desk/day/moc_sun_tab.moc"
