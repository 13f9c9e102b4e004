// The Run station in the real window: stack, cost, step sizes and order edited by hand; a run taken, paused, stopped,
// gone on with.
#include "support/folder.hpp"
#include "support/person.hpp"

#include "desk/day/day_drawing.hpp"
#include "desk/day/day_sheet.hpp"
#include "desk/drawing/stack_bands.hpp"
#include "desk/finder/finder_view.hpp"
#include "desk/run/band_dialog.hpp"
#include "desk/run/running_view.hpp"
#include "desk/run/stack_drawing.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "storage/shoot_file.hpp"

using namespace poquito;
using test::Person;

namespace {

QString fact(Person& person, const char* view, const QString& name) {
    for (const auto& fact : person.find<desk::FactsView>(QLatin1String(view))->facts())
        if (fact.name == name) return fact.value;
    return {};
}

/// Twelve frames by rail in a window whose bench runs fast and writes small pictures into a folder of its own.
struct RunPerson : Person {
    QTemporaryDir folder;
    explicit RunPerson(double speed = 400) {
        window().openDemo();
        selectShot(QStringLiteral("Tide brooch"));
        document().editShot({QStringLiteral("twelve")}, [](shoot::Shot& shot) {
            shot.capture.lead = shot.capture.tail = 0;
            shot.capture.slice = shoot::Slice{.from = 0.5, .to = 3.7};
        });
        REQUIRE(report().capture.frames == 12);
        window().runs().setFolder(QDir(folder.path()));
        auto settings = window().runs().settings();
        settings.speed = speed;
        settings.pictureWidth = 48;
        settings.rehearsed.reset();
        settings.railLine.clear();
        settings.dialectFile.clear();
        window().runs().setSettings(settings);
        goTo(5);
        find<desk::FactsView>(QStringLiteral("runLog"));
    }
    desk::RunController& runs() { return window().runs(); }
    const auto& logged(std::size_t index) {
        return shoot::runs_of(document().shoot().runs, document().shoot().shots[index].id);
    }
    const auto& logged() { return logged(static_cast<std::size_t>(document().current())); }
    desk::RunningView* view() { return find<desk::RunningView>(QStringLiteral("runningView")); }
    bool waitFor(const std::function<bool()>& done) {
        return QTest::qWaitFor([&] { return done(); }, test::patience);
    }
    /// Until that frame, counted from 1, is being taken or was: a busy machine may not show each.
    bool waitForFrame(std::size_t frame) {
        return waitFor([&] { return runs().status() && runs().status()->frame + 1 >= frame; });
    }
    bool waitForEnd() {
        return waitFor([&] { return !runs().isRunning(); });
    }
};

}  // namespace

TEST_CASE("a twelve-frame stack is run, paused, stopped and gone on with", "[desk][run]") {
    RunPerson person(20);
    person.click(QStringLiteral("startRunButton"));
    REQUIRE(person.runs().isRunning());
    auto* view = person.view();
    CHECK(view->isVisible());
    CHECK_FALSE(person.find(QStringLiteral("shotCards"))->isVisible());
    REQUIRE(person.waitForFrame(3));
    person.click(QStringLiteral("pauseRunButton"));
    REQUIRE(person.waitFor([&] { return view->phaseText() == QStringLiteral("paused"); }));
    CHECK(person.text(QStringLiteral("pauseRunButton")) == QStringLiteral("Go on"));
    const auto held = view->frameText();
    // The strip shows what is there, and where redo would begin.
    person.settle();
    QTest::mouseClick(view, Qt::LeftButton, {}, view->cellRect(1).center().toPoint());
    CHECK(person.text(QStringLiteral("redoFrameButton")) == QStringLiteral("Redo from 2"));
    CHECK(view->phaseText() == QStringLiteral("paused"));
    CHECK(view->frameText() == held);
    QTest::keyClick(view, Qt::Key_Space);
    REQUIRE(person.waitFor([&] { return view->phaseText() != QStringLiteral("paused"); }));
    REQUIRE(person.waitForFrame(6));
    person.click(QStringLiteral("stopRunButton"));
    REQUIRE(person.waitForEnd());
    person.settle();
    CHECK(view->phaseText() == QStringLiteral("stopped"));
    REQUIRE(person.logged().size() == 1);
    const auto first = *person.logged()[0];
    CHECK(first.end == shoot::RunEnd::stopped);
    CHECK(first.frames.size() >= 5);
    CHECK(first.frames.size() < 12);
    for (const auto& frame : first.frames)
        CHECK(QFile::exists(QString::fromStdString(shoot::file_of(first, frame).string())));

    // Gone on with from its journal: the rest is taken, the log has one run of twelve.
    person.runs().goOn(person.folder.filePath(QString::fromStdString(first.id) + QStringLiteral(".journal")));
    REQUIRE(person.waitForEnd());
    person.settle();
    CHECK(view->phaseText() == QStringLiteral("complete"));
    CHECK(view->frameText() == QStringLiteral("12 of 12"));
    REQUIRE(person.logged().size() == 1);
    CHECK(person.logged()[0]->end == shoot::RunEnd::complete);
    CHECK(person.logged()[0]->frames.size() == 12);
    for (std::size_t i = 0; i < first.frames.size(); ++i) CHECK(person.logged()[0]->frames[i] == first.frames[i]);
    person.click(QStringLiteral("leaveRunButton"));
    CHECK_FALSE(view->isVisible());
    CHECK(person.find(QStringLiteral("shotCards"))->isVisible());
    person.goTo(5);
    CHECK(
        person.find<desk::FactsView>(QStringLiteral("runLog"))->facts()[0].value.contains(QStringLiteral("12 of 12")));
    // It is an edit like any other, and the file holds it.
    const auto text = storage::write_shoot(person.document().shoot());
    const auto back = storage::read_shoot(text);
    REQUIRE(back.has_value());
    CHECK(shoot::runs_of(back.value().runs, person.shot().id) == person.logged());
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.logged()[0]->frames.size() == first.frames.size());
}

TEST_CASE(
    "A rehearsal hides what goes wrong, what is noticed and what it cost is told at its end, and kept in the book",
    "[desk][run][rehearsal]") {
    RunPerson person(20);
    test::Folder books;
    person.window().log().setPath(QString::fromStdString((books / "logbook.db").string()));
    person.document().editShot({QStringLiteral("alone")}, [](shoot::Shot& shot) { shot.plate.reset(); });
    auto settings = person.runs().settings();
    settings.rehearsed =
        desk::Rehearsed{.exactly = {{.kind = devices::MishapKind::subject_moves, .frame = 3, .size = 1}}};
    person.runs().setSettings(settings);
    person.click(QStringLiteral("startRunButton"));
    auto* view = person.view();
    auto* notice = person.find<QPushButton>(QStringLiteral("noticeButton"));
    CHECK(notice->isVisible());
    CHECK(person.runs().isRehearsal());
    REQUIRE(person.waitForFrame(6));
    person.click(QStringLiteral("pauseRunButton"));  // who pauses has seen something
    REQUIRE(person.waitFor([&] { return view->phaseText() == QStringLiteral("paused"); }));
    auto* menu = person.find<QMenu>(QStringLiteral("takenForMenu"));
    CHECK(menu->actions().size() == 10);
    for (auto* one : menu->actions())
        if (one->text() == QStringLiteral("the subject moves")) one->trigger();
    CHECK_FALSE(view->accessibleDescription().contains(QStringLiteral("The subject moved")));  // not before its end
    // The latest picture stands large, to be seen by; a click in the strip shows another.
    person.settle();
    const auto large = [&] { return view->grab(QRect(view->width() * 6 / 10, 100, 300, 240)).toImage(); };
    const auto latest = large();
    QTest::mouseClick(view, Qt::LeftButton, {}, view->cellRect(0).center().toPoint());
    person.settle();
    CHECK(large() != latest);
    person.click(QStringLiteral("stopRunButton"));
    REQUIRE(person.waitForEnd());
    person.settle();
    REQUIRE(person.runs().rehearsal());
    const auto& report = *person.runs().rehearsal();
    CHECK(report.in_time);
    CHECK(report.named);
    CHECK(view->accessibleDescription().contains(QStringLiteral("The subject moved by 1 mm before frame 4")));
    CHECK(view->accessibleDescription().contains(QStringLiteral("said what it was")));
    CHECK_FALSE(notice->isVisible());
    REQUIRE(person.waitFor([&] { return !person.window().logWriter().isBusy(); }));
    std::vector<log::Entry> entries;
    person.window().log().search({.words = "practice", .kind = log::Kind::note}, view,
                                 [&](desk::LogController::Found found) { entries = found.entries; });
    REQUIRE(person.waitFor([&] { return !entries.empty(); }));
    CHECK(entries[0].subject_class == "rehearsal");
    CHECK(entries[0].verdict == "keep");
    // Once: the next run is none.
    person.click(QStringLiteral("leaveRunButton"));
    person.goTo(5);
    auto fast = person.runs().settings();
    fast.speed = 400;
    person.runs().setSettings(fast);
    person.click(QStringLiteral("startRunButton"));
    CHECK_FALSE(person.runs().isRehearsal());
    REQUIRE(person.waitForEnd());
    CHECK_FALSE(person.runs().rehearsal());
}

TEST_CASE("Something that nobody is told is drawn for the run", "[desk][run][rehearsal]") {
    RunPerson person;
    person.document().editShot({QStringLiteral("alone")}, [](shoot::Shot& shot) { shot.plate.reset(); });
    person.runs().drawMishapsBy(1);
    person.choose(QStringLiteral("rehearseChoice"), QStringLiteral("something, you are not told what"));
    // Test frames are none, and leave it for the run.
    person.click(QStringLiteral("testFramesButton"));
    CHECK_FALSE(person.runs().isRehearsal());
    REQUIRE(person.waitForEnd());
    person.click(QStringLiteral("leaveRunButton"));
    person.goTo(5);
    CHECK(person.text(QStringLiteral("rehearseChoice")) == QStringLiteral("something, you are not told what"));
    person.click(QStringLiteral("startRunButton"));
    CHECK(person.runs().isRehearsal());
    REQUIRE(person.runs().mishap());
    CHECK(person.runs().mishap()->frame >= 3);
    CHECK(person.runs().mishap()->frame < 9);
    CHECK(person.text(QStringLiteral("rehearseChoice")) == QStringLiteral("nothing goes wrong"));
    REQUIRE(person.waitFor([&] {
        if (person.view()->phaseText() == QStringLiteral("needs you")) person.runs().resume();
        return !person.runs().isRunning();
    }));
    CHECK(person.runs().rehearsal());
}

TEST_CASE("what goes wrong on the bench is said large, and mended", "[desk][run]") {
    RunPerson person;
    person.document().editShot({QStringLiteral("alone")}, [](shoot::Shot& shot) { shot.plate.reset(); });
    person.choose(QStringLiteral("rehearseChoice"), QStringLiteral("the flash dies"));
    person.click(QStringLiteral("startRunButton"));
    auto* view = person.view();
    REQUIRE(person.waitFor([&] { return view->phaseText() == QStringLiteral("needs you"); }));
    CHECK(view->problemText().contains(QStringLiteral("flash is not ready")));
    // Fresh batteries, and on.
    person.click(QStringLiteral("pauseRunButton"));
    REQUIRE(person.waitForEnd());
    person.settle();
    CHECK(view->phaseText() == QStringLiteral("complete"));
    CHECK(person.logged().back()->frames.size() == 12);
}

TEST_CASE("a run that a crash broke off is offered and gone on with", "[desk][run]") {
    RunPerson person;
    // As a program that was killed leaves it: a journal without an end, three frames on the card.
    auto plan = run::make_run_plan(person.document().assessment()->plan, "tide-brooch-1",
                                   (person.folder.path() + "/tide-brooch-1").toStdString());
    {
        auto journal =
            run::Journal::create(person.folder.filePath(QStringLiteral("tide-brooch-1.journal")).toStdString(), plan)
                .value();
        for (int i = 0; i < 3; ++i) {
            const auto frame = static_cast<std::size_t>(i);
            journal.begun(frame);
            journal.exposed(frame,
                            {.index = i, .file = plan.file_of(frame), .plane = plan.frames[frame].plane, .time = "t"});
            journal.saved(frame);
        }
        journal.begun(3);
    }
    person.goTo(4);
    person.goTo(5);
    CHECK(person.text(QStringLiteral("brokenRunText")).contains(QStringLiteral("after 3 of 12 frames")));
    person.click(QStringLiteral("goOnButton"));
    REQUIRE(person.waitForEnd());
    person.settle();
    REQUIRE(person.logged().size() == 1);
    CHECK(person.logged()[0]->frames.size() == 12);
    CHECK(person.logged()[0]->frames[0].time == "t");  // what was taken before stays as it was
    person.goTo(5);
    CHECK_FALSE(person.find(QStringLiteral("brokenRunText"))->isVisible());
}

TEST_CASE("test frames are logged as such - several shots wait for gear between them", "[desk][run]") {
    RunPerson person;
    person.click(QStringLiteral("testFramesButton"));
    REQUIRE(person.waitForEnd());
    person.settle();
    REQUIRE(person.logged().size() == 1);
    CHECK(person.logged()[0]->frames.size() == 3);
    CHECK(person.logged()[0]->remark == "test frames");
    person.goTo(5);
    // Only two more shots below, short ones.
    person.document().edit({QStringLiteral("two")}, [](shoot::Shoot& shoot) {
        for (std::size_t i = 0; i < shoot.shots.size(); ++i) shoot.shots[i].timing.after.clear();
        shoot.shots.erase(2, 4);
        shoot.shots.erase(3, shoot.shots.size());
    });
    person.key(Qt::Key_0);
    person.click(QStringLiteral("runAllButton"));
    auto* view = person.view();
    REQUIRE(person.waitFor([&] { return person.runs().waitsForGear(); }));
    person.settle();
    CHECK(view->phaseText() == QStringLiteral("change gear"));
    CHECK(person.runs().nextShot() == QString::fromStdString(person.document().shoot().shots[2].name));
    CHECK(person.runs().gearToChange().contains(QStringLiteral("light")));
    CHECK(person.text(QStringLiteral("pauseRunButton")) == QStringLiteral("Next shot"));
    person.click(QStringLiteral("pauseRunButton"));
    REQUIRE(person.waitFor([&] { return !person.runs().isRunning() && !person.runs().waitsForGear(); }));
    person.settle();
    CHECK(person.logged(2).size() == 1);
    CHECK(person.logged(1).size() == 2);
}

TEST_CASE("a run that is on is not lost when the window or the shoot goes", "[desk][run]") {
    RunPerson person(20);
    person.click(QStringLiteral("startRunButton"));
    REQUIRE(person.waitForFrame(3));
    // Another shoot is asked for: cancel, and it goes on.
    const auto answer = [&](const QString& button) {
        QTimer::singleShot(0, [button] {
            auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
            if (!box) return;
            for (auto* one : box->buttons())
                if (one->text().remove(QLatin1Char('&')) == button) one->click();
        });
    };
    answer(QStringLiteral("Cancel"));
    person.trigger(QStringLiteral("newAction"));
    CHECK(person.runs().isRunning());
    CHECK(person.document().count() > 1);
    // Stopping is agreed to, saving is not: all is as it was, and it goes on.
    QTimer asked;  // questions come when they come
    std::vector<QString> buttons = {QStringLiteral("Cancel"), QStringLiteral("Stop it")};  // the last one first
    QObject::connect(&asked, &QTimer::timeout, [&] {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        if (!box || buttons.empty()) return;
        for (auto* one : box->buttons()) {
            if (one->text().remove(QLatin1Char('&')) != buttons.back()) continue;
            buttons.pop_back();
            return one->click();
        }
    });
    asked.start(20);
    CHECK_FALSE(person.window().close());
    asked.stop();
    CHECK(buttons.empty());
    CHECK(person.runs().isRunning());
    CHECK(person.runs().status()->phase != run::Phase::stopped);
    CHECK(person.logged().empty());
    // The window goes: what was taken is in the log, and the journal ends.
    REQUIRE(person.waitFor([&] {
        const auto status = person.runs().status();  // exposed is not yet on the card
        return status && std::ranges::count(status->frames, run::FrameState::saved) >= 2;
    }));
    person.runs().shutDown();
    CHECK_FALSE(person.runs().isRunning());
    REQUIRE(person.logged().size() == 1);
    CHECK(person.logged()[0]->end == shoot::RunEnd::stopped);
    CHECK(person.logged()[0]->frames.size() >= 2);
    CHECK(person.runs().brokenRuns().empty());
}

TEST_CASE("a bench that cannot be had is said, not waited for", "[desk][run]") {
    RunPerson person;
    auto settings = person.runs().settings();
    settings.dialectFile = QStringLiteral("/no/such/dialect.json");
    person.runs().setSettings(settings);
    person.click(QStringLiteral("startRunButton"));
    CHECK_FALSE(person.runs().isRunning());
    CHECK(person.text(QStringLiteral("problemText")).contains(QStringLiteral("dialect")));
    settings.dialectFile.clear();
    settings.railLine = QStringLiteral("/dev/no-such-line");
    person.runs().setSettings(settings);
    person.click(QStringLiteral("startRunButton"));
    REQUIRE(person.runs().isRunning());
    auto* view = person.view();
    REQUIRE(person.waitFor([&] { return view->phaseText() == QStringLiteral("needs you"); }));
    CHECK(view->problemText().contains(QStringLiteral("no-such-line")));
    person.click(QStringLiteral("stopRunButton"));
    REQUIRE(person.waitForEnd());
    settings.railLine.clear();
    person.runs().setSettings(settings);
    // Frames nowhere to be put: said as well.
    person.click(QStringLiteral("leaveRunButton"));
    person.runs().setFolder(QDir(QStringLiteral("/proc/no-such-folder")));
    person.click(QStringLiteral("startRunButton"));
    CHECK_FALSE(person.runs().isRunning());
    CHECK_FALSE(person.text(QStringLiteral("problemText")).isEmpty());
}

TEST_CASE("whatever is typed at Run, the file is read back", "[desk][run]") {
    Person person;
    person.window().openDemo();
    person.goTo(5);
    const auto read_back = [&](const char* what) {
        const auto back = storage::read_shoot(storage::write_shoot(person.document().shoot()));
        INFO(what);
        REQUIRE(back.has_value());
        CHECK(back.value() == person.document().shoot());
    };
    person.click(QStringLiteral("stackTab"));
    for (const char* mover : {"focus ring", "rail", "hand, in bursts"}) {
        person.choose(QStringLiteral("stackMoverChoice"), QLatin1String(mover));
        for (const auto& [field, text] : {std::pair{"sliceFromField", "12"},
                                          {"sliceToField", "3"},
                                          {"sliceToField", "900"},
                                          {"stackLeadField", "0"},
                                          {"stackOverlapField", "95 %"},
                                          {"settleField", "7"},
                                          {"stackIntervalField", "0.1"},
                                          {"burstLengthField", "0.01"},
                                          {"swaySpeedField", "0.1"},
                                          {"swayRangeField", "0.01"},
                                          {"burstRateField", "200"}}) {
            if (!person.find(QLatin1String(field))->isVisible()) continue;
            person.type(QLatin1String(field), QLatin1String(text));
            read_back(field);
        }
    }
    person.click(QStringLiteral("costTab"));
    person.type(QStringLiteral("sortingField"), QStringLiteral("0.1"));
    read_back("sorting");
    person.click(QStringLiteral("stepsTab"));
    person.type(QStringLiteral("stepSettingsField"), QStringLiteral("0"));
    read_back("settings");
    person.click(QStringLiteral("daySheetButton"));  // a digit would go into the field
    for (const char* field : {"cameraPriceField", "lensPriceField", "lightPriceField", "subjectPriceField"}) {
        person.type(QLatin1String(field), QStringLiteral("0"));
        read_back(field);
    }
    person.type(QStringLiteral("dayBeginField"), QStringLiteral("0:00"));
    person.click(QStringLiteral("notBeforeCheck"));
    person.type(QStringLiteral("notBeforeField"), QStringLiteral("23:59"));
    read_back("not before");
    auto* chips = person.find<desk::ChoiceChips>(QStringLiteral("afterChips"));
    for (auto* chip : chips->findChildren<QToolButton*>()) {
        if (chip->text() != QStringLiteral("Tide brooch")) continue;
        chip->click();
        person.settle();
    }
    CHECK(person.shot().timing.after == std::vector<std::string>{"tide-brooch"});
    read_back("after");
    // What it waits for is removed: it waits no longer, and undo brings both back.
    person.selectShot(QStringLiteral("Tide brooch"));
    person.trigger(QStringLiteral("removeShotAction"));
    read_back("removed");
    CHECK(person.document().shoot().shots[0].timing.after.empty());
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.document().shoot().shots[0].timing.after == std::vector<std::string>{"tide-brooch"});
}

TEST_CASE("the checklist says why", "[desk][run]") {
    Person person;
    person.window().openDemo();
    person.goTo(5);
    auto* list = person.find<QListView>(QStringLiteral("checklistView"));
    const auto* model = list->model();
    for (int row = 0; row < model->rowCount(); ++row) {
        INFO(model->index(row, 0).data().toString().toStdString());
        CHECK(model->index(row, 0).data(Qt::ToolTipRole).toString().endsWith(QLatin1Char('.')));
        // Room for what and why, one below the other.
        CHECK(list->visualRect(model->index(row, 0)).height() >= 30);
    }
}

TEST_CASE("the slice is dragged on the drawing, typed, clicked in the finder, and taken back", "[desk][run]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Tide brooch"));
    person.goTo(5);
    person.click(QStringLiteral("stackTab"));
    auto* drawing = person.find<desk::StackDrawing>(QStringLiteral("stackDrawing"));
    const double all = person.report().extent.depth;
    const auto frames = person.report().capture.frames;
    const int y = drawing->height() / 2;
    const QPoint end(static_cast<int>(std::lround(drawing->xOf(all))), y);
    const double wanted = drawing->depthAt(drawing->xOf(all * 0.5));
    const QPoint there(static_cast<int>(std::lround(drawing->xOf(wanted))), y);
    QTest::mousePress(drawing, Qt::LeftButton, {}, end);
    QTest::mouseMove(drawing, there);
    QTest::mouseRelease(drawing, Qt::LeftButton, {}, there);
    person.settle();
    REQUIRE(person.shot().capture.slice);
    CHECK(std::abs(person.shot().capture.slice->to - all * 0.5) < all * 0.02);
    CHECK(person.shot().capture.slice->from == 0);
    CHECK(person.report().capture.frames < frames);
    drawing->setFocus();
    const double before = person.shot().capture.slice->to;
    QTest::keyClick(drawing, Qt::Key_Right);
    CHECK(std::abs(person.shot().capture.slice->to - before - all / 100) < 1e-6);
    person.type(QStringLiteral("sliceFromField"), QStringLiteral("1.2"));
    CHECK(person.shot().capture.slice->from == 1.2);
    CHECK(fact(person, "stackFacts", QStringLiteral("Frames")) ==
          QString::number(static_cast<int>(person.report().capture.frames)));
    person.click(QStringLiteral("wholeSliceButton"));
    CHECK_FALSE(person.shot().capture.slice);
    CHECK(person.report().capture.frames == frames);

    person.click(QStringLiteral("slicePointsButton"));
    auto* finder = person.find<desk::FinderView>(QStringLiteral("finder"));
    REQUIRE(QTest::qWaitFor([&] { return finder->isSettled() && finder->frame(); }, test::patience));
    const auto middle = finder->frameRect().center();
    const double before_focus = person.report().sharpness.focus;
    // The middle of a dome is nearest; towards its rim it falls away.
    QPointF rim = middle;
    while (finder->depthAt(rim + QPointF(4, 0))) rim.rx() += 4;
    rim = (middle + rim) / 2;  // clear of the edge, where a pixel is deep
    const double near = *finder->depthAt(middle), far = *finder->depthAt(rim);
    QTest::mouseClick(finder, Qt::LeftButton, {}, rim.toPoint());
    QTest::mouseClick(finder, Qt::LeftButton, {}, middle.toPoint());
    REQUIRE(person.shot().capture.slice);
    const double nearest = before_focus + person.report().extent.depth / 2;
    CHECK(std::abs(person.shot().capture.slice->from - (near + nearest)) < 0.05);
    CHECK(std::abs(person.shot().capture.slice->to - (far + nearest)) < 0.1);
}

TEST_CASE("the drawing's bands touch each other, and gap where the rail is too coarse", "[desk][run]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Tide brooch"));
    const auto gaps = [&] {
        const auto bands = desk::bandsOf(person.document().assessment()->plan, person.report());
        int count = 0;
        for (std::size_t i = 1; i < bands.size(); ++i) count += bands[i].from > bands[i - 1].to + 1e-9;
        CHECK(bands.size() == static_cast<std::size_t>(person.report().capture.frames));
        return count;
    };
    CHECK(gaps() == 0);
    person.document().edit({QStringLiteral("coarse")}, [](shoot::Shoot& shoot) { shoot.kit.rails[0].step = 0.5; });
    CHECK(gaps() > 3);
    person.goTo(5);
    CHECK(person.note("rail-too-coarse").contains(QStringLiteral("gaps")));
}

TEST_CASE("what moves decides what is asked and told", "[desk][run]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Tide brooch"));
    person.goTo(5);
    person.click(QStringLiteral("stackTab"));
    CHECK(fact(person, "stackFacts", QStringLiteral("Rail moves")).contains(QStringLiteral("mm")));
    CHECK(person.find(QStringLiteral("stackRailChoice"))->isVisible());
    CHECK_FALSE(person.find(QStringLiteral("burstRateField"))->isVisible());
    person.choose(QStringLiteral("stackMoverChoice"), QStringLiteral("focus ring"));
    CHECK(person.shot().capture.mover == shoot::Mover::ring);
    CHECK_FALSE(person.find(QStringLiteral("stackRailChoice"))->isVisible());
    CHECK(fact(person, "stackFacts", QStringLiteral("Ring")).contains(QStringLiteral("to")));
    CHECK(fact(person, "stackFacts", QStringLiteral("Step setting")) != QString());
    person.choose(QStringLiteral("stackMoverChoice"), QStringLiteral("hand, in bursts"));
    CHECK(person.find(QStringLiteral("burstRateField"))->isVisible());
    person.choose(QStringLiteral("braceChoice"), QStringLiteral("elbows or a bean bag on the ground"));
    CHECK(person.shot().capture.hand.range == plan::braces().back().range);
    CHECK(fact(person, "stackFacts", QStringLiteral("Sensible by hand")) ==
          QString::fromStdString(text::count_text(person.report().capture.stack->hand()->largest, "frame", "frames")));
    person.click(QStringLiteral("costTab"));
    CHECK(fact(person, "costFacts", QStringLiteral("Exposures")) ==
          QString::fromStdString(text::number_text(person.report().capture.cost.exposures, 6)));
}

TEST_CASE("the work afterwards follows the user's own times", "[desk][run]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Tide brooch"));
    person.goTo(5);
    person.click(QStringLiteral("costTab"));
    person.type(QStringLiteral("sortingField"), QStringLiteral("4"));
    person.type(QStringLiteral("combiningField"), QStringLiteral("8"));
    CHECK(person.document().shoot().workday.sorting == 4);
    CHECK(fact(person, "costFacts", QStringLiteral("Work afterwards")) ==
          QString::fromStdString(text::time_text(20 * 12)));
    // 50 frames took 300 s: 6 s each, shared as before.
    person.type(QStringLiteral("measuredTimeField"), QStringLiteral("300"));
    person.click(QStringLiteral("learnWorkButton"));
    CHECK(std::abs(person.document().shoot().workday.sorting - 2) < 1e-9);
    CHECK(std::abs(person.document().shoot().workday.combining - 4) < 1e-9);
}

TEST_CASE("a rule's reading goes into the kit and names the setting", "[desk][run]") {
    Person person;
    person.window().openDemo();
    person.document().edit({QStringLiteral("none")}, [](shoot::Shoot& shoot) {
        for (auto& camera : shoot.kit.cameras) camera.step_readings.clear();
    });
    person.goTo(5);
    CHECK(person.note("steps-unmeasured").contains(QStringLiteral("tilted rule")));
    person.click(QStringLiteral("stepsTab"));
    person.type(QStringLiteral("readingSettingField"), QStringLiteral("5"));
    person.type(QStringLiteral("readingFramesField"), QStringLiteral("20"));
    person.type(QStringLiteral("readingTravelField"), QStringLiteral("15.5"));
    person.click(QStringLiteral("enterReadingButton"));
    auto* table = person.find<QTableWidget>(QStringLiteral("readingsTable"));
    REQUIRE(table->rowCount() == 1);
    CHECK(table->item(0, 0)->text() == QStringLiteral("5"));
    REQUIRE(person.report().capture.stack->bracket()->choice);
    CHECK(person.text(QStringLiteral("stepsVerdict")).contains(QStringLiteral("setting")));
    table->selectRow(0);
    person.click(QStringLiteral("removeReadingButton"));
    CHECK(table->rowCount() == 0);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(table->rowCount() == 1);
}

TEST_CASE("two pictures of a leaning rule give the travel", "[desk][run]") {
    QTemporaryDir folder;
    const auto picture = [&](const char* name, int sharp) {
        QImage image(600, 400, QImage::Format_RGB32);
        image.fill(QColor(200, 200, 200));
        QPainter painter(&image);
        for (int y = 0; y < 400; y += 4) {
            const int grey = 200 - std::max(0, 150 - std::abs(y - sharp) * 3);
            painter.fillRect(100, y, 400, 2, QColor(grey, grey, grey));
        }
        painter.end();
        auto path = folder.filePath(QLatin1String(name));
        REQUIRE(image.save(path));
        return path;
    };
    desk::BandDialog desk(24, 0.5);
    desk.show();
    REQUIRE(desk.openPicture(0, picture("first.png", 280)));
    CHECK_FALSE(desk.travel());
    REQUIRE(desk.openPicture(1, picture("last.png", 130)));
    // 150 rows of 24 mm / 600 at 0.5: 12 mm across the axis, at 45 degrees as much along it.
    REQUIRE(desk.travel());
    CHECK(std::abs(*desk.travel() - 12) < 0.5);
    CHECK(desk.findChild<QLabel*>(QStringLiteral("bandResult"))->text().contains(QStringLiteral("mm along the axis")));
    CHECK_FALSE(desk.openPicture(0, folder.filePath(QStringLiteral("none.png"))));
}

TEST_CASE("the shots are put into the order that costs least, and back", "[desk][run]") {
    Person person;
    person.window().openDemo();
    person.click(QStringLiteral("daySheetButton"));
    auto* tab = person.window().findChild<desk::DaySheet*>();
    REQUIRE(tab);
    const auto settled = [&] {
        return QTest::qWaitFor([&] { return tab->isSettled() && tab->plan(); }, test::patience);
    };
    REQUIRE(settled());
    CHECK(tab->plan()->exact);
    CHECK(person.text(QStringLiteral("orderVerdict")).contains(QStringLiteral("is better")));
    const auto before = person.document().shoot().shots;
    const auto best = tab->plan()->best;
    CHECK(schedule::better(tab->plan()->problem, best, tab->plan()->given));
    const std::string selected = person.shot().id;
    person.click(QStringLiteral("applyOrderButton"));
    for (std::size_t k = 0; k < best.order.size(); ++k)
        CHECK(person.document().shoot().shots[k].id == before[best.order[k]].id);
    CHECK(person.shot().id == selected);
    REQUIRE(settled());
    CHECK_FALSE(person.find(QStringLiteral("applyOrderButton"))->isEnabled());
    // A dearer light moves the plan; an impossible time is said.
    person.type(QStringLiteral("lightPriceField"), QStringLiteral("20 min"));
    CHECK(person.document().shoot().workday.prices.light == 1200);
    REQUIRE(
        QTest::qWaitFor([&] { return tab->isSettled() && tab->plan()->problem.change[0][1] >= 1200; }, test::patience));
    person.click(QStringLiteral("doneByCheck"));
    person.type(QStringLiteral("doneByField"), QStringLiteral("9:31"));
    CHECK(person.shot().timing.done_by == 9 * 3600 + 31 * 60);
    REQUIRE(QTest::qWaitFor(
        [&] { return person.text(QStringLiteral("orderVerdict")).contains(QStringLiteral("No order keeps")); },
        test::patience));
    while (person.document().undoStack().canUndo()) person.trigger(QStringLiteral("undoAction"));
    CHECK(person.document().shoot().shots == before);
}

TEST_CASE("the run is read from two metres away", "[desk][run]") {
    // A letter 8 mm high is read from two metres (twenty minutes of arc and more); on a usual screen that is 30 pixels,
    // so what counts is set in 42 or larger.
    RunPerson person;
    person.click(QStringLiteral("testFramesButton"));
    REQUIRE(person.waitForEnd());
    person.settle();
    auto* view = person.view();
    for (const QSize size : {QSize(1024, 700), QSize(1280, 800), QSize(1920, 1080)}) {
        person.window().resize(size);
        person.settle();
        const auto image = view->grab().toImage();
        // The large numbers: somewhere in the left half a column of ink at least 60 pixels high.
        int tallest = 0;
        for (int x = 18; x < image.width() / 2; ++x) {
            int run = 0;
            for (int y = 60; y < image.height() / 2; ++y) {
                const bool ink = image.pixelColor(x, y).lightness() < 130;
                run = ink ? run + 1 : 0;
                tallest = std::max(tallest, run);
            }
        }
        INFO(size.width());
        CHECK(tallest >= 60);
        CHECK(view->cellRect(2).right() <= view->width());
    }
}

TEST_CASE("stopping a run leaves the window answering, and the log is in what is saved", "[desk][run]") {
    RunPerson person(20);
    // A card so slow that the frames stay in the buffer.
    person.document().edit({QStringLiteral("slow card")}, [](shoot::Shoot& shoot) {
        for (auto& camera : shoot.kit.cameras) camera.write_speed = 0.5;
        for (auto& camera : shoot.kit.cameras) camera.buffer_frames = 20;
    });
    person.click(QStringLiteral("startRunButton"));
    REQUIRE(person.waitForFrame(3));
    const auto file = person.folder.filePath(QStringLiteral("saved.poquito"));
    REQUIRE(person.window().saveTo(file));
    int ticks = 0;
    QTimer ticking;
    QObject::connect(&ticking, &QTimer::timeout, [&] {
        ++ticks;
        if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
            const auto name = box->objectName();
            const auto wanted = name == QStringLiteral("runQuestion")       ? QStringLiteral("Stop it")
                                : name == QStringLiteral("unsavedQuestion") ? QStringLiteral("Save")
                                : ticks > 8                                 ? QStringLiteral("Do not wait")
                                                                            : QString();
            for (auto* one : box->buttons())
                if (one->text().remove(QLatin1Char('&')) == wanted) return one->click();
        }
    });
    ticking.start(50);
    CHECK(person.window().close());
    CHECK(ticks > 8);  // meanwhile the interface went on
    CHECK_FALSE(person.runs().isRunning());
    const auto saved = storage::load_shoot(file.toStdString());
    const auto& runs = shoot::runs_of(saved.value().runs, person.shot().id);
    CHECK(runs == person.logged());
    // What had not reached the card is no frame.
    for (const auto& run : runs)
        for (const auto& frame : run->frames)
            CHECK(QFile::exists(QString::fromStdString(shoot::file_of(*run, frame).string())));
    CHECK(person.runs().brokenRuns().empty());
}

TEST_CASE("a flash that does not charge is said so, without a time", "[desk][run]") {
    RunPerson person(20);
    person.choose(QStringLiteral("rehearseChoice"), QStringLiteral("the flash dies"));
    person.click(QStringLiteral("startRunButton"));
    REQUIRE(person.waitFor([&] { return person.view()->phaseText() == QStringLiteral("waits for the flash"); }));
    REQUIRE(person.waitFor([&] { return !person.runs().status()->flash_ready_in; }));
    CHECK(person.view()->flashText() == QStringLiteral("not charging"));
    person.runs().shutDown();
}

TEST_CASE("the plates of a picture run as one job, and what must not move is said between them",
          "[desk][run][plates]") {
    RunPerson person;
    person.document().edit({QStringLiteral("one frame each")}, [](shoot::Shoot& shoot) {
        for (const std::size_t i : {1, 2, 3}) shoot.shots[i].capture.mode = shoot::CaptureMode::single;
    });
    REQUIRE(person.shot().plate);
    person.click(QStringLiteral("startRunButton"));
    REQUIRE(person.waitFor([&] { return person.runs().waitsForGear(); }));
    person.settle();
    CHECK(person.runs().gearToChange().contains(QStringLiteral("stay as they are")));
    CHECK(person.runs().gearToChange().contains(QStringLiteral("take everything away, touch nothing else")));
    person.click(QStringLiteral("pauseRunButton"));
    REQUIRE(person.waitFor([&] { return person.runs().waitsForGear(); }));
    person.settle();
    person.click(QStringLiteral("pauseRunButton"));
    REQUIRE(person.waitFor([&] { return !person.runs().isRunning() && !person.runs().waitsForGear(); }));
    for (const std::size_t i : {1, 2, 3}) CHECK(person.logged(i).size() == 1);
}
