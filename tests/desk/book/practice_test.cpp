// Exercises at the desk: laid out, tried on the bench, judged, entered.
#include "support/person.hpp"

#include "desk/book/find_error.hpp"
#include "desk/book/practice_board.hpp"
#include "desk/book/practice_tab.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "support/folder.hpp"

#include <QSlider>

using namespace poquito;
using test::Person;

namespace {

struct Learner : Person {
    test::Folder folder;
    Learner() {
        window().openDemo();
        window().log().setPath(QString::fromStdString((folder / "logbook.db").string()));
        auto& runs = window().runs();
        runs.setFolder(QDir(QString::fromStdString((folder / "frames").string())));
        auto settings = runs.settings();
        settings.speed = 20000, settings.pictureWidth = 240;
        settings.rehearsed.reset(), settings.railLine.clear(), settings.dialectFile.clear();
        runs.setSettings(settings);
        window().goTo(desk::Sheet::book);
        click(QStringLiteral("practiceTab"));
        wait();
    }
    desk::PracticeBoard* board() { return find<desk::PracticeBoard>(QStringLiteral("practiceBoard")); }
    desk::PracticeTab* tab() { return window().findChild<desk::PracticeTab*>(); }
    void choose(const char* id) {
        for (std::size_t i = 0; board()->chosen().id != std::string(id); ++i) {
            REQUIRE(i < practice::exercises().size());
            QTest::mouseClick(board(), Qt::LeftButton, {}, board()->rowRect(i).center().toPoint());
        }
        settle();
    }
    void wait() {
        for (int i = 0; i < 3; ++i) {
            REQUIRE(QTest::qWaitFor([&] { return !window().logWriter().isBusy(); }, test::patience));
            settle();
        }
    }
};

}  // namespace

TEST_CASE("an exercise is laid out as shots, once, and says what frames are missing", "[desk][practice]") {
    Learner person;
    const int before = person.document().count();
    person.choose("distance");
    CHECK(person.find<QLabel>(QStringLiteral("practiceWords"))->text().contains(QStringLiteral("60 cm")));
    person.click(QStringLiteral("judgeExerciseButton"));
    CHECK(person.text(QStringLiteral("practiceSaid")).contains(QStringLiteral("more of")));
    CHECK(person.tab()->outcome().result == practice::Result::open);
    person.click(QStringLiteral("openExerciseButton"));
    CHECK(person.document().count() == before + 2);
    CHECK(person.shot().id == "practice-distance-1");
    CHECK(person.window().sheet() == desk::Sheet::shot);
    person.window().goTo(desk::Sheet::book);
    person.click(QStringLiteral("openExerciseButton"));
    CHECK(person.document().count() == before + 2);  // they are there
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.document().count() == before);
    // What was tried is put away again; another exercise's shots stay.
    person.window().goTo(desk::Sheet::book);
    auto* away = person.find(QStringLiteral("putAwayExerciseButton"));
    CHECK_FALSE(away->isVisible());
    person.click(QStringLiteral("openExerciseButton"));
    person.window().goTo(desk::Sheet::book);
    person.choose("spoon");
    CHECK_FALSE(away->isVisible());
    person.click(QStringLiteral("openExerciseButton"));
    person.window().goTo(desk::Sheet::book);
    CHECK(away->isVisible());
    person.click(QStringLiteral("putAwayExerciseButton"));
    CHECK(person.document().count() == before + 2);
    CHECK_FALSE(away->isVisible());
    person.choose("distance");
    person.click(QStringLiteral("putAwayExerciseButton"));
    CHECK(person.document().count() == before);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.document().count() == before + 2);
}

TEST_CASE("tried on the bench an exercise is taken shot by shot, judged, and kept in the log", "[desk][practice]") {
    Learner person;
    person.choose("distance");
    person.click(QStringLiteral("benchExerciseButton"));
    REQUIRE(QTest::qWaitFor([&] { return person.tab()->outcome().result != practice::Result::open; }, test::patience));
    INFO(person.tab()->outcome().said);
    CHECK(person.tab()->outcome().result == practice::Result::passed);
    CHECK(person.text(QStringLiteral("practiceSaid")).startsWith(QStringLiteral("Passed.")));
    CHECK(person.find<desk::FactsView>(QStringLiteral("practiceFacts"))->facts().size() == 3);
    person.wait();
    // It is known the next time the page is opened.
    log::Query query{.words = "practice", .kind = log::Kind::note};
    std::vector<log::Entry> entries;
    person.window().log().search(query, person.tab(),
                                 [&](desk::LogController::Found found) { entries = found.entries; });
    person.wait();
    REQUIRE(entries.size() == 1);
    CHECK(entries[0].subject_class == "distance");
    CHECK(entries[0].verdict == "keep");
    CHECK(person.board()->accessibleDescription().contains(QStringLiteral("60 to 30 cm, passed")));
}

TEST_CASE("what the bench takes is judged as the exercise it is of, whatever is read meanwhile, and can be stopped",
          "[desk][practice][long]") {
    Learner person;
    const auto taken = [&] {
        return QTest::qWaitFor([&] { return !person.window().runs().isRunning() && !person.tab()->isBusy(); },
                               test::patience);
    };
    auto* stop = person.find(QStringLiteral("stopExerciseButton"));
    CHECK_FALSE(stop->isVisible());
    auto settings = person.window().runs().settings();
    settings.speed = 40;  // slow enough to be met while it runs
    person.window().runs().setSettings(settings);
    person.choose("distance");
    person.click(QStringLiteral("benchExerciseButton"));
    CHECK(stop->isVisible());
    CHECK(person.text(QStringLiteral("practiceSaid")) ==
          QStringLiteral("The bench takes Flash at 60 cm, frame 1 of 1."));
    person.choose("spoon");
    REQUIRE(taken());
    person.wait();
    CHECK_FALSE(stop->isVisible());
    CHECK(person.text(QStringLiteral("practiceSaid")).startsWith(QStringLiteral("The bench is done")));
    // The spoon has neither shots nor a result.
    CHECK(person.tab()->outcome().result == practice::Result::open);
    CHECK(std::ranges::none_of(person.document().shoot().shots,
                               [](const auto& shot) { return shot.id.starts_with("practice-spoon"); }));
    CHECK(person.board()->accessibleDescription().contains(QStringLiteral("60 to 30 cm, passed")));
    // Stopped at once it takes no second shot.
    person.choose("steady");
    person.click(QStringLiteral("benchExerciseButton"));
    person.click(QStringLiteral("stopExerciseButton"));
    CHECK_FALSE(stop->isVisible());
    REQUIRE(taken());
    person.wait();
    CHECK(person.window().runs().shot() == "practice-steady-1");
    CHECK(person.text(QStringLiteral("practiceSaid")).startsWith(QStringLiteral("Stopped.")));
}

TEST_CASE("what an exercise measures of the camera goes into its record, and back", "[desk][practice][long]") {
    Learner person;
    person.choose("bracket");
    auto* keep = person.find(QStringLiteral("keepMeasuredButton"));
    auto* setting = person.find(QStringLiteral("dialledSettingField"));
    CHECK_FALSE(keep->isVisible());
    CHECK_FALSE(setting->isVisible());
    auto settings = person.window().runs().settings();
    settings.pictureWidth = 720;
    person.window().runs().setSettings(settings);
    person.click(QStringLiteral("benchExerciseButton"));
    REQUIRE(QTest::qWaitFor([&] { return person.tab()->outcome().result != practice::Result::open; }, test::patience));
    INFO(person.tab()->outcome().said);
    REQUIRE(person.tab()->outcome().taught);
    const auto reading = person.tab()->outcome().taught->offer.reading;
    person.settle();
    REQUIRE(keep->isVisible());
    REQUIRE(setting->isVisible());
    // What the person set counts, not what was planned.
    person.type(QStringLiteral("dialledSettingField"), QStringLiteral("3"));
    const auto before = person.document().kit();
    person.click(QStringLiteral("keepMeasuredButton"));
    const auto& readings = person.document().kit().cameras[0].step_readings;
    REQUIRE(readings.size() == before.cameras[0].step_readings.size() + 1);
    CHECK(readings.back().setting == 3);
    CHECK(readings.back().ring_step == reading.ring_step);
    CHECK_FALSE(readings.back().time.empty());
    CHECK_FALSE(keep->isVisible());
    // The log has it as a measurement of that exercise's shot.
    person.wait();
    std::vector<log::Entry> entries;
    person.window().log().search({.kind = log::Kind::calibration}, person.tab(),
                                 [&](desk::LogController::Found found) { entries = found.entries; });
    person.wait();
    REQUIRE(entries.size() == 1);
    CHECK(entries[0].what == "steps");
    CHECK(entries[0].name == "Toy and rule");
    CHECK(entries[0].value == Approx(reading.travel / (reading.frames - 1)));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.document().kit() == before);
}

TEST_CASE("An error is hidden in a stack, and found by what and where", "[desk][practice]") {
    Learner person;
    person.choose("error");
    CHECK_FALSE(person.find(QStringLiteral("judgeExerciseButton"))->isVisible());
    person.window().runs().drawMishapsBy(5);
    auto* find = person.find<desk::FindError>(QStringLiteral("findError"));
    const auto take = [&] {
        person.click(QStringLiteral("benchExerciseButton"));
        REQUIRE(QTest::qWaitFor([&] { return find->isVisible(); }, test::patience));
        person.settle();
    };
    take();
    CHECK_FALSE(person.window().runs().rehearsal());  // nothing is told
    const auto mishap = person.window().runs().mishap().value();
    auto* slider = person.find<QSlider>(QStringLiteral("errorSlider"));
    CHECK(slider->maximum() >= 8);
    // Flipping shows another frame at once.
    auto* picture = person.find<QLabel>(QStringLiteral("errorFrame"));
    const auto first = picture->pixmap(Qt::ReturnByValue).toImage();
    slider->setFocus();
    QTest::keyClick(slider, Qt::Key_Right);
    CHECK(find->frame() == 1);
    CHECK(picture->pixmap(Qt::ReturnByValue).toImage() != first);
    slider->setValue(static_cast<int>(mishap.frame));
    person.click(QLatin1String(devices::mishap_id(mishap.kind)));
    CHECK(person.tab()->outcome().result == practice::Result::passed);
    CHECK(person.text(QStringLiteral("practiceSaid")).startsWith(QStringLiteral("Passed.")));
    // Answered once: another answer to the same is none; the wrong place of the next is told.
    person.click(QStringLiteral("rig-slips"));
    CHECK(person.tab()->outcome().result == practice::Result::passed);
    take();
    const auto other = person.window().runs().mishap().value();
    slider->setValue(0);
    person.click(QLatin1String(devices::mishap_id(other.kind)));
    CHECK(person.tab()->outcome().result == practice::Result::failed);
    CHECK(
        person.text(QStringLiteral("practiceSaid")).contains(QStringLiteral("before frame %1").arg(other.frame + 1)) ==
        (other.kind != devices::MishapKind::light_changes));
}
