// Odds on the sheet of a shot, what would better them, and counting at the set by key.
#include "support/person.hpp"

#include "desk/run/odds_view.hpp"
#include "desk/run/rehearsal_view.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/session/run_controller.hpp"
#include "plan/motion/sway_readings.hpp"
#include "text/text.hpp"

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QTemporaryDir>

using namespace poquito;
using test::Person;

namespace {

/// A lichen that swings, by hand.
struct Gusts : Person {
    Gusts() {
        window().openDemo();
        selectShot(QStringLiteral("Flint lichen"));
        document().editShot({QStringLiteral("gusts")}, [](shoot::Shot& shot) {
            shot.subject.sway_amplitude = 1.5;
            shot.rig.support = shoot::Support::small_head;
            shot.exposure.shutter = 1.0 / 125;
        });
        goTo(5);
        click(QStringLiteral("chanceTab"));
        REQUIRE(QTest::qWaitFor([&] { return ways()->count() > 0; }, test::patience));
    }
    desk::OddsView* odds() { return find<desk::OddsView>(QStringLiteral("oddsView")); }
    QListWidget* ways() { return find<QListWidget>(QStringLiteral("oddsWays")); }
    double chance() { return report().chance->chance; }
};

}  // namespace

TEST_CASE("what chance hangs on is entered, and the odds follow", "[desk][chance]") {
    Gusts person;
    REQUIRE(person.report().chance);
    const double before = person.chance();
    CHECK(person.odds()->headline() == desk::oddsText(before));
    CHECK(person.odds()->meaning().contains(QStringLiteral("tries for one that is sharp")));
    CHECK(person.find(QStringLiteral("calmField"))->isVisible());
    CHECK_FALSE(person.find(QStringLiteral("triggerShareField"))->isVisible());
    person.type(QStringLiteral("calmField"), QStringLiteral("50 %"));
    CHECK(person.shot().tries->calm == 0.5);
    CHECK(person.chance() > before);
    person.type(QStringLiteral("swayDepthField"), QStringLiteral("0.1"));
    CHECK(person.shot().subject.sway_depth == 0.1);
    person.type(QStringLiteral("trySecondsField"), QStringLiteral("20"));
    CHECK(person.report().chance->seconds_a_try == 20);
    // What stands still on a stand is left to nothing.
    person.selectShot(QStringLiteral("Toffee tin"));
    CHECK(person.odds()->headline() == QStringLiteral("nothing is left to chance"));
    CHECK_FALSE(person.ways()->isVisible());
    CHECK_FALSE(person.find(QStringLiteral("trySecondsField"))->isVisible());
    CHECK_FALSE(person.find(QStringLiteral("countAnewButton"))->isVisible());
}

TEST_CASE("a click takes a way that helps, and it can be undone", "[desk][chance]") {
    Gusts person;
    REQUIRE(person.ways()->count() > 2);
    const auto before = person.shot();
    const double chance = person.chance();
    auto* item = person.ways()->item(0);
    const QString text = item->text(), promised = item->toolTip().section(QStringLiteral(" \u00b7"), 0, 0);
    const auto lines = [&] {
        QStringList all;
        for (int row = 0; row < person.ways()->count(); ++row)
            all << person.ways()->item(row)->text() + person.ways()->item(row)->toolTip();
        return all;
    };
    const QStringList at_first = lines();
    const QPoint place = person.ways()->visualItemRect(item).center();
    QTest::mouseClick(person.ways()->viewport(), Qt::LeftButton, {}, place);
    // A second click at once, as of a double click, takes nothing more.
    const auto after = person.shot();
    QTest::mouseClick(person.ways()->viewport(), Qt::LeftButton, {}, place);
    person.settle();
    CHECK(person.shot() == after);
    CHECK_FALSE(after == before);
    CHECK((person.report().chance ? person.chance() : 1) > chance);
    CHECK(promised == desk::oddsText(person.report().chance ? person.chance() : 1));
    person.document().undoStack().undo();
    CHECK(person.shot() == before);
    // By key as well.
    person.ways()->setFocus();
    QTest::qWait(QApplication::doubleClickInterval() + 20);
    REQUIRE(QTest::qWaitFor([&] { return lines() == at_first; }, test::patience));
    person.ways()->setCurrentRow(1);
    const QString second = person.ways()->item(1)->text();
    QTest::keyClick(person.ways(), Qt::Key_Return);
    REQUIRE(QTest::qWaitFor([&] { return person.document().undoStack().undoText() == second; }, test::patience));
    CHECK_FALSE(person.shot() == before);
}

TEST_CASE("a way that is clicked while the odds are looked for anew is taken as it comes out", "[desk][chance]") {
    Gusts person;
    const QString text = person.ways()->item(0)->text();
    person.document().editShot({QStringLiteral("warmer")}, [](shoot::Shot& shot) { shot.subject.reflectance *= 1.01; });
    const auto edited = person.shot();
    // Not a moment has passed: the lines are those of before.
    const QPoint place = person.ways()->visualItemRect(person.ways()->item(0)).center();
    QTest::mouseClick(person.ways()->viewport(), Qt::LeftButton, {}, place);
    const auto& undo = person.document().undoStack();
    REQUIRE(QTest::qWaitFor([&] { return undo.undoText() == text; }, test::patience));
    CHECK(person.shot().subject.reflectance == edited.subject.reflectance);
    CHECK_FALSE(person.shot() == edited);
}

TEST_CASE("one key for one that is kept, one for one that is not, from ten on the count stands", "[desk][chance]") {
    Gusts person;
    auto* tab = person.find(QStringLiteral("chanceTab"));
    tab->setFocus();
    const double reckoned = person.chance();
    for (int i = 0; i < 9; ++i) QTest::keyClick(tab, i % 3 == 0 ? Qt::Key_K : Qt::Key_M);
    CHECK(person.shot().tries->kept == 3);
    CHECK(person.shot().tries->tried == 9);
    CHECK(person.chance() == reckoned);
    QTest::keyClick(person.ways(), Qt::Key_M);  // also where the list has the keys
    CHECK(person.chance() == 0.3);
    CHECK(person.odds()->headline() == QStringLiteral("30 of 100"));
    CHECK(person.odds()->meaning().startsWith(QStringLiteral("As counted: 9 tries")));
    CHECK(person.find<QLabel>(QStringLiteral("countedLabel"))->text() == QStringLiteral("3 kept of 10"));
    person.document().undoStack().undo();
    CHECK(person.shot().tries->tried == 9);
    person.click(QStringLiteral("keptButton"));
    CHECK(person.chance() == 0.4);
    person.click(QStringLiteral("countAnewButton"));
    CHECK(person.shot().tries->tried == 0);
    CHECK(person.chance() == reckoned);
}

TEST_CASE("odds are said in few words", "[desk][chance]") {
    CHECK(desk::oddsText(1) == QStringLiteral("nearly all"));
    CHECK(desk::oddsText(0.124) == QStringLiteral("12 of 100"));
    CHECK(desk::oddsText(0.0034) == QStringLiteral("3 of 1000"));
    CHECK(desk::oddsText(0.0004) == QStringLiteral("hopeless"));
}

TEST_CASE("a rehearsal draws tries by the odds that are said, and shows each", "[desk][chance]") {
    Gusts person;
    person.click(QStringLiteral("rehearseButton"));
    auto* view = person.find<desk::RehearsalView>(QStringLiteral("rehearsalView"));
    REQUIRE(view->isVisible());
    CHECK_FALSE(person.odds()->isVisible());
    REQUIRE(QTest::qWaitFor([&] { return view->shown() >= 8; }, test::patience));
    CHECK(view->sharp() <= view->shown());
    CHECK(view->words().contains(desk::oddsText(person.report().chance->reckoned)));
    CHECK_FALSE(view->grab().isNull());
    // What stands still is sharp each time: the tiles follow the shot.
    person.document().editShot({QStringLiteral("calm")}, [](shoot::Shot& shot) {
        shot.subject.sway_amplitude = 0.001;
        shot.subject.sway_depth = 0;
    });
    REQUIRE(QTest::qWaitFor([&] { return view->shown() >= 4; }, test::patience));
    CHECK(view->sharp() == view->shown());
    person.click(QStringLiteral("rehearseButton"));
    CHECK(person.odds()->isVisible());
}

TEST_CASE("tries run on the bench are looked at and count themselves", "[desk][chance]") {
    Gusts person;
    QTemporaryDir frames;
    person.window().runs().setFolder(QDir(frames.path()));
    auto settings = person.window().runs().settings();
    settings.speed = 1000;
    settings.pictureWidth = 480;
    person.window().runs().setSettings(settings);
    person.document().editShot({QStringLiteral("ten")}, [](shoot::Shot& shot) {
        shot.tries = shoot::Tries{.seconds = 6};
        shot.limits = shoot::Limits{.minutes = 1};
        // As coarse as small pictures show it.
        shot.sharpness = {.rule = shoot::BlurRule::stated, .stated = 0.04};
        shot.subject.sway_amplitude = 12;
        shot.subject.sway_depth = 0;
    });
    REQUIRE(person.report().chance->stop_after == 10);
    person.goTo(5);
    person.click(QStringLiteral("chanceTab"));
    CHECK(person.find<QPushButton>(QStringLiteral("runTriesButton"))->text().contains(QStringLiteral("10")));
    person.click(QStringLiteral("runTriesButton"));
    REQUIRE(QTest::qWaitFor([&] { return !person.window().runs().isRunning(); }, test::patience));
    REQUIRE(QTest::qWaitFor([&] { return shoot::tries_of(person.shot()).tried > 0; }, test::patience));
    CHECK(shoot::tries_of(person.shot()).tried == 10);
    const int kept = shoot::tries_of(person.shot()).kept;
    CHECK(kept > 0);
    CHECK(kept < 10);
    REQUIRE(QTest::qWaitFor([&] { return !person.window().proof().isBusy(); }, test::patience));
    CHECK(shoot::tries_of(person.shot()).tried == 10);  // once
    const auto until = shoot::tries_of(person.shot()).counted_until;
    person.document().undoStack().undo();
    CHECK(shoot::tries_of(person.shot()).tried == 0);
    // Nearly still, each of them is sharp.
    person.document().editShot({QStringLiteral("calm")}, [&](shoot::Shot& shot) {
        shot.subject.sway_amplitude = 0.005;
        shot.tries = shoot::Tries{.seconds = 6, .counted_until = until};
    });
    QTest::qWait(1100);  // frames say when they were taken by whole seconds
    person.window().runs().startTries(person.shot().id, 5);
    REQUIRE(QTest::qWaitFor([&] { return !person.window().runs().isRunning(); }, test::patience));
    REQUIRE(QTest::qWaitFor([&] { return shoot::tries_of(person.shot()).tried > 0; }, test::patience));
    CHECK(shoot::tries_of(person.shot()).tried == 5);
    CHECK(shoot::tries_of(person.shot()).kept == 5);
}

TEST_CASE("settings that are held say what was changed, and come back", "[desk][chance]") {
    Gusts person;
    person.click(QStringLiteral("heldCheck"));
    REQUIRE(person.shot().held);
    person.document().editShot({QStringLiteral("iso")}, [](shoot::Shot& shot) { shot.exposure.iso = 3200; });
    CHECK(person.hasNote("held-changed"));
    person.click(QStringLiteral("heldCheck"));
    CHECK_FALSE(person.hasNote("held-changed"));
}

TEST_CASE("hands and wind are measured by frames of a rule, and kept in the bag", "[desk][chance]") {
    Gusts person;
    person.document().editShot({QStringLiteral("hand")},
                               [](shoot::Shot& shot) { shot.rig.support = shoot::Support::hand; });
    person.click(QStringLiteral("measureSwayButton"));
    CHECK_FALSE(person.ways()->isVisible());
    auto* use = person.find<QPushButton>(QStringLiteral("alongReadingsUse"));
    CHECK_FALSE(use->isEnabled());
    person.type(QStringLiteral("alongReadings"), QStringLiteral("40 41 39 40.5 x"));
    CHECK_FALSE(use->isEnabled());
    person.type(QStringLiteral("alongReadings"), QStringLiteral("40 41 39 40.5 39.5 40 42 38 40 40"));
    REQUIRE(use->isEnabled());
    person.click(QStringLiteral("alongReadingsUse"));
    const auto along = plan::sway_along({40, 41, 39, 40.5, 39.5, 40, 42, 38, 40, 40}, 45)->value;
    REQUIRE(shoot::tries_of(person.shot()).hands);
    CHECK(shoot::tries_of(person.shot()).hands->along == along);
    person.type(QStringLiteral("windReadings"), QStringLiteral("1 2 3 4 3 2 1 2 3 4"));
    person.type(QStringLiteral("swingsField"), QStringLiteral("15"));
    person.click(QStringLiteral("windReadingsUse"));
    CHECK(person.shot().subject.sway_frequency == 1.5);
    CHECK(person.shot().subject.sway_amplitude == plan::swing_amplitude({1, 2, 3, 4, 3, 2, 1, 2, 3, 4})->value);
    person.type(QStringLiteral("holdNameField"), QStringLiteral("Against the fence"));
    person.click(QStringLiteral("keepHoldButton"));
    REQUIRE(person.document().kit().holds.size() == 1);
    CHECK(person.document().kit().holds[0].along == along);
    CHECK(person.document().kit().holds[0].frames == 10);
    // Asked for anew each time: an edit makes another kit.
    const auto mine = [&] {
        return std::ranges::count(person.window().bag().kit().holds, "Against the fence", &gear::Hold::name);
    };
    CHECK(mine() == 1);
    person.document().undoStack().undo();
    CHECK(person.document().kit().holds.empty());
    CHECK(mine() == 0);
}

TEST_CASE("a try by hand may be a burst or the camera's bracket", "[desk][chance]") {
    Gusts person;
    person.document().editShot({QStringLiteral("hand")},
                               [](shoot::Shot& shot) { shot.rig.support = shoot::Support::hand; });
    const double single = person.chance();
    person.choose(QStringLiteral("tryChoice"), QStringLiteral("a burst"));
    CHECK(person.chance() > single);
    person.type(QStringLiteral("tryRateField"), QStringLiteral("20"));
    CHECK(person.report().chance->burst->row.every == 0.05);
    CHECK(person.odds()->meaning().contains(QStringLiteral("Each burst is")));
    person.choose(QStringLiteral("tryChoice"), QStringLiteral("a bracket"));
    CHECK(person.find(QStringLiteral("heldFramesField"))->isVisible());
    person.type(QStringLiteral("heldFramesField"), QStringLiteral("25"));
    CHECK(person.report().chance->burst->row.frames == 25);
}

TEST_CASE("what was counted of other subjects of its class is told beside it", "[desk][chance]") {
    Gusts person;
    person.document().editShot({QStringLiteral("class")}, [](shoot::Shot& shot) { shot.subject.library = "lichen"; });
    auto* label = person.find<QLabel>(QStringLiteral("classCountLabel"));
    CHECK_FALSE(label->isVisible());
    person.document().edit({QStringLiteral("another")}, [](shoot::Shoot& shoot) {
        shoot.shots[0].subject.library = "moss";
        shoot.shots[0].tries = shoot::Tries{.kept = 6, .tried = 20};
        shoot.shots[1].subject.library = "ring";
        shoot.shots[1].tries = shoot::Tries{.kept = 9, .tried = 9};
    });
    CHECK(label->isVisible());
    CHECK(label->text().contains(QStringLiteral("6 kept of 20")));
    CHECK(label->text().contains(QStringLiteral("Flowers and plants")));
    // How near it let one come, where one was kept.
    const auto air = person.document().assessment(0).report.optics.working_distance;
    CHECK(label->text().contains(QString::fromStdString(text::length_text(*air))));
}
