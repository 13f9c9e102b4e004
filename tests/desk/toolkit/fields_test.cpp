#include "support/person.hpp"

#include "desk/toolkit/colour_field.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "storage/shoot_file.hpp"
#include "support/matchers.hpp"

#include <set>

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
          QString::fromStdString(text::number_text(person.report().optics.magnification)));
    CHECK_THAT(*person.report().optics.fill, WithinRel(0.5, 1e-9));
    CHECK(person.text(QStringLiteral("wantedMagnificationField")) ==
          QString::fromStdString(text::magnification_text(person.report().optics.magnification)));
    person.goTo(2);
    CHECK(person.text(QStringLiteral("magnificationField")) ==
          QString::fromStdString(text::magnification_text(person.report().optics.magnification)));
}

TEST_CASE("colours of different things, and of different visits, are steps of their own", "[desk][fields][undo]") {
    Person person;
    person.window().openDemo();
    person.document().editShot({QStringLiteral("card")},
                               [](shoot::Shot& shot) { shot.background = shoot::Background{}; });
    const int before = person.document().undoStack().count();
    person.goTo(1);
    person.type(QStringLiteral("subjectColourField"), QStringLiteral("#102030"));
    person.goTo(3);
    const auto colour = [&](const char* field, const text::Colour& to) {
        auto* edit = person.window().findChild<desk::ColourField*>(QLatin1String(field));
        REQUIRE(edit);
        Q_EMIT edit->colourEdited(to);
        Q_EMIT edit->editingFinished();
    };
    colour("backgroundColourField", {1, 2, 3});
    colour("backgroundColourField", {4, 5, 6});
    colour("subjectColourField", {7, 8, 9});
    CHECK(person.document().undoStack().count() == before + 4);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().subject.colour == text::Colour{0x10, 0x20, 0x30});
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().background->colour == text::Colour{1, 2, 3});
}

TEST_CASE("whatever the fields of the stations allow, the file takes back", "[desk][fields][long]") {
    Person person;
    person.window().openDemo();
    int tried = 0;
    std::set<QString> refused;
    for (int station = 1; station <= 6; ++station) person.goTo(station);
    const auto fields = person.window().findChildren<desk::QuantityField*>();
    // A stack, and something that falls: between them they have nearly all there is to change.
    for (const auto* name : {"Fossil urchin", "Salt on caramel"}) {
        const auto& shots = person.document().shoot().shots;
        const auto shot =
            std::ranges::find_if(shots, [&](const auto& one) { return one.name.find(name) != std::string::npos; });
        REQUIRE(shot != shots.end());
        person.document().select(static_cast<int>(shot - shots.begin()));
        // Those of the leaves behind too.
        for (auto* field : fields)
            for (const double value : {field->quantity().rule.least, field->quantity().rule.greatest}) {
                if (!field->isEnabled() || value == field->value()) continue;
                const auto before = person.document().snapshot();
                Q_EMIT field->valueEdited(value);
                if (person.document().shoot() == *before) continue;
                ++tried;
                QCoreApplication::processEvents();  // drawn, too
                const auto back = storage::read_shoot(storage::write_shoot(person.document().shoot()));
                if (!back)
                    refused.insert(QStringLiteral("%1 = %2: %3")
                                       .arg(field->objectName())
                                       .arg(value)
                                       .arg(QString::fromStdString(text::message(back.error()))));
                person.document().undoStack().undo();
            }
    }
    for (const auto& line : refused) UNSCOPED_INFO(line.toStdString());
    CHECK(refused.empty());
    CHECK(tried > 120);
}
