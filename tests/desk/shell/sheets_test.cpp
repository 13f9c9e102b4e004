// The day beside the shot and the book, and what one sets for oneself: checks, the light that changes, the stop as
// shown.
#include "desk/day/day_drawing.hpp"
#include "desk/day/day_sheet.hpp"
#include "desk/drawing/frame_drawing.hpp"
#include "desk/shell/shot_commands.hpp"
#include "desk/shell/station_rail.hpp"
#include "desk/subject/specimen_board.hpp"
#include "support/matchers.hpp"
#include "support/person.hpp"
#include "text/scales.hpp"

#include <QComboBox>

#include <algorithm>
#include <cmath>

using namespace poquito;
using test::Person;

TEST_CASE("W prepares the other light and switches to it and back", "[desk][light]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Flint lichen"));
    person.goTo(4);
    person.document().editShot({QStringLiteral("sun")}, [](shoot::Shot& shot) {
        shot.lights.clear();
        shot.ambient->ev100 = 14;
        shot.capture.mode = shoot::CaptureMode::single;
        shot.other_light.reset();
    });
    person.settle();
    auto* switches = person.find<QPushButton>(QStringLiteral("otherLightButton"));
    CHECK_FALSE(switches->isVisible());
    const auto before = person.shot();
    person.window().findChild<QListView*>(QStringLiteral("shotCards"))->setFocus();
    // Settings for it are looked for aside; what is edited meanwhile stands.
    person.key(Qt::Key_W);
    CHECK(person.shot() == before);
    person.document().editShot({QStringLiteral("meanwhile")}, [](shoot::Shot& shot) { shot.exposure.iso *= 2; });
    CHECK(QTest::qWaitFor([&] { return !person.window().findChild<desk::ShotCommands*>()->isLooking(); },
                          test::patience));
    CHECK(person.shot().ambient->ev100 == 14);
    person.document().undoStack().undo();
    REQUIRE(person.shot() == before);
    person.key(Qt::Key_W);
    CHECK(QTest::qWaitFor([&] { return person.shot().ambient->ev100 == 11; }, test::patience));
    REQUIRE(person.shot().other_light);
    CHECK(person.shot().other_light->exposure == before.exposure);
    CHECK(std::abs(person.report().light.front_total.value()) < 0.2);  // prepared settings are right
    CHECK(switches->isVisible());
    CHECK(switches->text().startsWith(QStringLiteral("Sun, EV 14")));
    const auto cloud = person.shot().exposure;
    person.key(Qt::Key_W);
    CHECK(person.shot().exposure == before.exposure);
    CHECK(person.shot().ambient == before.ambient);
    person.click(switches);
    CHECK(person.shot().exposure == cloud);
    while (person.document().undoStack().canUndo() && person.shot() != before) person.document().undoStack().undo();
    CHECK(person.shot() == before);
}

TEST_CASE("a check of one's own joins the list, of this shot or of the class, and leaves it by the Delete key",
          "[desk][run]") {
    Person person;
    person.window().openDemo();
    person.document().edit({QStringLiteral("two beetles")}, [](shoot::Shoot& shoot) {
        for (const std::size_t i : {std::size_t{0}, std::size_t{2}}) shoot.shots[i].subject.library = "beetle-calm";
    });
    person.goTo(5);
    const auto add = [&](const QString& text, int reach) {
        person.find<QComboBox>(QStringLiteral("ownCheckChoice"))->setCurrentIndex(reach);
        person.type(QStringLiteral("ownCheckField"), text);
        person.key(Qt::Key_Return);
    };
    const auto texts = [&](int shot) {
        QStringList all;
        for (const auto& item : person.document().assessment(shot).advice.checklist)
            all << QString::fromStdString(item.text);
        return all;
    };
    add(QStringLiteral("Leaf moved aside"), 0);
    add(QStringLiteral("Shadow not on it"), 1);
    CHECK(texts(0).contains(QStringLiteral("Leaf moved aside")));
    CHECK_FALSE(texts(2).contains(QStringLiteral("Leaf moved aside")));
    CHECK(texts(2).contains(QStringLiteral("Shadow not on it")));
    CHECK_FALSE(texts(1).contains(QStringLiteral("Shadow not on it")));
    // A new shot of that class begins with it.
    person.trigger(QStringLiteral("addShotAction"));
    CHECK(person.window().findChild<desk::StationRail*>()->current() == advice::Station::subject);
    CHECK(person.numbers().indexOf(advice::Station::subject).data(desk::LedgerModel::openRole).toBool());
    auto* board = person.window().findChild<desk::SpecimenBoard*>();
    QTest::mouseClick(board, Qt::LeftButton, {}, board->cellRect(0).center().toPoint());
    person.settle();
    CHECK(texts(person.document().current()).contains(QStringLiteral("Shadow not on it")));
    CHECK_FALSE(texts(person.document().current()).contains(QStringLiteral("Leaf moved aside")));
    // Away again, for this shot and for those to come.
    person.document().select(0);
    person.goTo(5);
    auto* list = person.find<QListView>(QStringLiteral("checklistView"));
    list->setFocus();
    for (int row = 0; row < list->model()->rowCount(); ++row)
        if (list->model()->index(row, 0).data() == QStringLiteral("Shadow not on it"))
            list->setCurrentIndex(list->model()->index(row, 0));
    person.key(Qt::Key_Delete);
    CHECK_FALSE(texts(0).contains(QStringLiteral("Shadow not on it")));
    CHECK(texts(0).contains(QStringLiteral("Leaf moved aside")));
}

TEST_CASE("the stop is typed and stepped as the camera shows it", "[desk][depth]") {
    Person person;
    person.window().openDemo();
    person.document().edit({QStringLiteral("shows the working stop")}, [](shoot::Shoot& shoot) {
        for (auto& camera : shoot.kit.cameras) camera.aperture_display = gear::ApertureDisplay::working;
    });
    person.goTo(3);
    const double factor = person.report().optics.working_f_number / person.shot().exposure.f_number;
    CHECK(person.text(QStringLiteral("apertureFieldLabel")) == QStringLiteral("Shown stop"));
    person.type(QStringLiteral("apertureField"), QStringLiteral("f/16"));
    CHECK_THAT(person.shot().exposure.f_number * factor, test::WithinRel(16, 1e-6));
    CHECK_THAT(person.report().optics.displayed_f_number, test::WithinRel(16, 1e-6));
    person.key(Qt::Key_Up);
    CHECK_THAT(person.report().optics.displayed_f_number, test::WithinRel(text::step_f_number(16, 1), 0.02));
    // The limit follows: typed as shown, kept as marked, and said both ways.
    person.goTo(1);
    person.click(QStringLiteral("mattersTab"));
    person.click(QStringLiteral("stopLimitCheck"));
    person.type(QStringLiteral("stopLimitField"), QStringLiteral("f/11"));
    CHECK_THAT(person.document().shoot().terms.limits.f_number.value() * factor, test::WithinRel(11, 1e-6));
    REQUIRE(person.hasNote("stop-over-limit"));
    CHECK(person.note("stop-over-limit").contains(QStringLiteral("f/11 on the display")));
}

TEST_CASE("sheets are turned by a key each and back to where one was, shots are dragged on the day", "[desk][sheets]") {
    Person person;
    person.window().openDemo();
    person.goTo(4);
    person.window().findChild<QListView*>(QStringLiteral("shotCards"))->setFocus();
    person.key(Qt::Key_0);
    CHECK(person.window().sheet() == desk::Sheet::day);
    CHECK_FALSE(person.find(QStringLiteral("shotCards"))->isVisible());
    person.key(Qt::Key_B);
    CHECK(person.window().sheet() == desk::Sheet::book);
    CHECK(person.find(QStringLiteral("kitRoom"))->isVisible());
    person.window().setFocus();
    person.key(Qt::Key_B);
    CHECK(person.window().sheet() == desk::Sheet::day);
    auto* day = person.window().findChild<desk::DaySheet*>();
    REQUIRE(QTest::qWaitFor([&] { return day->isSettled() && day->plan(); }, test::patience));
    auto* drawing = person.find<desk::DayDrawing>(QStringLiteral("dayDrawing"));
    const auto name = [&](std::size_t i) { return person.document().shoot().shots[i].name; };
    const auto first = name(0), third = name(2);
    const auto drag = [&](QPointF from, QPointF to) {
        QTest::mousePress(drawing, Qt::LeftButton, {}, from.toPoint());
        for (const QPointF at : {(from + to) / 2, to}) {
            QMouseEvent move(QEvent::MouseMove, at, drawing->mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                             Qt::NoModifier);
            QApplication::sendEvent(drawing, &move);
        }
        QTest::mouseRelease(drawing, Qt::LeftButton, {}, to.toPoint());
        person.settle();
        REQUIRE(QTest::qWaitFor([&] { return day->isSettled() && day->plan(); }, test::patience));
    };
    drag(drawing->rowRect(0).center(), drawing->rowRect(2).center());
    CHECK(name(2) == first);
    CHECK(name(1) == third);
    // A fixed time follows its bracket, in steps of five minutes.
    std::size_t fixed = 0;
    while (person.document().shoot().shots[fixed].name != "Toffee tin") ++fixed;
    const auto before = person.document().shoot().shots[fixed].timing.done_by.value();
    const QPointF bracket = drawing->fence(fixed, false);
    REQUIRE_FALSE(bracket.isNull());
    drag(bracket, bracket + QPointF(60, 0));
    const auto after = person.document().shoot().shots[fixed].timing.done_by.value();
    CHECK(after > before);
    CHECK(std::fmod(after, 300) == 0);
    // By keys: down a line, with Alt the shot moves; Enter opens it where one was.
    drawing->setFocus();
    const int row = person.document().current();
    person.key(Qt::Key_Down);
    CHECK(person.document().current() == row + 1);
    const auto moved = person.shot().name;
    person.key(Qt::Key_Up, Qt::AltModifier);
    CHECK(name(static_cast<std::size_t>(row)) == moved);
    person.key(Qt::Key_Return);
    CHECK(person.window().sheet() == desk::Sheet::shot);
    CHECK(person.window().findChild<desk::StationRail*>()->current() == advice::Station::light);
    CHECK(person.shot().name == moved);
}

TEST_CASE("sheet and station are remembered from one start to the next", "[desk][sheets]") {
    {
        Person person;
        person.window().openDemo();
        person.goTo(4);
        person.window().goTo(desk::Sheet::day);
        person.window().close();
    }
    Person person;
    person.window().goToRemembered();
    CHECK(person.window().sheet() == desk::Sheet::shot);  // nothing is there yet: the first page
    person.window().openDemo();
    person.window().goToRemembered();
    CHECK(person.window().sheet() == desk::Sheet::day);
    person.key(Qt::Key_0);
    CHECK(person.window().findChild<desk::StationRail*>()->current() == advice::Station::light);
}

TEST_CASE("the subject is drawn by its handles: width, height, fill, depth and what has to be sharp",
          "[desk][subject]") {
    using Handle = desk::FrameDrawing::Handle;
    Person person;
    person.window().openDemo();
    person.goTo(1);
    auto* drawing = person.find<desk::FrameDrawing>(QStringLiteral("frameDrawing"));
    const auto drag = [&](Handle handle, QPointF by) {
        const auto from = drawing->place(handle);
        REQUIRE(from);
        QTest::mousePress(drawing, Qt::LeftButton, {}, from->toPoint());
        for (const double share : {0.5, 1.0}) {
            const QPointF at = *from + by * share;
            QMouseEvent move(QEvent::MouseMove, at, drawing->mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                             Qt::NoModifier);
            QApplication::sendEvent(drawing, &move);
        }
        QTest::mouseRelease(drawing, Qt::LeftButton, {}, (*from + by).toPoint());
        person.settle();
    };
    const auto before = person.shot();
    const double magnification = person.report().optics.magnification;
    const auto back = [&] {
        person.document().undoStack().undo();
        CHECK(person.shot() == before);  // one drag, one step
    };
    drag(Handle::width, {12, 0});
    CHECK(person.shot().subject.width > before.subject.width * 1.05);
    CHECK(person.report().optics.magnification == magnification);
    back();
    drag(Handle::height, {0, 12});
    CHECK(person.shot().subject.height < before.subject.height * 0.95);
    back();
    // By the corner the frame changes, not the thing.
    const double fill = person.report().optics.fill.value();
    drag(Handle::fill, {-30, 20});
    CHECK(person.report().optics.fill.value() < fill * 0.95);
    CHECK(person.report().optics.magnification < magnification);
    CHECK(person.shot().subject == before.subject);
    back();
    drag(Handle::depth, {-20, 0});
    CHECK(person.shot().subject.depth < before.subject.depth);
    back();
    // The arm leans the top away from the camera, which stands at the left; the dial turns it to the right.
    drag(Handle::tilt, {30, 10});
    CHECK(person.shot().subject.tilt > 5);
    CHECK(person.report().extent.depth != before.subject.depth);
    back();
    drag(Handle::turn, {20, -10});
    CHECK(person.shot().subject.turn > 5);
    // Turned, an edge is taken hold of where it is seen, and what is its own does not leap.
    const double own = person.shot().subject.width;
    drag(Handle::width, {2, 0});
    CHECK_THAT(person.shot().subject.width, test::WithinRel(own, 0.06));
    person.document().undoStack().undo();
    CHECK(drawing->place(Handle::depth)->x() > drawing->place(Handle::to)->x() - 1);
    back();
    CHECK_FALSE(before.capture.slice);
    drag(Handle::to, {-40, 0});
    REQUIRE(person.shot().capture.slice);
    CHECK(person.shot().capture.slice->from == 0);
    CHECK(person.shot().capture.slice->to < before.subject.depth * 0.95);
    CHECK(person.report().sharpness.zone.has_value());
    // The same by keys.
    drawing->setFocus();
    const double to = person.shot().capture.slice->to;
    person.key(Qt::Key_Left);
    CHECK(person.shot().capture.slice->to < to);
    while (person.shot() != before) person.document().undoStack().undo();
    for (int i = 0; i < 2; ++i) person.key(Qt::Key_Down);  // past the depth to the width
    person.key(Qt::Key_Right);
    CHECK_THAT(person.shot().subject.width, test::WithinRel(before.subject.width * 1.02, 0.01));
    // And typed where they stand: each number beside its line, none over another, all inside the drawing.
    person.type(QStringLiteral("turnField"), QStringLiteral("-20"));
    CHECK(person.shot().subject.turn == -20);
    QList<QRect> taken;
    for (const char* name : {"widthField", "heightField", "depthField", "fillField", "wantedMagnificationField",
                             "tiltField", "turnField"}) {
        auto* field = person.find(QLatin1String(name));
        INFO(name);
        CHECK(field->isVisible());
        CHECK(drawing->rect().contains(field->geometry()));
        for (const QRect& other : taken) CHECK_FALSE(other.intersects(field->geometry()));
        taken << field->geometry();
    }
}

TEST_CASE("another subject is taken from the board of the library, and undone in one step", "[desk][subject]") {
    Person person;
    person.window().openDemo();
    person.goTo(1);
    auto* board = person.find<desk::SpecimenBoard>(QStringLiteral("libraryBoard"));
    auto* kinds = person.find<QComboBox>(QStringLiteral("libraryKind"));
    kinds->setCurrentText(QStringLiteral("Coins and small finds"));
    Q_EMIT kinds->activated(kinds->currentIndex());
    person.settle();
    REQUIRE(board->subjects().size() > 2);
    CHECK(std::ranges::all_of(board->subjects(), [](const auto& one) { return one.kind == "Coins and small finds"; }));
    const auto before = person.shot();
    const auto wanted = board->subjects()[1];
    QTest::mouseClick(board, Qt::LeftButton, {}, board->cellRect(1).center().toPoint());
    person.settle();
    CHECK(person.shot().subject.width == wanted.subject.width);
    CHECK(person.shot().subject.library == wanted.id);
    CHECK(kinds->currentText() == QStringLiteral("Coins and small finds"));
    person.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(person.shot() == before);
    // With the cursor in the name, undo is the shoot's all the same.
    person.find(QStringLiteral("nameField"))->setFocus();
    person.type(QStringLiteral("nameField"), QStringLiteral("Urchin"));
    person.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(person.shot() == before);
}

TEST_CASE("without a shot there is no day, and asking for it shows where to begin", "[desk][start]") {
    Person person;
    // Before the day was ever shown, and after.
    for (int round = 0; round < 2; ++round) {
        person.window().newShoot();
        person.window().goTo(desk::Sheet::day);
        person.settle();
        CHECK(person.find<desk::SpecimenBoard>(QStringLiteral("specimenBoard"))->isVisible());
        CHECK((person.window().findChild<desk::DaySheet*>() == nullptr) == (round == 0));
        person.window().openDemo();
        person.window().goTo(desk::Sheet::day);
        person.settle();
        CHECK(person.window().findChild<desk::DaySheet*>()->isVisible());
    }
}

TEST_CASE("a subject's name that is too long for one line has a second one", "[desk][start]") {
    desk::SpecimenBoard board;
    const auto named = [](const char* name) {
        shoot::LibrarySubject one;
        one.id = name, one.name = name;
        one.subject.width = one.subject.height = one.subject.depth = 10;
        return one;
    };
    board.show({named("Beetle")}, {});
    const int low = board.heightForWidth(300);
    board.show({named("Beetle"), named("Butterfly at rest, wings closed")}, {});
    CHECK(board.heightForWidth(300) > low);
    // Alone in a wide cell it needs one: two rows, as high as they are with short names.
    const int wide = board.heightForWidth(250);
    board.show({named("Beetle"), named("Bee")}, {});
    CHECK(board.heightForWidth(250) == wide);
}
