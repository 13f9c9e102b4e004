#include "desk/run/chance_tab.hpp"

#include "advice/worth/better_odds.hpp"
#include "desk/pages/options.hpp"
#include "desk/run/measure_sway.hpp"
#include "desk/run/odds_view.hpp"
#include "desk/run/rehearsal_view.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/session/subject_library.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/theme.hpp"
#include "desk/toolkit/two_line_delegate.hpp"
#include "plan/stack/stack_plan.hpp"
#include "text/text.hpp"

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QKeyEvent>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QShortcut>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <optional>
#include <utility>

namespace poquito::desk {
namespace {

/// As many as are likely to bring one, as the limits let; a hundred at most, which shows enough.
std::size_t triesToRun(const plan::Report& report) {
    constexpr double most = 100;
    const auto& chance = *report.chance;
    double tries = std::min(chance.tries, most);
    if (chance.stop_after && *chance.stop_after > 0) tries = std::min(tries, *chance.stop_after);
    return static_cast<std::size_t>(std::max(1.0, tries));
}

}  // namespace

ChanceTab::ChanceTab(Document& document, RunController& runs, SubjectLibrary& library, QWidget* parent)
    : StationPage(document, parent),
      runs_(runs),
      library_(library),
      better_(
          document, [](const advice::Assessment& now) { return advice::better_odds(now.plan, now.report); },
          [this] { showWays(), takeWanted(); }) {
    auto* left = addColumn(4);
    addCounting(left);  // what one does at the set
    auto* heading = addHeading(left, tr("What it hangs on"));
    measure_ = new QToolButton(this);
    nameControl(measure_, {"measureSwayButton", tr("Measure"), tr("Hands and wind, by ten frames of a rule")});
    measure_->setText(tr("Measure"));
    measure_->setProperty("link", true);
    measure_->setCheckable(true);
    heading->addWidget(measure_);
    connect(measure_, &QToolButton::toggled, this, [this](bool on) {
        measure_->setText(on ? tr("Done") : tr("Measure"));
        if (on) rehearse_->setChecked(false);
        if (this->document().shot()) showShot(*this->document().shot(), *this->document().report());
    });
    auto* group = addGroup(left, {});
    const auto share = [&](const Caption& caption, double shoot::Tries::*member) {
        return addQuantity(
            group, caption, shareQuantity(text::range::share),
            [member](const Shot& s) { return shoot::tries_of(s).*member; },
            [member](Shot& s, double v) { shoot::own_tries(s).*member = v; });
    };
    calm_ = share({"calmField", tr("Calm"), tr("Share of the time that the air is nearly still")}, &shoot::Tries::calm);
    through_ = addQuantity(
        group,
        {"swayDepthField", tr("To and fro"), tr("How far it swings through focus; half of its sway if not said")},
        lengthQuantity(), [](const Shot& s) { return shoot::sway_through(s.subject); },
        [](Shot& s, double v) { s.subject.sway_depth = v; });
    still_ = addQuantity(
        group, {"stillField", tr("Holds still"), tr("Share of the time that it rests; count how often it does")},
        shareQuantity(text::range::share), [](const Shot& s) { return shoot::still_of(s); },
        [](Shot& s, double v) { shoot::own_tries(s).still = v; });
    is_ = addChoice(
        group,
        {"tryChoice", tr("A try is"),
         tr("By hand: one frame, a burst while you rock through focus, or the camera's own bracket")},
        enumerated({"a frame", "a burst", "a bracket"}), [](const Shot& s) { return idOf(shoot::tries_of(s).is); },
        [](Shot& s, const std::string& id) { shoot::own_tries(s).is = valueOf<shoot::TryIs>(id); });
    rate_ = addQuantity(
        group, {"tryRateField", tr("A second"), tr("Frames a second that the drive is set to")},
        ratioQuantity(text::range::some_frequency), [](const Shot& s) { return s.capture.hand.frames_per_second; },
        [](Shot& s, double v) { s.capture.hand.frames_per_second = v; });
    lasts_ = addQuantity(
        group, {"tryLastsField", tr("It lasts"), tr("One burst, while the camera goes to or fro")}, secondsQuantity(),
        [](const Shot& s) { return s.capture.hand.burst; }, [](Shot& s, double v) { s.capture.hand.burst = v; });
    frames_ = addQuantity(
        group, {"heldFramesField", tr("Frames"), tr("That the camera's bracket is set to")},
        countQuantity({.least = 1, .greatest = 999}), [](const Shot& s) { return shoot::tries_of(s).bracket_frames; },
        [](Shot& s, double v) { shoot::own_tries(s).bracket_frames = static_cast<int>(v); });
    pace_ = addQuantity(
        group, {"heldPaceField", tr("One every"), tr("From frame to frame of the camera's own bracket")},
        secondsQuantity(), [](const Shot& s) { return s.capture.cadence.value_or(plan::default_frame_interval); },
        [](Shot& s, double v) { s.capture.cadence = v; });
    trigger_ = share({"triggerShareField", tr("Trigger"), tr("Share of throws that it answers")},
                     &shoot::Tries::trigger_fires);
    false_ =
        share({"falseShareField", tr("Fires falsely"), tr("Share of throws that a hand or a crumb sets off before")},
              &shoot::Tries::false_fires);
    pieces_ = addQuantity(
        group, {"piecesField", tr("Pieces"), tr("That fly together")}, countQuantity({.least = 1, .greatest = 1e6}),
        [](const Shot& s) { return s.freeze ? s.freeze->pieces : 1; },
        [](Shot& s, double v) {
            if (s.freeze) s.freeze->pieces = static_cast<int>(v);
        });
    spread_ = addQuantity(
        group, {"spreadField", tr("Spread"), tr("Of the pieces about their middle: two of three within this")},
        lengthQuantity(), [](const Shot& s) { return s.freeze ? s.freeze->spread : 0; },
        [](Shot& s, double v) {
            if (s.freeze) s.freeze->spread = v;
        });
    aside_ = addQuantity(
        group, {"asideField", tr("Aside"), tr("How far to the sides it comes down: two of three within this")},
        lengthQuantity(), [](const Shot& s) { return shoot::aside_of(s); },
        [](Shot& s, double v) { shoot::own_tries(s).lands_aside = v; });
    stays_ = addQuantity(
        group, {"staysField", tr("Stays"), tr("How long it stays, on an average; 0: as long as you like")},
        secondsQuantity(text::range::seconds), [](const Shot& s) { return shoot::tries_of(s).stays.value_or(0); },
        [](Shot& s, double v) { shoot::own_tries(s).stays = v > 0 ? std::optional(v) : std::nullopt; });
    flees_ =
        share({"fleesField", tr("Is driven off"), tr("By so many of the frames: the flash, the noise, a movement")},
              &shoot::Tries::flees);
    perched_ = addCheck(
        group,
        {"perchCheck", tr("Wait at a perch"), tr("Focused beforehand on where it settles; the finder draws where")},
        [](const Shot& s) { return shoot::tries_of(s).perch.has_value(); },
        [](Shot& s, bool on) { shoot::own_tries(s).perch = on ? std::optional(shoot::Perch()) : std::nullopt; });
    const auto of_perch = [&](const Caption& caption, const Quantity& quantity, double shoot::Perch::*member) {
        perch_.push_back(addQuantity(
            group, caption, quantity,
            [member](const Shot& s) { return shoot::tries_of(s).perch.value_or(shoot::Perch()).*member; },
            [member](Shot& s, double v) {
                if (shoot::own_tries(s).perch) *shoot::own_tries(s).perch.*member = v;
            }));
    };
    of_perch(
        {"perchScatterField", tr("Near or far"), tr("How much nearer or farther it settles: two of three within this")},
        lengthQuantity(), &shoot::Perch::scatter);
    of_perch(
        {"perchAsideField", tr("To the side"), tr("How far aside, up or down it settles: two of three within this")},
        lengthQuantity(), &shoot::Perch::aside);
    of_perch({"perchEveryField", tr("Comes every"), tr("From one visit to the next")}, secondsQuantity(),
             &shoot::Perch::comes_every);
    rinse_ = addQuantity(
        group, {"rinseField", tr("Rinse"), tr("Rinsing or clearing up between tries")},
        secondsQuantity(text::range::seconds), [](const Shot& s) { return shoot::tries_of(s).rinse; },
        [](Shot& s, double v) { shoot::own_tries(s).rinse = v; });
    seconds_ = addQuantity(
        group, {"trySecondsField", tr("A try takes"), tr("With all that belongs to it: load, rinse, wait, look")},
        secondsQuantity(),
        [this](const Shot& s) {
            const auto* report = this->document().report();
            return report && report->chance ? report->chance->seconds_a_try - shoot::tries_of(s).rinse
                                            : 1.0;  // then it is not shown
        },
        [](Shot& s, double v) { shoot::own_tries(s).seconds = v; });
    left->addStretch();
    odds_ = new OddsView(document, this);
    addDrawing(odds_, 6);
    waysPanel_ = new QWidget(this);
    auto* right = new QVBoxLayout(waysPanel_);
    right->setContentsMargins(0, 0, 0, 0);
    right->setSpacing(left->spacing());
    addWays(right);
    addDrawing(waysPanel_, 7);
    rehearsal_ = new RehearsalView(document, this);
    rehearsal_->hide();
    addDrawing(rehearsal_, 13);
    sway_ = new MeasureSway(document, this);
    sway_->hide();
    addDrawing(sway_, 7);
}

void ChanceTab::addCounting(QVBoxLayout* column) {
    auto* heading = addHeading(column, tr("Counted"));
    counted_ = new QLabel(this);
    counted_->setObjectName(QStringLiteral("countedLabel"));
    counted_->setFont(textFont(15, QFont::DemiBold));
    column->addWidget(counted_);
    ofClass_ = new QLabel(this);
    ofClass_->setObjectName(QStringLiteral("classCountLabel"));
    ofClass_->setWordWrap(true);
    ofClass_->setProperty("quiet", true);
    column->addWidget(ofClass_);
    auto* row = new QHBoxLayout;
    auto* kept = captionedButton({"keptButton", tr("Kept  K"), tr("One more try, and this one is good")}, this);
    auto* missed = captionedButton({"missedButton", tr("Missed  M"), tr("One more try, and it is none")}, this);
    connect(kept, &QPushButton::clicked, this, [this] { count(true); });
    connect(missed, &QPushButton::clicked, this, [this] { count(false); });
    // Wherever the keys are on this station, but for a field that takes letters.
    for (const auto& [key, good] : {std::pair(Qt::Key_K, true), {Qt::Key_M, false}}) {
        auto* shortcut = new QShortcut(key, parentWidget(), nullptr, nullptr, Qt::WidgetWithChildrenShortcut);
        connect(shortcut, &QShortcut::activated, this, [this, good = good] {
            if (isVisible()) count(good);
        });
    }
    row->addWidget(kept);
    row->addWidget(missed);
    column->addLayout(row);
    tries_ = captionedButton({"runTriesButton", tr("Run tries"),
                              tr("On the bench, one after the other; each frame is looked at and counts itself")},
                             this);
    rehearse_ = captionedButton(
        {"rehearseButton", tr("Rehearse"), tr("Draws tries by these odds and shows each at the sensor's own pixels")},
        this);
    rehearse_->setCheckable(true);
    connect(rehearse_, &QPushButton::toggled, this, &ChanceTab::rehearse);
    auto* bench = new QHBoxLayout;
    bench->addWidget(rehearse_);
    bench->addWidget(tries_);
    column->addLayout(bench);
    connect(tries_, &QPushButton::clicked, this, [this] {
        const auto* shot = document().shot();
        if (!shot || runs_.isRunning()) return;
        runs_.startTries(shot->id, triesToRun(*document().report()));
        if (runs_.isRunning()) Q_EMIT runShown();
    });
    connect(&runs_, &RunController::begun, this, &ChanceTab::refresh);
    connect(&runs_, &RunController::ended, this, &ChanceTab::refresh);
    held_ = addCheck(
        addGroup(column, {}),
        {"heldCheck", tr("Hold the settings"),
         tr("Pieces are laid anew, exposure, size and lights stay; what changes is said")},
        [](const Shot& s) { return s.held.has_value(); },
        [](Shot& s, bool on) { s.held = on ? std::optional(shoot::settings_of(s)) : std::nullopt; });
    anew_ = new QToolButton(this);
    nameControl(anew_, {"countAnewButton", tr("Start anew"), tr("Something changed: count from nothing")});
    anew_->setText(tr("Start anew"));
    anew_->setProperty("link", true);
    heading->addWidget(anew_);
    connect(anew_, &QToolButton::clicked, this, [this] {
        document().editShot({tr("Count tries from nothing")},
                            [](Shot& shot) { shoot::own_tries(shot).kept = shoot::own_tries(shot).tried = 0; });
    });
}

void ChanceTab::addWays(QVBoxLayout* column) {
    addHeading(column, tr("What would help"));  // of one height with that at the left
    none_ = new QLabel(this);
    none_->setObjectName(QStringLiteral("noWayLabel"));
    none_->setWordWrap(true);
    column->addWidget(none_);
    ways_ = new QListWidget(this);
    nameControl(ways_, {"oddsWays", tr("What would help"), tr("The likeliest first; a click or Enter takes it")});
    ways_->setItemDelegate(new TwoLineDelegate(6, ways_));
    ways_->setFrameShape(QFrame::NoFrame);
    ways_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    ways_->setResizeMode(QListView::Adjust);
    ways_->setMinimumWidth(150);
    column->addWidget(ways_, 1);
    column->addStretch(0);  // for where the list is not there
    ways_->installEventFilter(this);
    connect(ways_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { take(ways_->row(item)); });
}

/// What was counted of all subjects of its class in this shoot, where there are others than this one.
void ChanceTab::showClass(const Shot& shot) {
    const QString kind = library_.kindOf(shot);
    int kept = 0, tried = 0, others = 0;
    std::optional<double> nearest;  // mm, that one was kept from
    for (int i = 0; i < document().count(); ++i) {
        const auto& other = document().shoot().shots[static_cast<std::size_t>(i)];
        if (kind.isEmpty() || library_.kindOf(other) != kind) continue;
        const auto& count = shoot::tries_of(other);
        const auto& air = document().assessment(i).report.optics.working_distance;
        if (count.kept > 0 && air) nearest = std::min(*air, nearest.value_or(*air));
        kept += count.kept, tried += count.tried;
        others += count.tried > 0 && other.id != shot.id;
    }
    const auto share = optics::counted_share(kept, tried);
    ofClass_->setVisible(others > 0 && share);
    if (others > 0 && share)
        ofClass_->setText(tr("%1 in this shoot: %2 kept of %3, %4 to %5 of 100")
                              .arg(kind)
                              .arg(kept)
                              .arg(tried)
                              .arg(std::lround(share->least * 100))
                              .arg(std::lround(share->greatest * 100)) +
                          (nearest ? tr("; from %1 on").arg(toQt(text::length_text(*nearest))) : QString()));
}

void ChanceTab::rehearse(bool on) {
    if (on) measure_->setChecked(false);
    on ? rehearsal_->begin() : rehearsal_->end();
    if (document().shot()) showShot(*document().shot(), *document().report());
}

void ChanceTab::showRun(const plan::Report& report) {
    const bool any = report.chance && document().shot()->capture.mode == shoot::CaptureMode::single;
    tries_->setVisible(any);
    if (!any) return;
    tries_->setText(tr("Run %1").arg(triesToRun(report)));
    tries_->setEnabled(!runs_.isRunning());
}

void ChanceTab::count(bool kept) {
    if (!document().shot()) return;
    document().editShot({kept ? tr("Count one kept") : tr("Count one missed")}, [kept](Shot& shot) {
        ++shoot::own_tries(shot).tried;
        shoot::own_tries(shot).kept += kept;
    });
}

void ChanceTab::take(int row) {
    // The second click of a double click would take what has come into that line.
    if (taken_.isValid() && taken_.elapsed() < QApplication::doubleClickInterval()) return;
    if (const auto* item = ways_->item(row)) wanted_ = item->text();
    takeWanted();
}

/// What was clicked, as it is now.
void ChanceTab::takeWanted() {
    if (wanted_.isEmpty() || !better_.isCurrent()) return;
    const auto wanted = std::exchange(wanted_, QString());
    const auto ways = *better_.found();
    const auto way = std::ranges::find(ways, wanted.toStdString(), &advice::BetterOdds::text);
    if (way == ways.end()) return;
    taken_.start();
    document().editShot({wanted}, [&](Shot& shot) { shot = way->shot; });
}

bool ChanceTab::eventFilter(QObject* watched, QEvent* event) {
    if (watched == ways_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if ((key == Qt::Key_Return || key == Qt::Key_Enter) && ways_->currentRow() >= 0)
            return take(ways_->currentRow()), true;
    }
    return StationPage::eventFilter(watched, event);
}

void ChanceTab::showShot(const Shot& shot, const plan::Report& report) {
    const bool sways = shot.subject.sway_amplitude > 0;
    setRowVisible(calm_, sways);
    setRowVisible(through_, sways);
    setRowVisible(still_, !shot.freeze && shot.subject.speed > 0);
    setRowVisible(trigger_, shot.freeze.has_value());
    for (QWidget* of_throws : {false_, pieces_, aside_}) setRowVisible(of_throws, shot.freeze.has_value());
    setRowVisible(spread_, shot.freeze && shot.freeze->pieces > 1);
    setRowVisible(seconds_, report.chance.has_value());
    const bool hand = shot.rig.support == shoot::Support::hand && shot.capture.mode == shoot::CaptureMode::single;
    const auto is = shoot::tries_of(shot).is;
    const bool alive = shoot::has_trait(shot.subject, "living") && !shot.freeze;
    const bool perched = alive && shoot::tries_of(shot).perch;
    for (QWidget* of_animals : {stays_, flees_}) setRowVisible(of_animals, alive && !perched && report.chance);
    perched_->setVisible(alive);
    for (auto* field : perch_) setRowVisible(field, perched);
    const bool clears =
        shot.freeze || shoot::has_trait(shot.subject, "liquid") || shoot::has_trait(shot.subject, "dye");
    setRowVisible(rinse_, clears && report.chance);
    setRowVisible(is_, hand);
    for (QWidget* of_bursts : {rate_, lasts_}) setRowVisible(of_bursts, hand && is == shoot::TryIs::rocking);
    for (QWidget* of_brackets : {frames_, pace_}) setRowVisible(of_brackets, hand && is == shoot::TryIs::bracket);
    const auto& now = shoot::tries_of(shot);
    counted_->setText(now.tried == 0 ? tr("none yet")
                      : now.tried < plan::enough_tried
                          ? tr("%1 kept of %2; from ten on it counts").arg(now.kept).arg(now.tried)
                          : tr("%1 kept of %2").arg(now.kept).arg(now.tried));
    anew_->setVisible(now.tried > 0);
    showClass(shot);
    odds_->setAccessibleName(odds_->headline() + QStringLiteral(". ") + odds_->meaning());
    odds_->update();

    showRun(report);
    rehearse_->setVisible(report.chance.has_value());
    const bool rehearsed = rehearse_->isChecked() && report.chance;
    if (rehearse_->isChecked() && !report.chance) rehearse_->setChecked(false);
    rehearsal_->setVisible(rehearsed);
    const bool asks = MeasureSway::asks(document());
    measure_->setVisible(asks);
    if (!asks) measure_->setChecked(false);
    const bool measures = measure_->isChecked();
    sway_->setVisible(measures);
    if (measures) sway_->refresh();
    constexpr int room_for_both = 640;  // pixels
    odds_->setVisible(!rehearsed && !(measures && width() < room_for_both));
    waysPanel_->setVisible(!rehearsed && !measures);
    // Held, so that no other has its address.
    const std::shared_ptr<const void> now_shown = document().sharedAssessment(document().current());
    if (rehearsed && now_shown != rehearsedOf_) rehearsal_->begin();
    rehearsedOf_ = now_shown;
    if (rehearsed) return;
    if (!better_.found()) wanted_.clear();  // it was another shot's
    better_.refresh();
    showWays();
}

void ChanceTab::showWays() {
    const auto* found = better_.found();
    const auto all = found ? *found : std::vector<advice::BetterOdds>();
    none_->setVisible(all.empty() && better_.isCurrent());
    none_->setText(document().report()->chance ? tr("Nothing that one could do here changes much.")
                                               : tr("Nothing needs to."));
    ways_->setVisible(!all.empty());
    // The lines stay where they are while their numbers change.
    while (ways_->count() > static_cast<int>(all.size())) delete ways_->takeItem(ways_->count() - 1);
    while (ways_->count() < static_cast<int>(all.size())) ways_->addItem(QString());
    bool reworded = false;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const auto& way = all[i];
        auto* item = ways_->item(static_cast<int>(i));
        QStringList what{oddsText(way.chance)};
        if (std::isfinite(way.tries) && way.tries > 1)
            what << tr("%1 tries, %2").arg(toQt(text::number_text(way.tries, 4)), toQt(text::time_text(way.seconds)));
        if (!way.price.empty()) what << toQt(way.price);
        const auto text = toQt(way.text), below = what.join(QStringLiteral(" \u00b7 "));
        reworded = reworded || item->text() != text || item->toolTip() != below;
        item->setText(text);
        item->setToolTip(below);
    }
    if (reworded) ways_->doItemsLayout();  // of hidden lines no height is kept
}

}  // namespace poquito::desk

#include "desk/run/moc_chance_tab.moc"
