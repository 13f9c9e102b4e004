// What stands beside the subject: put on the table, dragged and moved by keys, and told what it does in the frame.
#include "support/person.hpp"

#include "desk/subject/table_drawing.hpp"
#include "desk/toolkit/facts_view.hpp"

#include <algorithm>

using namespace poquito;
using test::Person;

TEST_CASE("things are put on the table, dragged, and the frame says what becomes of them", "[desk][staging]") {
    Person person;
    person.window().openDemo();
    person.document().select(0);
    person.goTo(1);
    person.click(QStringLiteral("stagingTab"));
    auto* facts = person.find<desk::FactsView>(QStringLiteral("stagedFacts"));
    const auto fact = [&](const QString& name) {
        for (const auto& one : facts->facts())
            if (one.name == name) return one.value;
        return QString();
    };
    CHECK(fact(QStringLiteral("Beside the subject")) == QStringLiteral("nothing"));
    person.choose(QStringLiteral("propChoice"), QStringLiteral("Pebble"));
    person.click(QStringLiteral("addPropButton"));
    REQUIRE(person.shot().staging.size() == 1);
    CHECK(person.shot().staging[0].name == "Pebble");
    CHECK_FALSE(fact(QStringLiteral("Takes of the frame")).isEmpty());
    // Dragged before the subject it hides it, and a note offers to move it aside.
    auto* table = person.find<desk::TableDrawing>(QStringLiteral("tableDrawing"));
    const auto from = table->thingRect("pebble").center();
    const double scale = table->scale();
    QTest::mousePress(table, Qt::LeftButton, {}, from.toPoint());
    const auto& own = person.shot().staging[0];
    const QPointF to = from + QPointF(-own.right * scale, (own.behind + 60) * scale);
    QMouseEvent move(QEvent::MouseMove, to, table->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(table, &move);
    QTest::mouseRelease(table, Qt::LeftButton, {}, to.toPoint());
    person.settle();
    CHECK(std::abs(person.shot().staging[0].right) < 3);
    CHECK(person.shot().staging[0].behind < -50);
    CHECK_FALSE(fact(QStringLiteral("Stands before the subject")).isEmpty());
    REQUIRE(person.hasNote("staged-hides"));
    person.mend("staged-hides");
    CHECK_FALSE(person.hasNote("staged-hides"));
    // By keys: five millimetres, one with Shift; a number is typed.
    const double right = person.shot().staging[0].right;
    table->setFocus();
    person.key(Qt::Key_Right);
    CHECK(person.shot().staging[0].right == right + 5);
    person.key(Qt::Key_Left, Qt::ShiftModifier);
    CHECK(person.shot().staging[0].right == right + 4);
    person.type(QStringLiteral("stagedBehindField"), QStringLiteral("12 cm"));
    CHECK(person.shot().staging[0].behind == 120);
    person.click(QStringLiteral("addPropButton"));
    CHECK(person.shot().staging.size() == 2);
    table->setFocus();
    person.key(Qt::Key_Delete);
    CHECK(person.shot().staging.size() == 1);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().staging.size() == 2);
    person.choose(QStringLiteral("propChoice"), QStringLiteral("One more of it"));
    person.click(QStringLiteral("addPropButton"));
    CHECK(person.shot().staging[2].subject == person.shot().subject);
    CHECK(person.shot().staging[2].role == shoot::StagedRole::repeat);
}

TEST_CASE("the camera is tipped by hand, put on a stand that reaches, and the drawing says what it takes",
          "[desk][standing]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Toffee tin"));
    person.goTo(2);
    person.click(QStringLiteral("standTab"));
    auto* facts = person.find<desk::FactsView>(QStringLiteral("standFacts"));
    const auto fact = [&](const QString& name) {
        for (const auto& one : facts->facts())
            if (one.name == name) return one.value;
        return QString();
    };
    CHECK(fact(QStringLiteral("Camera over the table")).endsWith(QStringLiteral("mm")));
    CHECK_FALSE(fact(QStringLiteral("Legs to the table")).isEmpty());
    CHECK_FALSE(person.hasNote("legs-meet-table"));
    person.type(QStringLiteral("edgeField"), QStringLiteral("25 cm"));
    CHECK(person.shot().table->before == 250);
    REQUIRE(person.hasNote("legs-meet-table"));
    person.mend("legs-meet-table");
    CHECK_FALSE(person.hasNote("legs-meet-table"));
    CHECK(person.shot().rig.stand == "boom-stand");
    CHECK(person.hasNote("top-heavy"));
    CHECK_FALSE(fact(QStringLiteral("Sandbag on its foot")).isEmpty());
    // By keys and by hand.
    auto* drawing = person.find<QWidget>(QStringLiteral("standDrawing"));
    drawing->setFocus();
    person.key(Qt::Key_Up);
    CHECK(person.shot().rig.inclination == 40);
    person.key(Qt::Key_Down, Qt::ShiftModifier);
    CHECK(person.shot().rig.inclination == 39);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().rig.inclination == 40);
    // It stands upright, however the camera looks at it; or it lies.
    person.click(QStringLiteral("uprightButton"));
    CHECK(person.shot().subject.tilt == -40);
    person.click(QStringLiteral("flatButton"));
    CHECK(person.shot().subject.tilt == 50);
    person.choose(QStringLiteral("standChoice"), QStringLiteral("Low tripod"));
    CHECK(person.hasNote("stand-too-low"));
    person.click(QStringLiteral("edgeCheck"));
    CHECK_FALSE(person.shot().table->before);
}
