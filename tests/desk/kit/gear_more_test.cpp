// More of what hands do in the windows about gear.
#include "support/person.hpp"

#include "desk/drawing/ruler_view.hpp"
#include "desk/kit/gear_form.hpp"
#include "desk/kit/kit_room.hpp"
#include "desk/kit/measure_dialog.hpp"
#include "desk/kit/measure_sketch.hpp"
#include "desk/reach/reach_chart.hpp"
#include "desk/reach/reach_finder.hpp"
#include "desk/reach/reach_model.hpp"
#include "desk/set/train_drawing.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "shoot/change/kit_edit.hpp"
#include "storage/kit_file.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using namespace poquito::gear;
using namespace poquito::shoot;
using test::Person;
using test::WithinRel;

namespace {

struct WithBag : Person {
    WithBag() {
        window().openDemo();
        goTo(2);
    }
    ~WithBag() { QFile::remove(window().bag().path()); }
    Kit& shoot_kit(Kit& copy) { return copy = document().kit(); }
    desk::KitRoom& room(desk::KitRoom::Side side, const char* list) {
        trigger(QStringLiteral("kitRoomAction"));
        auto* found = window().findChild<desk::KitRoom*>();
        REQUIRE(found);
        found->look(side, list);
        settle();
        return *found;
    }
    desk::ReachFinder& finder() {
        trigger(QStringLiteral("findSetupAction"));
        auto* found = window().findChild<desk::ReachFinder*>();
        wait(*found);
        return *found;
    }
    static void wait(desk::ReachFinder& finder) {
        REQUIRE(QTest::qWaitFor([&] { return !finder.isSearching(); }, test::patience));
        REQUIRE_FALSE(finder.isSearching());
    }
    template <typename Widget>
    static Widget* in(QWidget& window, const char* name) {
        auto* found = window.findChild<Widget*>(QLatin1String(name));
        INFO(name);
        REQUIRE(found);
        return found;
    }
    static void click(QWidget& window, const char* name) {
        auto* button = in<QAbstractButton>(window, name);
        QTest::mouseClick(button, Qt::LeftButton, {},
                          qobject_cast<QCheckBox*>(button) ? QPoint(8, button->height() / 2) : button->rect().center());
        QCoreApplication::processEvents();
    }
    static void type(QWidget& window, const char* name, const QString& text) {
        auto* field = in<desk::QuantityField>(window, name);
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, text);
        QCoreApplication::processEvents();
    }
};

}  // namespace

TEST_CASE("flags, choices, unknown values and tables are edited in the form", "[desk][kit]") {
    WithBag person;
    auto& bag = person.window().bag();
    auto& room = person.room(desk::KitRoom::Side::bag, "lenses");
    const auto lens = [&]() -> const Lens& { return bag.kit().lenses[0]; };
    WithBag::click(room, "gear-aperture_ring");
    CHECK(lens().aperture_ring);
    WithBag::click(room, "gear-contacts");
    CHECK_FALSE(lens().contacts);
    auto* focusing = WithBag::in<QComboBox>(room, "gear-focusing");
    focusing->setFocus();
    QTest::keyClick(focusing, Qt::Key_Up);
    CHECK(lens().optics.focusing == optics::Focusing::unit);
    // Known or not.
    WithBag::click(room, "gear-flange_mm-known");
    CHECK(lens().optics.flange.has_value());
    WithBag::type(room, "gear-flange_mm", QStringLiteral("44"));
    CHECK(lens().optics.flange == 44);
    WithBag::click(room, "gear-flange_mm-known");
    CHECK_FALSE(lens().optics.flange.has_value());
    CHECK_FALSE(WithBag::in<desk::QuantityField>(room, "gear-flange_mm")->isEnabled());

    // A table: two lines make a zoom, and the last but one takes both away.
    room.look(desk::KitRoom::Side::bag, "lenses");
    WithBag::in<QTableView>(room, "gearTable")->selectRow(2);
    WithBag::type(room, "gear-focal_length_mm", QStringLiteral("40"));
    WithBag::click(room, "gear-zoom-add");
    REQUIRE(bag.kit().lenses[2].zoom.size() == 2);
    CHECK(bag.kit().lenses[2].zoom[0].focal_length < bag.kit().lenses[2].zoom[1].focal_length);
    auto* table = WithBag::in<QTableView>(room, "gear-zoom");
    CHECK(table->isVisible());
    CHECK(table->model()->setData(table->model()->index(0, 2), QStringLiteral("35 cm")));
    CHECK(bag.kit().lenses[2].zoom[0].closest_focus == 350);
    CHECK_FALSE(table->model()->setData(table->model()->index(0, 2), QStringLiteral("near")));
    CHECK(WithBag::in<QLabel>(room, "gearProblem")->text().contains(QStringLiteral("expected a length")));
    // A focal length below the one before it is refused below the form.
    CHECK(table->model()->setData(table->model()->index(1, 0), QStringLiteral("10")));
    CHECK(bag.kit().lenses[2].zoom[1].focal_length > 10);
    CHECK(WithBag::in<QLabel>(room, "gearProblem")->text().contains(QStringLiteral("line 2")));
    WithBag::click(room, "gear-zoom-remove");
    CHECK(bag.kit().lenses[2].zoom.empty());
    room.close();
}

TEST_CASE("shots follow gear that is changed in their shoot, and are named", "[desk][kit]") {
    WithBag person;
    auto& room = person.room(desk::KitRoom::Side::shoot, "bellows");
    CHECK(WithBag::in<QLabel>(room, "gearUsers")->text().contains(QStringLiteral("Ammonite, one saddle")));
    WithBag::type(room, "gear-max_length_mm", QStringLiteral("120"));
    CHECK(WithBag::in<QLabel>(room, "kitMessage")->text().contains(QStringLiteral("Ammonite, one saddle")));
    person.document().select(5);
    CHECK(person.shot().rig.bellows->extension == 120);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.document().shoot().shots[5].rig.bellows->extension == 148);
    room.close();
}

TEST_CASE("the only camera of a shot cannot be removed - a tube that is used can", "[desk][kit]") {
    WithBag person;
    person.document().edit({QStringLiteral("test")}, [](Shoot& shoot) {
        for (std::size_t i = 0; i < shoot.shots.size(); ++i)
            shoot.shots[i].rig.camera = "apsc-24", shoot.shots[i].rig.crop_mode.reset();
        shoot.kit.cameras.resize(1);
    });
    auto& room = person.room(desk::KitRoom::Side::shoot, "cameras");
    bool could = true;
    QTimer::singleShot(0, &room, [&could] {
        auto* box = QApplication::activeModalWidget();
        could = box->findChild<QPushButton*>(QStringLiteral("confirmRemoveButton"))->isEnabled();
        box->findChild<QDialogButtonBox*>()->button(QDialogButtonBox::Cancel)->click();
    });
    WithBag::click(room, "removeGearButton");
    CHECK_FALSE(could);
    CHECK(person.document().kit().cameras.size() == 1);

    room.look(desk::KitRoom::Side::shoot, "tubes");
    QTimer::singleShot(0, &room, [] {
        QApplication::activeModalWidget()->findChild<QDialogButtonBox*>()->button(QDialogButtonBox::Ok)->click();
    });
    WithBag::click(room, "removeGearButton");
    CHECK_FALSE(find_gear(person.document().kit().tubes, "tube-12"));
    for (const auto& shot : person.document().shoot().shots)
        CHECK(std::ranges::count(shot.rig.tubes, std::string("tube-12")) == 0);
    CHECK(WithBag::in<QLabel>(room, "kitMessage")->text().contains(QStringLiteral("Ctrl+Z")));
    room.close();
}

TEST_CASE("a bag is there again in the next window", "[desk][kit]") {
    QString path;
    {
        WithBag person;
        auto& room = person.room(desk::KitRoom::Side::bag, "rails");
        WithBag::click(room, "addGearButton");
        path = person.window().bag().path();
        QFile::copy(path, path + QStringLiteral(".kept"));
        room.close();
    }
    QFile::rename(path + QStringLiteral(".kept"), path);
    WithBag person;
    CHECK(find_gear(person.window().bag().kit().rails, "new-rail"));
    // What the shoot has and the bag has not goes the other way.
    person.document().edit({QStringLiteral("test")},
                           [](Shoot& shoot) { shoot.kit.tubes.push_back({.id = "odd", .name = "Odd tube"}); });
    auto& room = person.room(desk::KitRoom::Side::shoot, "tubes");
    auto* table = WithBag::in<QTableView>(room, "gearTable");
    table->selectRow(table->model()->rowCount() - 1);
    WithBag::click(room, "acrossButton");
    CHECK(find_gear(person.window().bag().kit().tubes, "odd"));
    room.close();
}

TEST_CASE("bounds of the search leave out what breaks them, and say how many", "[desk][search]") {
    WithBag person;
    auto& finder = person.finder();
    auto* model = static_cast<desk::ReachModel*>(WithBag::in<QTableView>(finder, "foundTable")->model());
    const auto said = [&] { return WithBag::in<QLabel>(finder, "orderText")->text(); };
    WithBag::click(finder, "wishNoGlass");
    WithBag::wait(finder);
    CHECK(said().contains(QStringLiteral("put glass in front")));
    for (const auto& found : model->found()) CHECK((!found.closeups[0] && !found.front_lens));
    WithBag::click(finder, "wishInfinity");
    WithBag::wait(finder);
    for (const auto& found : model->found()) CHECK(found.infinity);
    CHECK(said().contains(QStringLiteral("lose infinity")));
    WithBag::click(finder, "wishInfinity");
    WithBag::wait(finder);
    CHECK_FALSE(WithBag::in<desk::QuantityField>(finder, "wishLoss")->isEnabled());
    WithBag::click(finder, "wishLimitLoss");
    WithBag::wait(finder);
    WithBag::type(finder, "wishLoss", QStringLiteral("1.5"));
    WithBag::wait(finder);
    for (const auto& found : model->found()) CHECK(found.loss <= 1.5 + 1e-9);
    CHECK(said().contains(QStringLiteral("lose too much light")));
    // By magnification instead, out of reach of everything.
    auto* kind = WithBag::in<QComboBox>(finder, "wishKind");
    kind->setFocus();
    QTest::keyClick(kind, Qt::Key_Down);
    WithBag::wait(finder);
    WithBag::type(finder, "wishMagnification", QStringLiteral("900"));
    WithBag::wait(finder);
    CHECK(model->rowCount() == 0);
    CHECK(WithBag::in<QLabel>(finder, "foundText")->text().startsWith(QStringLiteral("None of")));
    CHECK_FALSE(WithBag::in<QPushButton>(finder, "useFoundButton")->isEnabled());
    // All cameras: then each row says which.
    WithBag::type(finder, "wishMagnification", QStringLiteral("0.5"));
    WithBag::wait(finder);
    WithBag::click(finder, "wishThisCamera");
    WithBag::wait(finder);
    CHECK(model->index(0, 0).data().toString().contains(QStringLiteral(" on ")));
    finder.close();
}

TEST_CASE("arrow keys go along the front, and a long search can be cancelled", "[desk][search]") {
    WithBag person;
    auto& finder = person.finder();
    auto* chart = finder.findChild<desk::ReachChart*>();
    auto* table = WithBag::in<QTableView>(finder, "foundTable");
    auto* model = static_cast<desk::ReachModel*>(table->model());
    chart->setFocus();
    QTest::keyClick(chart, Qt::Key_Right);
    double before = -1;
    for (int i = 0; i < 4; ++i) {
        const auto& found = model->found()[static_cast<std::size_t>(table->currentIndex().row())];
        CHECK(found.best_trade);
        if (before > 0) CHECK(found.working_distance < before);
        before = found.working_distance;
        QTest::keyClick(chart, Qt::Key_Left);
    }
    // A bag with many tubes takes long: progress shows, and cancel ends it.
    person.document().edit({QStringLiteral("test")}, [](Shoot& shoot) {
        for (int i = 0; i < 5; ++i)
            shoot.kit.tubes.push_back(
                {.id = std::string(1, 't').append(std::to_string(i)), .name = "Tube", .length = 5.0 + i});
    });
    CHECK(finder.isSearching());
    CHECK(WithBag::in<QProgressBar>(finder, "searchProgress")->isVisible());
    WithBag::click(finder, "cancelSearchButton");
    WithBag::wait(finder);
    CHECK(WithBag::in<QLabel>(finder, "foundText")->text() == QStringLiteral("Cancelled."));
    // Too much to try at all is said, not begun.
    person.document().edit({QStringLiteral("test")}, [](Shoot& shoot) {
        for (int i = 0; i < 20; ++i)
            shoot.kit.tubes.push_back(
                {.id = std::string(1, 'u').append(std::to_string(i)), .name = "Tube", .length = 5.0 + i});
    });
    WithBag::wait(finder);
    CHECK(WithBag::in<QLabel>(finder, "foundText")->text().contains(QStringLiteral("Too much gear")));
    finder.close();
}

TEST_CASE("the picture of a rule is zoomed, moved and marked again", "[desk][measure]") {
    desk::RulerView view;
    view.resize(600, 400);
    view.show();
    (void)QTest::qWaitForWindowExposed(&view);
    QImage picture(1200, 800, QImage::Format_Grayscale8);
    picture.fill(200);
    QPainter painter(&picture);
    for (int i = 0; i < 12; ++i) painter.fillRect(QRect(50 + 100 * i, 200, 6, 300), Qt::black);
    painter.end();
    view.setImage(picture);
    CHECK_THAT(view.toView({599.5, 399.5}).x(), WithinRel(300, 1e-9));
    QSignalSpy changed(&view, &desk::RulerView::marksChanged);
    QTest::mouseClick(&view, Qt::LeftButton, {}, view.toView({153, 350}).toPoint());
    REQUIRE(view.marks()[0]);
    REQUIRE(view.marks()[0]->tick);
    CHECK(std::abs(view.marks()[0]->place.x - 152.5) < 0.2);
    // Without snapping the mark is where the click was.
    view.setSnapping(false);
    QTest::mouseClick(&view, Qt::LeftButton, {}, view.toView({805, 350}).toPoint());
    REQUIRE(view.marks()[1]);
    CHECK_FALSE(view.marks()[1]->tick);
    CHECK(changed.size() == 2);
    // A third click moves the chosen mark; keys choose which.
    QTest::keyClick(&view, Qt::Key_1);
    QTest::mouseClick(&view, Qt::LeftButton, {}, view.toView({305, 350}).toPoint());
    CHECK(std::abs(view.marks()[0]->place.x - 305) < 2);
    // The wheel keeps what is under the cursor; the right button moves the picture.
    const QPointF about(200, 150);
    const auto under = view.toImage(about);
    QWheelEvent wheel(about, view.mapToGlobal(about), {}, {0, 240}, {}, {}, Qt::NoScrollPhase, false);
    QApplication::sendEvent(&view, &wheel);
    CHECK(std::abs(view.toImage(about).x - under.x) < 1e-9);
    const auto corner = view.toView({0, 0});
    QTest::mousePress(&view, Qt::RightButton, {}, QPoint(200, 150));
    QTest::mouseMove(&view, QPoint(230, 190));
    QTest::mouseRelease(&view, Qt::RightButton, {}, QPoint(230, 190));
    CHECK(std::abs(view.toView({0, 0}).x() - corner.x() - 30) < 1e-9);
    CHECK(std::abs(view.toView({0, 0}).y() - corner.y() - 40) < 1e-9);
    QTest::keyClick(&view, Qt::Key_0);
    CHECK_THAT(view.toView({599.5, 399.5}).x(), WithinRel(300, 1e-9));
    // A new picture begins anew.
    view.setImage(picture);
    CHECK_FALSE(view.marks()[0].has_value());
}

TEST_CASE("what cannot be measured is said", "[desk][measure]") {
    WithBag person;
    person.document().select(0);
    person.trigger(QStringLiteral("measureAction"));
    auto* measure = person.window().findChild<desk::MeasureDialog*>();
    // Not the shape of the sensor.
    QImage square(400, 400, QImage::Format_Grayscale8);
    square.fill(200);
    measure->showPicture(square, QStringLiteral("square.png"));
    CHECK(WithBag::in<QLabel>(*measure, "ruleText")->text().contains(QStringLiteral("not the shape of the sensor")));
    CHECK(WithBag::in<QLabel>(*measure, "pictureText")->text().contains(QStringLiteral("400")));
    // At 1:1 two distances say nothing.
    WithBag::click(*measure, "wayDistances");
    CHECK(measure->findChild<desk::MeasureSketch*>()->isVisible());
    CHECK_FALSE(WithBag::in<QPushButton>(*measure, "storeDistancesButton")->isEnabled());
    CHECK(WithBag::in<QLabel>(*measure, "distancesText")->text().contains(QStringLiteral("too uncertain")));
    WithBag::type(*measure, "extendedDistanceField", QStringLiteral("900"));
    CHECK(WithBag::in<QLabel>(*measure, "distancesText")->text().contains(QStringLiteral("No focal length fits")));
    // A zoom has them in its record.
    person.document().editShot({QStringLiteral("test")}, [](Shot& shot) { shot.rig.lens = "kit-55"; });
    CHECK(WithBag::in<QLabel>(*measure, "distancesText")->text().contains(QStringLiteral("Not for zooms")));
    CHECK(WithBag::in<QLabel>(*measure, "measureTitle")->text() == QStringLiteral("Kit zoom 18 to 55 mm"));
    measure->close();
}

TEST_CASE("a piece let go of beside the train goes nowhere - the title says what is lost", "[desk][train]") {
    WithBag person;
    auto* chip = person.find<QToolButton>(QStringLiteral("chip-tube-20"));
    const auto before = person.shot();
    QTest::mousePress(chip, Qt::LeftButton, {}, chip->rect().center());
    QTest::mouseMove(chip, QPoint(300, 60));
    QTest::mouseRelease(chip, Qt::LeftButton, {}, QPoint(300, 60));
    CHECK(person.shot() == before);
    auto* train = person.find<desk::TrainDrawing>(QStringLiteral("trainDrawing"));
    person.document().editShot({QStringLiteral("test")}, [](Shot& shot) { shot.rig.lens = "macro-40"; });
    CHECK(train->drop("closeup_lenses", "closeup-2", train->boxOf(1).center() + QPointF(60, 0)));
    CHECK(person.shot().rig.closeup_lenses == std::vector<std::string>{"closeup-2"});
    QTest::mouseDClick(train, Qt::LeftButton, {}, train->boxOf(1).center().toPoint());
    CHECK(person.shot().rig.reversing_ring == "reversing-49");
    CHECK(person.shot().rig.closeup_lenses.empty());
    CHECK(train->drop("closeup_lenses", "closeup-2", train->boxOf(2).center() + QPointF(60, 0)));
    CHECK(train->hint().contains(QStringLiteral("Nothing screws into the mount")));
    CHECK_FALSE(train->drop("tubes", "tube-12", QPointF(-50, -50)));
}
