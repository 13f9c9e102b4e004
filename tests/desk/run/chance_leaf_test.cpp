// Odds on the sheet of a shot, what would better them, and counting at the set by key.
#include "support/person.hpp"

#include "desk/run/odds_view.hpp"

#include <QLabel>
#include <QListWidget>

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
    person.ways()->setCurrentRow(1);
    QTest::qWait(QApplication::doubleClickInterval() + 20);
    const QString second = person.ways()->item(1)->text();
    QTest::keyClick(person.ways(), Qt::Key_Return);
    CHECK_FALSE(person.shot() == before);
    CHECK(person.document().undoStack().undoText() == second);
}

TEST_CASE("one key for one that is kept, one for one that is not; from ten on the count stands", "[desk][chance]") {
    Gusts person;
    auto* leaf = person.find(QStringLiteral("chanceTab"));
    leaf->setFocus();
    const double reckoned = person.chance();
    for (int i = 0; i < 9; ++i) QTest::keyClick(leaf, i % 3 == 0 ? Qt::Key_K : Qt::Key_M);
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
