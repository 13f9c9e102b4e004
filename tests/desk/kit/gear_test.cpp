// The kit room, the search, the train and the measuring desk, driven as a person would.
#include "support/person.hpp"

#include "desk/drawing/ruler_view.hpp"
#include "desk/kit/gear_form.hpp"
#include "desk/kit/gear_model.hpp"
#include "desk/kit/kit_room.hpp"
#include "desk/kit/measure_dialog.hpp"
#include "desk/reach/reach_chart.hpp"
#include "desk/reach/reach_finder.hpp"
#include "desk/reach/reach_model.hpp"
#include "desk/set/bench_view.hpp"
#include "desk/set/train_drawing.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "optics/focus.hpp"
#include "shoot/change/kit_edit.hpp"
#include "storage/kit_file.hpp"
#include "support/matchers.hpp"

#include <cmath>
#include <numbers>

using namespace poquito;
using namespace poquito::text;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::search;
using test::Person;
using test::WithinRel;

namespace {

/// A person at the demo's Reach station, with a bag of their own.
struct AtReach : Person {
    AtReach() {
        window().openDemo();
        goTo(2);
    }
    ~AtReach() { QFile::remove(window().bag().path()); }
    desk::TrainDrawing& train() { return *find<desk::TrainDrawing>(QStringLiteral("trainDrawing")); }
    std::vector<std::string> row() {
        std::vector<std::string> ids;
        for (const auto& piece : mounted_pieces(document().kit(), shot().rig, 0)) ids.push_back(piece.id);
        return ids;
    }
    void drag(QPointF from, QPointF to) {
        auto* widget = &train();
        QTest::mousePress(widget, Qt::LeftButton, {}, from.toPoint());
        QTest::mouseMove(widget, ((from + to) / 2).toPoint());
        QTest::mouseMove(widget, to.toPoint());
        QTest::mouseRelease(widget, Qt::LeftButton, {}, to.toPoint());
        settle();
    }
    desk::ReachFinder& finder() {
        trigger(QStringLiteral("findSetupAction"));
        auto* found = window().findChild<desk::ReachFinder*>();
        REQUIRE(found);
        waitForSearch(*found);
        return *found;
    }
    void waitForSearch(desk::ReachFinder& finder) {
        REQUIRE(QTest::qWaitFor([&] { return !finder.isSearching(); }, test::patience));
        settle();
        REQUIRE_FALSE(finder.isSearching());
    }
    desk::KitRoom& room() {
        trigger(QStringLiteral("kitRoomAction"));
        auto* found = window().findChild<desk::KitRoom*>();
        REQUIRE(found);
        return *found;
    }
};

using Ids = std::vector<std::string>;

QImage rule(double pixels_per_mm, double angle) {
    QImage picture(1200, 800, QImage::Format_Grayscale8);
    picture.fill(220);
    QPainter painter(&picture);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.translate(100, 300);
    painter.rotate(angle * 180 / std::numbers::pi);
    for (int mm = 0; mm < 40; ++mm) painter.fillRect(QRectF(mm * pixels_per_mm - 2, -100, 4, 200), Qt::black);
    return picture;
}

}  // namespace

TEST_CASE("pieces are dragged along the train, out of it and into it", "[desk][train]") {
    AtReach person;
    person.document().editShot({QStringLiteral("test")}, [](Shot& shot) {
        shot.rig.tubes = {"tube-12", "tube-36"};
        shot.rig.teleconverter = "converter-2";
    });
    REQUIRE(person.row() == Ids{"apsc-24", "converter-2", "tube-12", "tube-36", "macro-90"});
    const double before = person.report().optics.range.greatest;
    // The first tube behind the converter.
    person.drag(person.train().boxOf(2).center(), person.train().boxOf(1).center() - QPointF(8, 0));
    CHECK(person.row() == Ids{"apsc-24", "tube-12", "converter-2", "tube-36", "macro-90"});
    CHECK(person.report().optics.range.greatest < before);
    // Out of the row.
    person.drag(person.train().boxOf(3).center(), person.train().boxOf(3).center() + QPointF(0, 130));
    CHECK(person.row() == Ids{"apsc-24", "tube-12", "converter-2", "macro-90"});
    // The lens stays, and says so.
    person.drag(person.train().boxOf(3).center(), person.train().boxOf(3).center() + QPointF(0, 140));
    CHECK(person.row().size() == 4);
    CHECK(person.train().hint().contains(QStringLiteral("stays")));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.row() == Ids{"apsc-24", "tube-12", "converter-2", "tube-36", "macro-90"});

    // From the pieces below, to the place where it is let go of.
    auto* chip = person.find<QToolButton>(QStringLiteral("chip-tube-20"));
    const QPoint target =
        chip->mapFromGlobal(person.train().mapToGlobal(person.train().boxOf(1).center().toPoint() - QPoint(12, 0)));
    QTest::mousePress(chip, Qt::LeftButton, {}, chip->rect().center());
    QTest::mouseMove(chip, target / 2);
    QTest::mouseMove(chip, target);
    QTest::mouseRelease(chip, Qt::LeftButton, {}, target);
    person.settle();
    CHECK(person.row() == Ids{"apsc-24", "tube-20", "tube-12", "converter-2", "tube-36", "macro-90"});
}

TEST_CASE("the train is changed by keys alone", "[desk][train]") {
    AtReach person;
    auto& train = person.train();
    train.setFocus();
    person.document().editShot({QStringLiteral("test")}, [](Shot& shot) {
        shot.rig.tubes = {"tube-12", "tube-36"};
        shot.rig.closeup_lenses = {};
    });
    person.key(Qt::Key_Right);
    CHECK(train.selected() == 1);
    CHECK(train.accessibleDescription().contains(QStringLiteral("Tube 12 mm")));
    person.key(Qt::Key_Right, Qt::ShiftModifier);
    CHECK(person.row() == Ids{"apsc-24", "tube-36", "tube-12", "macro-90"});
    CHECK(train.selected() == 2);
    person.key(Qt::Key_Delete);
    CHECK(person.row() == Ids{"apsc-24", "tube-36", "macro-90"});
    person.document().editShot({QStringLiteral("test")}, [](Shot& shot) { shot.rig.lens = "macro-40"; });
    person.key(Qt::Key_R);
    CHECK(person.row() == Ids{"apsc-24", "tube-36", "reversing-49", "macro-40"});
    CHECK(person.hasNote("contacts-lost"));
    person.key(Qt::Key_R);
    CHECK_FALSE(person.shot().rig.reversing_ring.has_value());
    person.key(Qt::Key_Left);
    person.key(Qt::Key_Left);
    person.key(Qt::Key_Left);
    person.key(Qt::Key_Delete);
    CHECK(train.hint().contains(QStringLiteral("camera stays")));
}

TEST_CASE("Reach sets bellows, zooms, crops and the lens in front", "[desk][pages]") {
    AtReach person;
    person.click(QStringLiteral("chip-bellows-150"));
    REQUIRE(person.shot().rig.bellows);
    person.type(QStringLiteral("extensionField"), QStringLiteral("100"));
    CHECK(person.shot().rig.bellows->extension == 100);
    person.type(QStringLiteral("extensionField"), QStringLiteral("30 cm"));  // as far as it goes
    CHECK(person.shot().rig.bellows->extension == 150);
    person.click(QStringLiteral("chip-bellows-150"));
    CHECK_FALSE(person.find(QStringLiteral("extensionField"))->isVisible());

    person.choose(QStringLiteral("cropChoice"), QStringLiteral("4K video"));
    CHECK(person.shot().rig.crop_mode == "4K video");
    person.choose(QStringLiteral("lensChoice"), QStringLiteral("Kit zoom 18 to 55 mm"));
    person.type(QStringLiteral("zoomField"), QStringLiteral("45"));
    CHECK(person.shot().rig.focal_length == 45);
    CHECK_THAT(train_of(person.document().kit(), person.shot().rig).lens.max_aperture, WithinRel(5.05, 1e-9));
    person.choose(QStringLiteral("lensChoice"), QStringLiteral("90 mm macro 1:1"));
    CHECK_FALSE(person.shot().rig.focal_length.has_value());
    person.click(QStringLiteral("chip-coupling-62-49"));
    REQUIRE(person.shot().rig.front_lens);
    person.type(QStringLiteral("frontStopField"), QStringLiteral("f/4"));
    CHECK(person.shot().rig.front_lens->f_number == 4);
    person.click(QStringLiteral("standTab"));
    person.choose(QStringLiteral("supportChoice"), QStringLiteral("small tripod head"));
    CHECK(person.hasNote("long-rig"));
}

TEST_CASE("a size, some air and a bag: the search ranks, marks and mounts", "[desk][search]") {
    AtReach person;
    auto& finder = person.finder();
    auto* model = static_cast<desk::ReachModel*>(finder.findChild<QTableView*>(QStringLiteral("foundTable"))->model());
    auto* size = finder.findChild<desk::QuantityField*>(QStringLiteral("wishField"));
    auto* distance = finder.findChild<desk::QuantityField*>(QStringLiteral("wishDistance"));
    const auto type = [&](desk::QuantityField* field, const QString& text) {
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, text);
        person.waitForSearch(finder);
    };
    type(size, QStringLiteral("24 mm"));
    const int unbounded = model->rowCount();
    type(distance, QStringLiteral("60"));
    CHECK(model->rowCount() > 5);
    CHECK(model->rowCount() < unbounded);
    for (const auto& found : model->found()) {
        CHECK(found.working_distance >= 60);
        CHECK_THAT(found.magnification, WithinRel(23.5 / 24, 1e-5));
    }
    // Without autofocus it has nothing to do with what is asked.
    QTest::mouseClick(finder.findChild<QCheckBox*>(QStringLiteral("wishAutofocus")), Qt::LeftButton, {}, QPoint(8, 8));
    person.waitForSearch(finder);
    for (const auto& found : model->found()) CHECK(found.autofocus);
    // Another order by a click on a heading.
    auto* header = finder.findChild<QTableView*>(QStringLiteral("foundTable"))->horizontalHeader();
    QTest::mouseClick(header->viewport(), Qt::LeftButton, {},
                      QPoint(header->sectionViewportPosition(desk::ReachModel::workingDistance) + 20, 8));
    CHECK(std::ranges::is_sorted(model->found(), std::ranges::greater(), &ReachFound::working_distance));
    CHECK(
        finder.findChild<QLabel*>(QStringLiteral("orderText"))->text().contains(QStringLiteral("In order: most air")));

    // A dot in the chart chooses its row; the button mounts it.
    auto* chart = finder.findChild<desk::ReachChart*>();
    const auto best =
        *std::ranges::find_if(model->found(), [](const auto& one) { return one.best_trade && one.pieces > 1; });
    QTest::mouseClick(chart, Qt::LeftButton, {}, chart->placeOf(best).toPoint());
    const auto chosen = finder.findChild<QTableView*>(QStringLiteral("foundTable"))->currentIndex().row();
    CHECK(desk::samePieces(model->found()[static_cast<std::size_t>(chosen)], best));
    const auto before = person.shot();
    QTest::mouseClick(finder.findChild<QPushButton*>(QStringLiteral("useFoundButton")), Qt::LeftButton);
    person.settle();
    CHECK_THAT(person.report().optics.field_width.value(), WithinRel(24, 1e-5));
    CHECK_THAT(person.report().optics.working_distance.value(), WithinRel(best.working_distance, 1e-4));
    CHECK(person.shot().rig.lens == person.document().kit().lenses[best.lens].id);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot() == before);
    // And the plain question.
    CHECK(finder.findChild<QLabel*>(QStringLiteral("greatestText"))
              ->text()
              .contains(QStringLiteral("The most it can do")));
    QTest::mouseClick(finder.findChild<QPushButton*>(QStringLiteral("mountGreatestButton")), Qt::LeftButton);
    CHECK(person.report().optics.magnification > 10);
    finder.close();
}

TEST_CASE("gear found in the bag comes into the shoot with it", "[desk][search]") {
    AtReach person;
    auto& bag = person.window().bag();
    bag.document().edit({QStringLiteral("test")}, [](Shoot& shoot) {
        const Kit all = desk::catalogue();
        shoot.kit = {};
        shoot.kit.cameras = {all.cameras[3]};
        for (const auto& lens : all.lenses)
            if (lens.id == "macro-65-5") shoot.kit.lenses = {lens};
    });
    auto& finder = person.finder();
    auto* source = finder.findChild<QComboBox*>(QStringLiteral("wishSource"));
    source->setFocus();
    QTest::keyClick(source, Qt::Key_Down);
    person.waitForSearch(finder);
    auto* size = finder.findChild<desk::QuantityField*>(QStringLiteral("wishField"));
    size->setFocus();
    size->selectAll();
    QTest::keyClicks(size, QStringLiteral("8 mm"));
    person.waitForSearch(finder);
    CHECK_FALSE(find_gear(person.document().kit().lenses, "macro-65-5"));
    QTest::mouseClick(finder.findChild<QPushButton*>(QStringLiteral("useFoundButton")), Qt::LeftButton);
    CHECK(find_gear(person.document().kit().lenses, "macro-65-5"));
    CHECK(person.shot().rig.lens == "macro-65-5");
    finder.close();
}

TEST_CASE("the kit room adds, changes, duplicates, removes and takes back", "[desk][kit]") {
    AtReach person;
    auto& room = person.room();
    auto& bag = person.window().bag();
    room.look(desk::KitRoom::Side::bag, "tubes");
    const auto count = bag.kit().tubes.size();
    const auto click = [&](const char* name) {
        QTest::mouseClick(room.findChild<QPushButton*>(QLatin1String(name)), Qt::LeftButton);
        person.settle();
    };
    const auto type = [&](const char* name, const QString& text) {
        auto* field = room.findChild<QWidget*>(QLatin1String(name));
        REQUIRE(field);
        auto* edit = qobject_cast<QLineEdit*>(field) ? qobject_cast<QLineEdit*>(field) : field->findChild<QLineEdit*>();
        field->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        person.settle();
    };
    click("addGearButton");
    REQUIRE(bag.kit().tubes.size() == count + 1);
    type("gear-name", QStringLiteral("Tube 16 mm, \"soft\""));
    type("gear-length_mm", QStringLiteral("1.6 cm"));
    CHECK(bag.kit().tubes.back().name == "Tube 16 mm, \"soft\"");
    CHECK(bag.kit().tubes.back().length == 16);
    type("gear-length_mm", QStringLiteral("-3"));  // not a length: the record stays
    CHECK(bag.kit().tubes.back().length == 16);
    click("duplicateGearButton");
    CHECK(bag.kit().tubes.size() == count + 2);
    click("removeGearButton");
    CHECK(bag.kit().tubes.size() == count + 1);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(bag.kit().tubes.size() == count + 2);
    // On the disk at once, and there when the next window opens.
    const auto stored = storage::load_kit(bag.path().toStdString());
    REQUIRE(stored.has_value());
    CHECK(stored.value() == bag.kit());
    person.window().newShoot();
    CHECK(person.document().kit() == bag.kit());
    room.close();
}

TEST_CASE("members that contradict each other are refused, and the record stays", "[desk][kit]") {
    AtReach person;
    auto& room = person.room();
    room.look(desk::KitRoom::Side::bag, "lenses");
    auto* form = room.findChild<desk::GearForm*>();
    const auto before = person.window().bag().kit().lenses[0];
    auto* smallest = form->findChild<desk::QuantityField*>(QStringLiteral("gear-min_aperture"));
    smallest->setFocus();
    smallest->selectAll();
    QTest::keyClicks(smallest, QStringLiteral("2"));
    CHECK(person.window().bag().kit().lenses[0] == before);
    auto* problem = form->findChild<QLabel*>(QStringLiteral("gearProblem"));
    CHECK(problem->isVisible());
    CHECK(problem->text().contains(QStringLiteral("expected 2.8 or more")));
    QTest::keyClicks(smallest, QStringLiteral("7"));
    CHECK(person.window().bag().kit().lenses[0].optics.min_aperture == 27);
    CHECK_FALSE(problem->isVisible());
    room.close();
}

TEST_CASE("gear that shots use is removed only with an answer for them", "[desk][kit]") {
    AtReach person;
    auto& room = person.room();
    room.look(desk::KitRoom::Side::shoot, "lenses");
    const auto users = users_of(person.document().shoot(), gear_kind("lenses"), "macro-90").size();
    REQUIRE(users > 2);
    // Cancelled, nothing happens.
    QTimer::singleShot(0, &room, [] {
        QApplication::activeModalWidget()->findChild<QDialogButtonBox*>()->button(QDialogButtonBox::Cancel)->click();
    });
    QTest::mouseClick(room.findChild<QPushButton*>(QStringLiteral("removeGearButton")), Qt::LeftButton);
    CHECK(find_gear(person.document().kit().lenses, "macro-90"));
    QString asked;
    QTimer::singleShot(0, &room, [&asked] {
        auto* box = QApplication::activeModalWidget();
        asked = box->findChild<QLabel*>()->text();
        auto* choice = box->findChild<QComboBox*>(QStringLiteral("replacementChoice"));
        choice->setCurrentIndex(choice->findData(QStringLiteral("macro-150")));
        box->findChild<QDialogButtonBox*>()->button(QDialogButtonBox::Ok)->click();
    });
    QTest::mouseClick(room.findChild<QPushButton*>(QStringLiteral("removeGearButton")), Qt::LeftButton);
    person.settle();
    CHECK(asked.contains(QStringLiteral("Tide brooch")));
    CHECK_FALSE(find_gear(person.document().kit().lenses, "macro-90"));
    CHECK(users_of(person.document().shoot(), gear_kind("lenses"), "macro-150").size() >= users);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(find_gear(person.document().kit().lenses, "macro-90"));
    CHECK(users_of(person.document().shoot(), gear_kind("lenses"), "macro-90").size() == users);
    // Renaming needs no answer.
    auto* name = room.findChild<QLineEdit*>(QStringLiteral("gear-name"));
    name->setFocus();
    name->selectAll();
    QTest::keyClicks(name, QStringLiteral("The old macro"));
    CHECK(find_gear(person.document().kit().lenses, "macro-90")->name == "The old macro");
    CHECK(users_of(person.document().shoot(), gear_kind("lenses"), "macro-90").size() == users);
    room.close();
}

TEST_CASE("gear goes from the catalogue into the bag, into the shoot and out as CSV", "[desk][kit]") {
    AtReach person;
    auto& room = person.room();
    auto& bag = person.window().bag();
    const Kit all = desk::catalogue();
    CHECK(all.cameras.size() >= 8);
    CHECK(all.lenses.size() >= 14);
    for (const auto& kind : gear_kinds()) {
        CHECK(kind.count(all) >= 2);
        for (std::size_t i = 0; i < kind.count(all); ++i) CHECK_FALSE(kind.check(all, i).has_value());
    }
    room.look(desk::KitRoom::Side::bag, "cameras");
    const auto count = bag.kit().cameras.size();
    QTimer::singleShot(0, &room, [] {
        auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        REQUIRE(menu);
        menu->actions().first()->trigger();
        menu->close();
    });
    QTest::mouseClick(room.findChild<QPushButton*>(QStringLiteral("catalogueButton")), Qt::LeftButton);
    REQUIRE(bag.kit().cameras.size() == count + 1);
    CHECK(bag.kit().cameras.back().name == all.cameras[0].name);
    QTest::mouseClick(room.findChild<QPushButton*>(QStringLiteral("acrossButton")), Qt::LeftButton);
    CHECK(find_gear(person.document().kit().cameras, bag.kit().cameras.back().id));

    QTemporaryDir folder;
    const QString csv = folder.filePath(QStringLiteral("bag.csv"));
    REQUIRE(room.exportTo(csv));
    const auto before = bag.kit();
    REQUIRE(room.importFrom(csv));
    CHECK(bag.kit() == before);
    CHECK(room.findChild<QLabel*>(QStringLiteral("kitMessage"))->text().contains(QStringLiteral("0 added")));
    QFile file(csv);
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write("kind,id,name,length_mm,contacts\ntubes,t,Tube,\"12,5\",true\n");
    file.close();
    CHECK_FALSE(room.importFrom(csv));
    CHECK(room.findChild<QLabel*>(QStringLiteral("kitMessage"))->text().contains(QStringLiteral("line 2, length_mm")));
    CHECK(bag.kit() == before);
    room.close();
}

TEST_CASE("a bag that cannot be read is set aside, not lost", "[desk][kit]") {
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("bag.json"));
    QFile file(path);
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write("{ half a");
    file.close();
    desk::Bag bag(path);
    CHECK(bag.problem().contains(QStringLiteral("stands aside")));
    CHECK(bag.kit() == desk::starterKit());
    CHECK(QDir(folder.path()).entryList({QStringLiteral("bag.json.unread-*")}).size() == 1);
}

TEST_CASE("the tables of the room keep the models' contract", "[desk][kit]") {
    desk::Document document;
    document.open(desk::demoShoot(), {});
    desk::GearModel gear;
    gear.show(document, gear_kind("lenses"));
    QAbstractItemModelTester test_gear(&gear, QAbstractItemModelTester::FailureReportingMode::Fatal);
    document.edit({QStringLiteral("test")}, [](Shoot& shoot) { shoot.kit.lenses[0].name = "Other"; });
    CHECK(gear.index(0, 0).data().toString() == QStringLiteral("Other"));
    document.edit({QStringLiteral("test")}, [](Shoot& shoot) { add_gear(gear_kind("lenses"), shoot.kit); });
    gear.show(document, gear_kind("tubes"));
    desk::ReachModel found;
    QAbstractItemModelTester test_found(&found, QAbstractItemModelTester::FailureReportingMode::Fatal);
    found.show(document.kit(), search_reach(document.kit(), {.magnification = 1, .only_camera = "apsc-24"}).found,
               {ReachMeasure::pieces});
    found.rank({ReachMeasure::loss});
    const auto& zoom = gear_kind("lenses").tables[0];
    desk::RowsModel rows(zoom);
    QAbstractItemModelTester test_rows(&rows, QAbstractItemModelTester::FailureReportingMode::Fatal);
    rows.show({{18.0, 3.5, 250.0, 0.1, 80.0}, {55.0, 5.6, 280.0, 0.3, 82.0}});
    QSignalSpy edited(&rows, &desk::RowsModel::rowsEdited), refused(&rows, &desk::RowsModel::cellRefused);
    CHECK(rows.setData(rows.index(0, 2), QStringLiteral("26 cm"), Qt::EditRole));
    CHECK(edited.size() == 1);
    CHECK_FALSE(rows.setData(rows.index(0, 2), QStringLiteral("far"), Qt::EditRole));
    CHECK(refused.size() == 1);
}

TEST_CASE("a photographed rule is marked, nudged, read and stored", "[desk][measure]") {
    AtReach person;
    person.document().select(0);  // bare 90 mm macro
    person.trigger(QStringLiteral("measureAction"));
    auto* desk = person.window().findChild<desk::MeasureDialog*>();
    REQUIRE(desk);
    auto* view = desk->findChild<desk::RulerView*>();
    const double pixels_per_mm = 24.8, angle = 0.05;
    QTemporaryDir folder;
    const auto path = folder.filePath(QStringLiteral("rule.png"));
    REQUIRE(rule(pixels_per_mm, angle).save(path));
    CHECK_FALSE(desk->openPicture(folder.filePath(QStringLiteral("none.png"))));
    REQUIRE(desk->openPicture(path));
    person.settle();
    auto* store = desk->findChild<QPushButton*>(QStringLiteral("storeRuleButton"));
    CHECK_FALSE(store->isEnabled());
    // Clicks that miss the ticks by some pixels.
    const auto tick = [&](double mm, double along) {
        return view->toView({100 + mm * pixels_per_mm * std::cos(angle) - along * std::sin(angle),
                             300 + mm * pixels_per_mm * std::sin(angle) + along * std::cos(angle)});
    };
    QTest::mouseClick(view, Qt::LeftButton, {}, (tick(5, 20) + QPointF(3, 1)).toPoint());
    QTest::mouseClick(view, Qt::LeftButton, {}, (tick(35, -10) - QPointF(3, 2)).toPoint());
    auto* distance = desk->findChild<desk::QuantityField*>(QStringLiteral("ruleDistanceField"));
    distance->setFocus();
    distance->selectAll();
    QTest::keyClicks(distance, QStringLiteral("3 cm"));
    auto* ring = desk->findChild<desk::QuantityField*>(QStringLiteral("ruleRingField"));
    ring->setFocus();
    ring->selectAll();
    QTest::keyClicks(ring, QStringLiteral("0.5"));
    const auto said = desk->findChild<QLabel*>(QStringLiteral("ruleText"))->text();
    CHECK(said.contains(QStringLiteral("30 spaces counted")));
    REQUIRE(store->isEnabled());
    QTest::mouseClick(store, Qt::LeftButton);
    const auto& record = *find_gear(person.document().kit().lenses, "macro-90");
    REQUIRE(record.calibrations.size() == 1);
    // 24.8 pixels a mm, and 23.5 mm of sensor on 1200 pixels.
    CHECK_THAT(record.calibrations[0].value, WithinRel(pixels_per_mm * 23.5 / 1200, 0.005));
    CHECK(record.calibrations[0].believed == 0.5);
    CHECK(find_gear(person.window().bag().kit().lenses, "macro-90")->calibrations.size() == 1);
    person.clickLine(person.numbers().indexOf("usual-here"));
    CHECK(person.hasNote("measured-lens"));

    // Nudged by keys, a mark stands where it was put and no longer on the tick.
    view->setFocus();
    const auto before = view->marks()[1]->place;
    QTest::keyClick(view, Qt::Key_Right);
    QTest::keyClick(view, Qt::Key_Up, Qt::ShiftModifier);
    CHECK(std::abs(view->marks()[1]->place.x - before.x - 1) < 1e-9);
    CHECK(std::abs(view->marks()[1]->place.y - before.y + 0.1) < 1e-9);
    CHECK_FALSE(view->marks()[1]->tick.has_value());
    // Zoomed to the pixel, the mark stays on its pixel.
    for (int i = 0; i < 8; ++i) QTest::keyClick(view, Qt::Key_Plus);
    const auto there = view->toImage(view->toView(before));
    CHECK(std::abs(there.x - before.x) < 1e-9);
    desk->close();

    // The kit room takes it back.
    auto& room = person.room();
    room.look(desk::KitRoom::Side::shoot, "lenses");
    QTest::mouseClick(room.findChild<QPushButton*>(QStringLiteral("takeBack-0")), Qt::LeftButton);
    person.settle();
    CHECK(find_gear(person.document().kit().lenses, "macro-90")->calibrations.empty());
    room.close();
}

TEST_CASE("a displayed aperture and two sharp distances go into the record", "[desk][measure]") {
    AtReach person;
    person.document().select(0);
    person.trigger(QStringLiteral("measureAction"));
    auto* desk = person.window().findChild<desk::MeasureDialog*>();
    const auto type = [&](const char* name, const QString& text) {
        auto* field = desk->findChild<desk::QuantityField*>(QLatin1String(name));
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, text);
    };
    QTest::mouseClick(desk->findChild<QPushButton*>(QStringLiteral("wayAperture")), Qt::LeftButton);
    type("shownApertureField", QStringLiteral("2"));
    CHECK_FALSE(desk->findChild<QPushButton*>(QStringLiteral("storeApertureButton"))->isEnabled());
    type("shownApertureField", QStringLiteral("f/5"));
    QTest::mouseClick(desk->findChild<QPushButton*>(QStringLiteral("storeApertureButton")), Qt::LeftButton);
    CHECK(find_gear(person.document().kit().lenses, "macro-90")->optics.closest_working_f_number == 5);

    person.document().editShot({QStringLiteral("test")}, [](Shot& shot) { shot.rig.lens = "normal-50"; });
    desk->begin();
    QTest::mouseClick(desk->findChild<QPushButton*>(QStringLiteral("wayDistances")), Qt::LeftButton);
    auto lens = find_gear(person.document().kit().lenses, "normal-50")->optics;
    lens.focal_length = 51.6;  // what it really has
    optics::Train train{.lens = lens};
    type("bareDistanceField", QString::number(450));
    train.tubes = 12;
    const double h = lens.closest_focus - 51.6 * (2 + 0.15 + 1 / 0.15), m = 0.15 + 12 / 51.6;
    type("extendedDistanceField", QString::number(51.6 * (2 + m + 1 / m) + h, 'f', 6));
    QTest::mouseClick(desk->findChild<QPushButton*>(QStringLiteral("storeDistancesButton")), Qt::LeftButton);
    CHECK_THAT(find_gear(person.document().kit().lenses, "normal-50")->optics.focal_length, WithinRel(51.6, 1e-4));
    desk->close();
}

TEST_CASE("every control of the windows about gear has a name, and no text is cut off in either theme",
          "[desk][look]") {
    AtReach person;
    auto& finder = person.finder();
    auto& room = person.room();
    person.trigger(QStringLiteral("measureAction"));
    auto* measure = person.window().findChild<desk::MeasureDialog*>();
    const auto look_at = [&](QWidget& window) {
        person.settle();
        for (auto* widget : window.findChildren<QWidget*>()) {
            const bool control = qobject_cast<QAbstractButton*>(widget) || qobject_cast<QComboBox*>(widget) ||
                                 qobject_cast<QAbstractSpinBox*>(widget) || qobject_cast<QAbstractItemView*>(widget);
            if (!control || !widget->isVisible() || widget->objectName().startsWith(QStringLiteral("qt_"))) continue;
            if (widget->inherits("QComboBoxListView") || widget->inherits("QTableCornerButton")) continue;
            if (widget->inherits("QHeaderView")) continue;
            INFO(widget->metaObject()->className() << " " << widget->objectName().toStdString());
            CHECK_FALSE(widget->objectName().isEmpty());
            CHECK_FALSE(widget->accessibleName().isEmpty());
            auto* button = qobject_cast<QAbstractButton*>(widget);
            if (button && !button->text().isEmpty())
                CHECK(button->width() >= button->fontMetrics().horizontalAdvance(button->text()));
        }
        for (auto* label : window.findChildren<QLabel*>()) {
            if (!label->isVisible() || label->wordWrap()) continue;
            INFO(label->text().toStdString());
            CHECK(label->width() >= label->sizeHint().width());
        }
    };
    look_at(finder);
    look_at(*measure);
    for (const auto& kind : gear_kinds()) {
        INFO(kind.list);
        room.look(desk::KitRoom::Side::shoot, kind.list);
        look_at(room);
    }
    finder.close();
    room.close();
    measure->close();
}

TEST_CASE("the bench draws whatever is mounted", "[desk][bench]") {
    AtReach person;
    person.click(QStringLiteral("benchButton"));
    auto* bench = person.window().findChild<desk::BenchView*>();
    CHECK(bench->isVisible());
    CHECK_FALSE(person.train().isVisible());
    for (int shot = 0; shot < person.document().count(); ++shot) {
        person.document().select(shot);
        person.settle();
        if (person.report().optics.working_distance && *person.report().optics.working_distance > 0)
            CHECK_THAT(bench->drawnWorkingDistance() / bench->scale(),
                       WithinRel(*person.report().optics.working_distance, 1e-6));
        CHECK_FALSE(bench->grab().isNull());
    }
    person.click(QStringLiteral("trainButton"));
    CHECK(person.train().isVisible());
}

TEST_CASE("a search behind a closed window ends", "[desk][search]") {
    AtReach person;
    auto& finder = person.finder();
    // So much gear that it takes a minute, were it waited for.
    person.document().edit({QStringLiteral("tubes")}, [](Shoot& shoot) {
        for (int i = 0; i < 4; ++i)
            shoot.kit.tubes.push_back({.id = "x" + std::to_string(i), .name = "x", .length = 5.0 + i});
    });
    QTest::mouseClick(finder.findChild<QCheckBox*>(QStringLiteral("wishThisCamera")), Qt::LeftButton, {}, QPoint(8, 8));
    REQUIRE(finder.isSearching());
    finder.close();
    // Long before it could be done.
    REQUIRE(QTest::qWaitFor([&] { return !finder.isSearching(); }, test::patience));
    auto* model = static_cast<desk::ReachModel*>(finder.findChild<QTableView*>(QStringLiteral("foundTable"))->model());
    CHECK(model->kit() != person.document().kit());  // what it did not find is not shown
    CHECK(finder.findChild<QLabel*>(QStringLiteral("foundText"))->text() == QStringLiteral("Cancelled."));
    // Opened again it begins anew.
    person.trigger(QStringLiteral("findSetupAction"));
    CHECK(finder.isSearching());
    finder.close();
    REQUIRE(QTest::qWaitFor([&] { return !finder.isSearching(); }, test::patience));
}
