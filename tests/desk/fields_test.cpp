#include "person.hpp"

#include "desk/quantity_field.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using test::Person;
using test::WithinRel;

TEST_CASE("fields take what photographers type", "[desk][fields]") {
    Person person;
    person.window().openDemo();
    person.goTo(1);
    person.type(QStringLiteral("widthField"), QStringLiteral("3/4\""));
    CHECK_THAT(person.shot().subject.width, WithinRel(19.05, 1e-9));
    person.type(QStringLiteral("depthField"), QStringLiteral("250 um"));
    CHECK_THAT(person.shot().subject.depth, WithinRel(0.25, 1e-9));
    person.goTo(3);
    person.type(QStringLiteral("apertureField"), QStringLiteral("f/5.6"));
    CHECK(person.shot().exposure.f_number == 5.6);
    person.goTo(4);
    person.type(QStringLiteral("shutterField"), QStringLiteral("1/200"));
    CHECK(person.shot().exposure.shutter == 1.0 / 200);
    person.click(QStringLiteral("lightsTab"));
    person.click(QStringLiteral("automaticCheck"));
    person.type(QStringLiteral("powerField"), QStringLiteral("1/8"));
    CHECK(person.shot().lights[0].power == 0.125);
}

TEST_CASE("arrow keys and the wheel step in thirds of a stop", "[desk][fields]") {
    Person person;
    person.window().openDemo();
    person.goTo(3);
    person.type(QStringLiteral("apertureField"), QStringLiteral("f/8"));
    person.key(Qt::Key_Up);
    CHECK(person.shot().exposure.f_number == 9);
    person.key(Qt::Key_Down);
    person.key(Qt::Key_Down);
    CHECK(person.shot().exposure.f_number == 7.1);
    CHECK(person.text(QStringLiteral("apertureField")) == QStringLiteral("f/7.1"));
    auto* field = person.find<desk::QuantityField>(QStringLiteral("apertureField"));
    QWheelEvent wheel(QPointF(10, 10), field->mapToGlobal(QPointF(10, 10)), {}, {0, 120}, Qt::NoButton, Qt::NoModifier,
                      Qt::NoScrollPhase, false);
    QApplication::sendEvent(field, &wheel);
    CHECK(person.shot().exposure.f_number == 8);
    person.goTo(4);
    person.type(QStringLiteral("isoField"), QStringLiteral("100"));
    person.key(Qt::Key_Up);
    CHECK(person.shot().exposure.iso == 125);
}

TEST_CASE("half-typed text is no error, and leaving the field brings the last good value back", "[desk][fields]") {
    Person person;
    person.window().openDemo();
    person.goTo(3);
    person.type(QStringLiteral("apertureField"), QStringLiteral("f/8"));
    person.type(QStringLiteral("apertureField"), QStringLiteral("f/"));
    auto* field = person.find<desk::QuantityField>(QStringLiteral("apertureField"));
    CHECK(field->property("wrong").toBool());
    CHECK(field->toolTip().contains(QStringLiteral("f-number")));
    CHECK(person.shot().exposure.f_number == 8);
    person.key(Qt::Key_Tab);
    CHECK_FALSE(field->property("wrong").toBool());
    CHECK(field->text() == QStringLiteral("f/8"));
    person.type(QStringLiteral("apertureField"), QStringLiteral("-3"));
    person.key(Qt::Key_Escape);
    CHECK(field->text() == QStringLiteral("f/8"));
}

TEST_CASE("what is typed stays as typed while the plan answers, even out of reach", "[desk][fields]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Tide brooch"));  // with a tube: small fills are out of reach
    person.goTo(1);
    auto* field = person.find<desk::QuantityField>(QStringLiteral("fillField"));
    field->setFocus();
    auto* edit = field->findChild<QLineEdit*>();
    edit->selectAll();
    QString typed;
    for (const QChar key : QStringLiteral("87.5")) {
        QTest::keyClick(edit, key.toLatin1());
        typed += key;
        CHECK(edit->text() == typed);
    }
    CHECK_THAT(*person.report().optics.fill, WithinRel(0.875, 1e-9));
    person.key(Qt::Key_Return);
    CHECK(field->text() == QStringLiteral("87.5 %"));
}

TEST_CASE("undo in a number field is the shoot's, and the field shows it", "[desk][fields][undo]") {
    Person person;
    person.window().openDemo();
    person.goTo(3);
    auto* field = person.find<desk::QuantityField>(QStringLiteral("apertureField"));
    field->setFocus();
    person.key(Qt::Key_Up);
    REQUIRE(person.shot().exposure.f_number == 9);
    person.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(person.shot().exposure.f_number == 8);
    CHECK(field->text() == QStringLiteral("f/8"));
    person.type(QStringLiteral("apertureField"), QStringLiteral("f/11"));
    person.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(person.shot().exposure.f_number == 8);
    CHECK(field->text() == QStringLiteral("f/8"));
    person.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(person.shot().exposure.f_number == 11);
    CHECK(field->text() == QStringLiteral("f/11"));
}

TEST_CASE("one visit to a field is one step of undo", "[desk][fields][undo]") {
    Person person;
    person.window().openDemo();
    person.goTo(1);
    const double before = person.shot().subject.width;
    person.type(QStringLiteral("widthField"), QStringLiteral("123.5"));
    person.find(QStringLiteral("heightField"))->setFocus();
    CHECK(person.shot().subject.width == 123.5);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().subject.width == before);
    CHECK_FALSE(person.document().undoStack().canUndo());
}

TEST_CASE("edits of different fields, shots and visits stay steps of their own", "[desk][fields][undo]") {
    Person person;
    person.window().openDemo();
    person.goTo(1);
    person.type(QStringLiteral("widthField"), QStringLiteral("51"));
    person.type(QStringLiteral("heightField"), QStringLiteral("52"));
    person.type(QStringLiteral("widthField"), QStringLiteral("53"));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().subject.width == 51);
    CHECK(person.shot().subject.height == 52);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().subject.width == 51);
    CHECK(person.shot().subject.height != 52);
    person.trigger(QStringLiteral("undoAction"));
    CHECK_FALSE(person.document().undoStack().canUndo());
}

TEST_CASE("what is typed in one view shows in all others", "[desk][fields]") {
    Person person;
    person.window().openDemo();
    person.goTo(1);
    person.type(QStringLiteral("fillField"), QStringLiteral("50"));
    CHECK(person.ledger("magnification") ==
          QString::fromStdString(shoot::number_text(person.report().optics.magnification)));
    CHECK_THAT(*person.report().optics.fill, WithinRel(0.5, 1e-9));
    CHECK(person.text(QStringLiteral("wantedMagnificationField")) ==
          QString::fromStdString(shoot::magnification_text(person.report().optics.magnification)));
    person.goTo(2);
    CHECK(person.text(QStringLiteral("magnificationField")) ==
          QString::fromStdString(shoot::magnification_text(person.report().optics.magnification)));
}
