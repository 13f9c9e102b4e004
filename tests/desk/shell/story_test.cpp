#include "support/person.hpp"

#include "desk/set/bench_view.hpp"
#include "desk/shell/station_rail.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using test::Person;

TEST_CASE("open the demo, choose a shot, add a tube, apply a remedy, undo, save, reopen", "[desk][story]") {
    QTemporaryDir folder;
    const QString file = folder.filePath(QStringLiteral("evening.poquito"));
    Person person;
    person.trigger(QStringLiteral("demoAction"));
    person.selectShot(QStringLiteral("Tide brooch"));
    CHECK(person.shot().name == "Tide brooch");

    // Turn the ring by hand, then add a tube: magnification grows, working distance shrinks, everywhere.
    person.key(Qt::Key_2);
    CHECK(person.window().findChild<desk::StationRail*>()->current() == advice::Station::reach);
    person.type(QStringLiteral("ringField"), QStringLiteral("0.5"));
    const double magnification = person.report().optics.magnification;
    const double distance = *person.report().optics.working_distance;
    const QString shown = person.ledger("magnification");
    const double drawn = person.window().findChild<desk::BenchView*>()->drawnWorkingDistance() /
                         person.window().findChild<desk::BenchView*>()->scale();
    CHECK_THAT(drawn, test::WithinRel(distance, 1e-6));
    person.click(QStringLiteral("chip-tube-20"));
    CHECK(person.report().optics.magnification > magnification);
    CHECK(*person.report().optics.working_distance < distance);
    CHECK(person.ledger("magnification") != shown);
    CHECK(person.text(QStringLiteral("magnificationField")) ==
          QString::fromStdString(text::magnification_text(person.report().optics.magnification)));
    const auto* bench = person.window().findChild<desk::BenchView*>();
    CHECK_THAT(bench->drawnWorkingDistance() / bench->scale(),
               test::WithinRel(*person.report().optics.working_distance, 1e-6));

    // A remedy with one click.
    person.type(QStringLiteral("magnificationField"), QStringLiteral("3x"));
    REQUIRE(person.hasNote("magnification-out-of-reach"));
    CHECK(person.note("magnification-out-of-reach").contains(QStringLiteral("out of reach")));
    person.mend("magnification-out-of-reach");
    CHECK_FALSE(person.hasNote("magnification-out-of-reach"));
    CHECK_THAT(person.report().optics.magnification, test::WithinRel(3, 1e-9));

    // Undo all of it, one named step after the other.
    auto* undo = person.window().findChild<QAction*>(QStringLiteral("undoAction"));
    CHECK(undo->text().contains(QStringLiteral("Mount")));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.hasNote("magnification-out-of-reach"));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().rig.tubes.size() == 2);
    CHECK_THAT(person.report().optics.working_distance.value(),
               test::WithinRel(bench->drawnWorkingDistance() / bench->scale(), 1e-6));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().rig.tubes.size() == 1);
    CHECK(person.report().optics.magnification == magnification);
    person.trigger(QStringLiteral("redoAction"));

    // Save and open again: the same plan.
    CHECK(person.document().isUnsaved());
    REQUIRE(person.window().saveTo(file));
    CHECK_FALSE(person.document().isUnsaved());
    const auto saved = person.document().shoot();
    person.trigger(QStringLiteral("newAction"));
    CHECK(person.document().count() == 0);
    REQUIRE(person.window().openFile(file));
    CHECK(person.document().shoot() == saved);
}

TEST_CASE("the digits go to the stations until one is in a field", "[desk][keys]") {
    Person person;
    person.window().openDemo();
    auto* rail = person.window().findChild<desk::StationRail*>();
    for (const auto& [key, station] :
         {std::pair(Qt::Key_3, advice::Station::depth), std::pair(Qt::Key_6, advice::Station::proof),
          std::pair(Qt::Key_1, advice::Station::subject)}) {
        person.key(key);
        CHECK(rail->current() == station);
    }
    person.type(QStringLiteral("widthField"), QStringLiteral("24"));
    CHECK(rail->current() == advice::Station::subject);
    CHECK(person.shot().subject.width == 24);
    person.click(QStringLiteral("station-Light"));
    CHECK(rail->current() == advice::Station::light);
}

TEST_CASE("shots are walked through, added, copied, moved and removed by keys", "[desk][shots]") {
    Person person;
    person.window().openDemo();
    const int count = person.document().count();
    person.key(Qt::Key_PageDown, Qt::ControlModifier);
    CHECK(person.document().current() == 1);
    const auto name = person.shot().name;
    person.key(Qt::Key_D, Qt::ControlModifier);
    CHECK(person.document().count() == count + 1);
    CHECK(person.shot().name == name + " copy");
    person.key(Qt::Key_Up, Qt::AltModifier);
    CHECK(person.document().current() == 1);
    CHECK(person.shot().name == name + " copy");
    person.key(Qt::Key_Backspace, Qt::ControlModifier);
    CHECK(person.document().count() == count);
    person.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(person.document().count() == count + 1);
    CHECK(person.shot().name == name + " copy");
    person.key(Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(person.shot().name == "New shot");
    while (person.document().undoStack().canUndo()) person.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(person.document().count() == count);
    CHECK_FALSE(person.document().isUnsaved());
}

TEST_CASE("an empty shoot says what to do", "[desk][empty]") {
    Person person;
    CHECK(person.find(QStringLiteral("welcomeAddButton"))->isVisible());
    person.click(QStringLiteral("welcomeAddButton"));
    CHECK(person.document().count() == 1);
    CHECK_FALSE(person.find(QStringLiteral("welcomeAddButton"))->isVisible());
    CHECK(person.find(QStringLiteral("widthField"))->isVisible());
    person.trigger(QStringLiteral("removeShotAction"));
    CHECK(person.find(QStringLiteral("welcomeAddButton"))->isVisible());
    CHECK(person.ledger("magnification").isEmpty());
}
