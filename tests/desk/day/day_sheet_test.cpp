// The leaves of the day: sets and plates, outlets, packing.
#include "support/person.hpp"

#include "desk/day/day_sheet.hpp"
#include "desk/day/hours_tab.hpp"
#include "desk/day/outlets_tab.hpp"
#include "desk/day/packing_board.hpp"
#include "desk/day/picture_board.hpp"
#include "desk/day/sets_tab.hpp"
#include "desk/session/picture_writer.hpp"
#include "desk/session/run_controller.hpp"
#include "job/outlets.hpp"
#include "shoot/change/edit.hpp"
#include "shoot/change/view_set.hpp"
#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/folder.hpp"

#include <algorithm>
#include <filesystem>
#include <map>

using namespace poquito;
using test::Person;

namespace {

struct OnTheDay : Person {
    explicit OnTheDay(const char* tab) {
        window().openDemo();
        window().goTo(desk::Sheet::day);
        click(QLatin1String(tab));
    }
    const shoot::Shoot& shoot() { return document().shoot(); }
    /// The shot of that view of a thing.
    int view(const char* thing, const char* name) {
        for (int i = 0; i < document().count(); ++i) {
            const auto& own = shoot().shots[static_cast<std::size_t>(i)].view;
            if (own && own->thing == thing && own->name == name) return i;
        }
        FAIL("no view " << name);
        return -1;
    }
    void clickCell(desk::PictureBoard& board, int shot) {
        for (std::size_t s = 0; s < board.sections().size(); ++s)
            for (std::size_t c = 0; c < board.sections()[s].cells.size(); ++c)
                for (const auto& part : board.sections()[s].cells[c].parts)
                    if (part.shot == shot) {
                        const auto area = board.cellRect(s, c);
                        QTest::mouseClick(&board, Qt::LeftButton, {},
                                          QPointF(area.left() + 20, area.top() + 70).toPoint());
                        settle();
                        return;
                    }
        FAIL("not on the board");
    }
};

}  // namespace

TEST_CASE("a thing gets its views by one click, and a list of things gets them all", "[desk][day][sets]") {
    OnTheDay person("setsTab");
    auto* board = person.find<desk::PictureBoard>(QStringLiteral("setsBoard"));
    REQUIRE(board->sections().size() == 2);  // the satchel, and the brooch by its plates
    CHECK(board->sections()[0].heading == QStringLiteral("Waxed satchel"));
    CHECK(board->sections()[0].cells.size() == 5);
    CHECK(board->sections()[1].cells.size() == 3);
    CHECK_FALSE(person.find<QPushButton>(QStringLiteral("makeViewsButton"))->isEnabled());  // it has no name
    person.document().select(person.view("Waxed satchel", "front"));
    person.settle();
    person.choose(QStringLiteral("viewSetChoice"), QStringLiteral("Bag"));
    person.type(QStringLiteral("thingNameField"), QStringLiteral("Purse"));
    person.type(QStringLiteral("thingWidthField"), QStringLiteral("18 cm"));
    const int before = person.document().count();
    person.click(QStringLiteral("makeViewsButton"));
    CHECK(person.document().count() == before + 8);
    CHECK(person.shot().view->thing == "Purse");
    CHECK(person.shot().subject.width == 180);
    // The clasp is taken as that of the satchel was.
    const auto& clasp = person.shoot().shots[static_cast<std::size_t>(person.view("Purse", "clasp"))];
    CHECK(clasp.rig.lens ==
          person.shoot().shots[static_cast<std::size_t>(person.view("Waxed satchel", "clasp"))].rig.lens);
    person.document().undoStack().undo();
    CHECK(person.document().count() == before);

    const test::Folder folder;
    const auto path = folder / "things.csv";
    REQUIRE(storage::replace_file(
        path, "name,width,height,depth\nBag A,300,200,90\nBag B,wide,200,90\n\"Bag\n, C\",30 cm,20 cm,9 cm\n"));
    auto* tab = person.window().findChild<desk::SetsTab*>();
    QString problem;
    QObject::connect(tab, &desk::SetsTab::problemFound, [&](const QString& words) { problem = words; });
    tab->readList(QString::fromStdString(path.string()));
    person.settle();
    CHECK(person.document().count() == before + 16);
    CHECK(problem.contains(QStringLiteral("line 3, width")));
    CHECK(person.text(QStringLiteral("viewSetContents")).contains(QStringLiteral("2 things read, 16 views made")));
    tab->readList(QStringLiteral("/nowhere/things.csv"));
    CHECK(problem.contains(QStringLiteral("things.csv")));
    // The pictures come, beside the interface.
    auto* day = person.window().findChild<desk::DaySheet*>();
    CHECK(QTest::qWaitFor([&] { return day->picturesAreMade(); }, test::patience));
}

TEST_CASE("what deviates from its lock is said on the board and set back by a click, plates are added",
          "[desk][day][sets]") {
    OnTheDay person("setsTab");
    auto* board = person.find<desk::PictureBoard>(QStringLiteral("setsBoard"));
    const int back = person.view("Waxed satchel", "back");
    person.clickCell(*board, back);
    CHECK(person.document().current() == back);
    CHECK(person.text(QStringLiteral("deviations")) == QStringLiteral("Nothing deviates."));
    person.document().editShot({QStringLiteral("other stop")}, [](shoot::Shot& shot) { shot.exposure.f_number = 4; });
    person.settle();
    CHECK(person.text(QStringLiteral("deviations")).contains(QStringLiteral("f/4 where Satchel, front has f/8")));
    CHECK(board->sections()[0].words.contains(QStringLiteral("1 not as locked")));
    person.click(QStringLiteral("bringInLineButton"));
    CHECK(person.shot().exposure.f_number == 8);
    CHECK_FALSE(board->sections()[0].words.contains(QStringLiteral("not as locked")));
    // By keys to the next, Enter opens it.
    board->setFocus();
    person.key(Qt::Key_Right);
    CHECK(person.document().current() == person.view("Waxed satchel", "label"));
    person.type(QStringLiteral("viewNameField"), QStringLiteral("maker"));
    CHECK(person.shot().view->name == "maker");
    const int before = person.document().count();
    person.click(QStringLiteral("plate-ambient"));
    CHECK(person.document().count() == before + 1);
    CHECK(board->sections().size() == 3);
    CHECK(person.shot().plate->role == shoot::PlateRole::hero);
    board->setFocus();
    person.key(Qt::Key_Return);
    CHECK(person.window().sheet() == desk::Sheet::shot);
}

TEST_CASE("outlets get the best of a thing, what does not fit is framed for them, and cuts are dragged",
          "[desk][day][outlets]") {
    OnTheDay person("outletsTab");
    person.document().select(person.view("Waxed satchel", "front"));
    person.settle();
    auto* board = person.find<desk::PictureBoard>(QStringLiteral("outletsBoard"));
    REQUIRE(board->sections().size() == 3);
    CHECK(person.text(QStringLiteral("outletChoice")) == QStringLiteral("Museum web shop"));
    // The satchel is wider than a square of its frame.
    CHECK(person.text(QStringLiteral("outletVerdict")).contains(QStringLiteral("do not fit its cut")));
    auto* frame = person.find<QPushButton>(QStringLiteral("frameForOutletButton"));
    REQUIRE(frame->isEnabled());
    const double before = person.report().optics.magnification;
    person.click(frame);
    CHECK(person.report().optics.magnification < before);
    CHECK_FALSE(frame->isEnabled());
    person.click(QStringLiteral("chooseAllButton"));
    for (const auto& outlet : person.shoot().outlets) CHECK(job::delivery_of(person.shot(), outlet.id));
    CHECK(person.text(QStringLiteral("outletVerdict")).contains(QStringLiteral("That is what it gets")));
    CHECK(board->sections()[0].cells[0].first);
    CHECK(board->sections()[2].cells.size() >= 3);
    // The front's square is dragged under its cut, and no further than there is frame.
    const auto cell = board->cellRect(0, 0);
    const QPointF from(cell.left() + 20, cell.top() + 60), to = from + QPointF(8, 0);
    QTest::mousePress(board, Qt::LeftButton, {}, from.toPoint());
    QMouseEvent move(QEvent::MouseMove, to, board->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(board, &move);
    QTest::mouseRelease(board, Qt::LeftButton, {}, to.toPoint());
    person.settle();
    const double moved = job::delivery_of(person.shot(), "web-shop")->right;
    CHECK(moved < 0);
    for (int i = 0; i < 60; ++i) QTest::keyClick(board, Qt::Key_Left, Qt::ShiftModifier);
    person.settle();
    const double frame_shape = 1.5;
    CHECK(job::delivery_of(person.shot(), "web-shop")->right == Approx(-(1 - 1 / frame_shape) / 2).margin(0.01));
    // Taken back, and given again.
    person.click(QStringLiteral("toggleDeliveryButton"));
    CHECK_FALSE(job::delivery_of(person.shot(), "web-shop"));
    CHECK(board->sections()[0].words.contains(QStringLiteral("have to be shown are not")));
    person.click(QStringLiteral("toggleDeliveryButton"));
    CHECK(job::delivery_of(person.shot(), "web-shop"));
    // What it takes is edited; a new one is a copy, and goes with all that it got.
    person.type(QStringLiteral("outletMostField"), QStringLiteral("2"));
    CHECK(person.shoot().outlets[0].most == 2);
    CHECK(board->sections()[0].words.contains(QStringLiteral("too many")));
    person.click(QStringLiteral("choosePicturesButton"));
    CHECK_FALSE(board->sections()[0].words.contains(QStringLiteral("too many")));
    person.click(QStringLiteral("addOutletButton"));
    CHECK(person.shoot().outlets.size() == 4);
    person.click(QStringLiteral("removeOutletButton"));
    CHECK(person.shoot().outlets.size() == 3);
}

TEST_CASE("three bags from a list get their views, are ordered, run on the bench, and cut for two shops",
          "[desk][day][story][long]") {
    OnTheDay person("setsTab");
    const test::Folder folder;
    person.document().select(person.view("Waxed satchel", "front"));
    person.choose(QStringLiteral("viewSetChoice"), QStringLiteral("Bag"));
    person.document().edit({QStringLiteral("two shops, no stacks")}, [](shoot::Shoot& shoot) {
        shoot.outlets = {job::usual_outlets()[0], job::usual_outlets()[1]};
        shoot.shots.erase(0, 10);  // the satchel alone, whose set-up the bags take over
        shoot.shots.erase(1, shoot.shots.size());
    });
    const auto list = folder / "bags.csv";
    REQUIRE(storage::replace_file(list,
                                  "name,width,height,depth,no\nTan,380,290,110,b1\nBlack,380,295,110,b2\n"
                                  "Red,300,240,90,b3\n"));
    person.window().findChild<desk::SetsTab*>()->readList(QString::fromStdString(list.string()));
    person.settle();
    person.document().edit({QStringLiteral("the bags alone")},
                           [](shoot::Shoot& shoot) { shoot::remove_shot(shoot, 0); });
    CHECK(person.document().count() == 3 * 8);
    person.click(QStringLiteral("outletsTab"));
    person.click(QStringLiteral("chooseAllButton"));
    // In the order of least work.
    person.click(QStringLiteral("hoursTab"));
    auto* apply = person.find<QPushButton>(QStringLiteral("applyOrderButton"));
    const auto* hours = person.window().findChild<desk::HoursTab*>();
    REQUIRE(QTest::qWaitFor([&] { return hours->isSettled(); }, test::patience));
    if (apply->isEnabled() && apply->isVisible()) person.click(apply);
    // Run, all of it.
    auto& runs = person.window().runs();
    runs.setFolder(QDir(QString::fromStdString((folder / "frames").string())));
    auto settings = runs.settings();
    settings.speed = 4000, settings.pictureWidth = 96;
    settings.rehearsed.reset(), settings.railLine.clear(), settings.dialectFile.clear();
    runs.setSettings(settings);
    std::vector<std::string> ids;
    for (const auto& shot : person.shoot().shots) ids.push_back(shot.id);
    runs.start(ids, false);
    REQUIRE(QTest::qWaitFor(
        [&] {
            if (runs.waitsForGear()) runs.resume();
            return !runs.isRunning() && !runs.waitsForGear();
        },
        test::patience));
    // And cut.
    person.window().goTo(desk::Sheet::day);
    person.click(QStringLiteral("outletsTab"));
    auto* tab = person.window().findChild<desk::OutletsTab*>();
    tab->write(QString::fromStdString((folder / "out").string()));
    REQUIRE(QTest::qWaitFor([&] { return !tab->writer().isBusy(); }, test::patience));
    person.settle();
    std::map<std::string, int> written;
    for (const char* shop : {"shop-square", "shop-free"})
        for (const auto& entry : std::filesystem::directory_iterator(folder / "out" / shop)) {
            ++written[shop];
            const QImage picture(QString::fromStdString(entry.path().string()));
            CHECK_FALSE(picture.isNull());
            if (std::string(shop) == "shop-square") CHECK(std::abs(picture.width() - picture.height()) <= 1);
        }
    CHECK(written["shop-square"] == 3 * 7);
    CHECK(written["shop-free"] == 3 * 7);
    CHECK(std::filesystem::exists(folder / "out" / "shop-square" / "b1-01-front.jpg"));
    // The clasps are stacks, which nobody has combined yet; and what the little frames of this bench leave is said.
    CHECK(person.text(QStringLiteral("writtenPictures")).contains(QStringLiteral("42 pictures written")));
    CHECK(person.text(QStringLiteral("writtenPictures")).contains(QStringLiteral("a stack; its combined picture")));
    CHECK(tab->writer().problems().filter(QStringLiteral("px where 2000 are wanted")).size() == 21);
    // A finished picture goes before the frame.
    const auto finished = folder / "out" / "finished" / (person.shoot().shots[0].id + ".png");
    QDir().mkpath(QString::fromStdString(finished.parent_path().string()));
    QImage white(3000, 2000, QImage::Format_RGB32);
    white.fill(Qt::white);
    REQUIRE(white.save(QString::fromStdString(finished.string())));
    const auto large = [&] {
        int count = 0;
        for (const auto& entry : std::filesystem::directory_iterator(folder / "out" / "shop-square"))
            count += QImage(QString::fromStdString(entry.path().string())).width() == 2000;
        return count;
    };
    // What is there already is not replaced unasked.
    for (const auto& [answer, wanted] :
         {std::pair(QStringLiteral("Cancel"), 0), std::pair(QStringLiteral("Write only the others"), 0),
          std::pair(QStringLiteral("Replace them"), 1)}) {
        QString asked;
        test::answerNextBy(answer, &asked);
        tab->write(QString::fromStdString((folder / "out").string()));
        CHECK(asked.contains(QStringLiteral("42 of 42 pictures")));
        REQUIRE(QTest::qWaitFor([&] { return !tab->writer().isBusy(); }, test::patience));
        INFO(answer.toStdString());
        CHECK(large() == wanted);
    }
}

TEST_CASE("a series is held against the file of an earlier session", "[desk][day][sets]") {
    OnTheDay person("setsTab");
    const test::Folder folder;
    auto before = person.shoot();
    before.title = "In May";
    REQUIRE(storage::save_shoot(before, folder / "may.poquito"));
    const int back = person.view("Waxed satchel", "back");
    person.document().select(back);
    person.document().editShot({QStringLiteral("other stop")}, [](shoot::Shot& shot) { shot.exposure.f_number = 4; });
    person.settle();
    auto* tab = person.window().findChild<desk::SetsTab*>();
    tab->compareWith(QString::fromStdString((folder / "may.poquito").string()));
    person.settle();
    const auto said = person.text(QStringLiteral("sessionDeviations"));
    CHECK(said.contains(QStringLiteral("held against In May")));
    CHECK(said.contains(QStringLiteral("f/4 where")));
    QString problem;
    QObject::connect(tab, &desk::SetsTab::problemFound, [&](const QString& words) { problem = words; });
    tab->compareWith(QStringLiteral("/nowhere/may.poquito"));
    CHECK(problem.contains(QStringLiteral("may.poquito")));
}

TEST_CASE("the packing list is ticked going and coming home, by hand and by key", "[desk][day][packing]") {
    OnTheDay person("packingTab");
    auto* board = person.find<desk::PackingBoard>(QStringLiteral("packingBoard"));
    const auto ticked = [&](const char* id) { return std::ranges::count(person.shoot().packing.going, id) > 0; };
    CHECK(ticked("own:slate"));
    CHECK_FALSE(ticked("own:linen"));
    const auto click = [&](const char* id) {
        const auto line = board->lineRect(id);
        REQUIRE_FALSE(line.isEmpty());
        QTest::mouseClick(board, Qt::LeftButton, {}, QPointF(line.left() + 20, line.center().y()).toPoint());
        person.settle();
    };
    click("own:linen");
    CHECK(ticked("own:linen"));
    CHECK(person.text(QStringLiteral("packVerdict")).contains(QStringLiteral("are in; not yet")));
    board->setFocus();
    person.key(Qt::Key_Space);
    CHECK_FALSE(ticked("own:linen"));
    // Dragged into another case.
    const auto line = board->lineRect("own:linen"), bag = board->lineRect("cameras:apsc-24");
    QTest::mousePress(board, Qt::LeftButton, {}, QPointF(line.left() + 30, line.center().y()).toPoint());
    QMouseEvent move(QEvent::MouseMove, bag.center(), board->mapToGlobal(bag.center()), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QApplication::sendEvent(board, &move);
    QTest::mouseRelease(board, Qt::LeftButton, {}, bag.center().toPoint());
    person.settle();
    const auto own = person.shoot().packing.own;
    CHECK(std::ranges::find(own, std::string("linen"), &shoot::PackedItem::id)->container == "Camera bag");
    // Home: only what went is looked for.
    person.click(QStringLiteral("packHomeButton"));
    CHECK(person.text(QStringLiteral("packVerdict")).contains(QStringLiteral("0 of 4 are back")));
    click("own:slate");
    CHECK(std::ranges::count(person.shoot().packing.home, "own:slate") == 1);
    click("own:linen");  // it did not go
    CHECK(std::ranges::count(person.shoot().packing.home, "own:linen") == 0);
    person.type(QStringLiteral("packOwnField"), QStringLiteral("Second card"));
    person.click(QStringLiteral("packAddButton"));
    CHECK(person.shoot().packing.own.size() == 4);
    click("own:second-card");
    person.click(QStringLiteral("packForgetButton"));
    CHECK(person.shoot().packing.own.size() == 3);
    person.document().undoStack().undo();
    CHECK(person.shoot().packing.own.size() == 4);
}
