// The logbook at the desk: what happens is entered, found again, begun from and forgotten.
#include "support/person.hpp"

#include "desk/book/lessons_board.hpp"
#include "desk/book/lessons_tab.hpp"
#include "desk/book/log_board.hpp"
#include "desk/book/log_tab.hpp"
#include "desk/book/protocol_page.hpp"
#include "desk/book/protocols_tab.hpp"
#include "desk/book/review_page.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "log/demo_year.hpp"
#include "log/record.hpp"
#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/folder.hpp"

#include <QComboBox>
#include <QFile>
#include <QPdfWriter>

#include <algorithm>

using namespace poquito;
using test::Person;

namespace {

struct Keeper : Person {
    test::Folder folder;
    Keeper() {
        window().openDemo();
        log().setPath(QString::fromStdString((folder / "logbook.db").string()));
        writer().setPatience(40);
    }
    desk::LogController& log() { return window().log(); }
    desk::LogWriter& writer() { return window().logWriter(); }
    desk::LogBoard* board() { return find<desk::LogBoard>(QStringLiteral("logBoard")); }
    void openLog(const char* tab = "logTab") {
        window().goTo(desk::Sheet::book);
        click(QLatin1String(tab));
        wait();
    }
    /// Until all is entered and answered.
    void wait() {
        const auto quiet = [&] {
            const auto* tab = window().findChild<desk::LogTab*>();
            return !writer().isBusy() && !(tab && tab->isWaiting());
        };
        // Answers ask again: quiet before and after what waits is done.
        for (int i = 0; i < 3; ++i) {
            REQUIRE(QTest::qWaitFor(quiet, test::patience));
            settle();
        }
    }
    void verdict(shoot::Verdict verdict, const char* time) {
        document().editShot({QStringLiteral("verdict")}, [&](shoot::Shot& shot) {
            shot.proof.push_back({.time = time, .frames = 3, .verdict = verdict, .unknown = {}});
        });
    }
};

}  // namespace

TEST_CASE("a run and a verdict are entered as they happen, what is taken back at once is not", "[desk][log]") {
    Keeper person;
    person.openLog();
    CHECK(person.text(QStringLiteral("logFound")).contains(QStringLiteral("Nothing was logged yet")));
    person.window().goTo(desk::Sheet::shot);
    person.selectShot(QStringLiteral("Toffee tin"));
    person.verdict(shoot::Verdict::keep, "2026-11-30T10:00:00");
    person.wait();
    person.verdict(shoot::Verdict::redo, "2026-11-30T11:00:00");
    person.document().undoStack().undo();
    person.wait();
    auto& runs = person.window().runs();
    runs.setFolder(QDir(QString::fromStdString((person.folder / "frames").string())));
    auto settings = runs.settings();
    settings.speed = 2000, settings.pictureWidth = 48;
    settings.rehearsed.reset(), settings.railLine.clear(), settings.dialectFile.clear();
    runs.setSettings(settings);
    runs.start({person.shot().id}, false);
    REQUIRE(QTest::qWaitFor([&] { return !runs.isRunning(); }, test::patience));
    person.wait();
    person.openLog();
    // The run, what its frames showed once they were looked at, and the verdict.
    REQUIRE(QTest::qWaitFor([&] { return person.board()->entries().size() == 3; }, test::patience));
    const auto& entries = person.board()->entries();
    const auto of = [&](log::Kind kind) { return *std::ranges::find(entries, kind, &log::Entry::kind); };
    CHECK(of(log::Kind::proof).verdict == "keep");
    CHECK(of(log::Kind::run).name == "Toffee tin");
    CHECK(*of(log::Kind::inspection).frames == *of(log::Kind::run).frames);
    // Its page shows the frames, whichever of its entries is chosen.
    QTest::mouseClick(person.board(), Qt::LeftButton, {}, person.board()->rowRect(0).center().toPoint());
    person.wait();
    CHECK_FALSE(person.find<QLabel>(QStringLiteral("logThumbnails"))->pixmap(Qt::ReturnByValue).isNull());
    // A verdict that is given just before another shoot is opened is entered too; that one's past is not entered again.
    person.writer().setPatience(test::patience);
    person.verdict(shoot::Verdict::redo, "2026-11-30T12:00:00");
    const auto file = person.folder / "same.poquito";
    REQUIRE(storage::save_shoot(person.document().shoot(), file));
    REQUIRE(person.window().openFile(QString::fromStdString(file.string())));
    person.writer().setPatience(40);
    person.wait();
    person.log().setPath(QString::fromStdString((person.folder / "logbook.db").string()));
    person.openLog();
    CHECK(person.board()->entries().size() == 4);
}

TEST_CASE("a line is written down as in notes of a day, and what has no place is said", "[desk][log]") {
    Keeper person;
    person.openLog();
    person.type(QStringLiteral("writeDownField"), QStringLiteral("lichen 3/20 gusty"));
    person.click(QStringLiteral("writeDownButton"));
    person.wait();
    REQUIRE(person.board()->entries().size() == 1);
    CHECK(*person.board()->entries()[0].tried == 20);
    CHECK(person.board()->entries()[0].remark == "gusty");
    CHECK(person.text(QStringLiteral("writeDownField")).isEmpty());
    QString said;
    QObject::connect(&person.writer(), &desk::LogWriter::said, &person.log(),
                     [&](const QString& words) { said = words; });
    person.type(QStringLiteral("writeDownField"), QStringLiteral("dragonfly 1/9"));
    person.click(QStringLiteral("writeDownButton"));
    person.wait();
    CHECK(said.contains(QStringLiteral("no place for")));
    CHECK(person.board()->entries().size() == 1);
}

TEST_CASE("a day is reviewed from Proof and printed on one sheet, a series over the months too", "[desk][log]") {
    Keeper person;
    const auto shoot = person.document().shoot();
    person.log().write(log::demo_year(shoot, 2026));
    person.wait();
    person.goTo(6);
    person.click(QStringLiteral("proofLogTab"));
    person.click(QStringLiteral("reviewButton"));
    person.wait();
    CHECK(person.window().sheet() == desk::Sheet::book);
    const auto* review = person.find<desk::ReviewPage>(QStringLiteral("reviewPage"));
    CHECK(review->isVisible());
    CHECK(review->review().day.substr(0, 7) == "2026-12");  // the last
    CHECK(review->review().shots.size() >= shoot.shots.size());
    CHECK(review->review().otherwise.size() == 3);
    const auto days = person.find<QComboBox>(QStringLiteral("reviewDayChoice"));
    REQUIRE(days->count() > 30);
    person.choose(QStringLiteral("reviewDayChoice"), days->itemText(5));
    person.wait();
    CHECK(review->review().day == days->itemText(5).toStdString());
    const auto pages = [&](const desk::BookPage& page) {
        const auto file = QString::fromStdString((person.folder / "page.pdf").string());
        QPdfWriter pdf(file);
        CHECK(page.printOn(pdf));
        QFile written(file);
        REQUIRE(written.open(QIODevice::ReadOnly));
        return written.readAll().count("/Type /Page\n");
    };
    CHECK(pages(*review) == 1);
    person.click(QStringLiteral("protocolsTab"));
    person.wait();
    const auto* tab = person.window().findChild<desk::ProtocolsTab*>();
    REQUIRE(tab->protocols().size() > 3);
    CHECK_FALSE(tab->protocols().front().locks.empty());  // series first
    CHECK(std::ranges::any_of(tab->protocols(), [](const auto& one) { return !one.drifts.empty(); }));
    CHECK(pages(*person.find<desk::ProtocolPage>(QStringLiteral("protocolPage"))) == 1);
}

TEST_CASE("a lesson is taken over by the button it offers, is undone, and is no case of its own", "[desk][log]") {
    Keeper person;
    std::vector<log::Entry> entries;
    person.selectShot(QStringLiteral("Satchel, front"));
    const auto shot = person.shot();
    for (int i = 0; i < 4; ++i) {
        auto entry = log::entry_for(person.document().shoot(), shot, person.writer().classOf()(shot));
        entry.kind = log::Kind::correction, entry.stops = 0.5;
        entry.uid = "c" + std::to_string(i), entry.time = "2026-11-0" + std::to_string(i + 1) + "T10:00:00";
        entries.push_back(entry);
        entry.kind = log::Kind::proof, entry.verdict = "keep", entry.f_number = shot.exposure.f_number * 2;
        entry.uid = "p" + std::to_string(i), entry.stops.reset();
        entries.push_back(entry);
    }
    person.log().write(entries);
    person.wait();
    person.openLog("lessonsTab");
    auto* board = person.find<desk::LessonsBoard>(QStringLiteral("lessonsBoard"));
    const auto* tab = person.window().findChild<desk::LessonsTab*>();
    const auto take = [&](log::Topic topic) {
        for (std::size_t i = 0; i < tab->lessons().size(); ++i)
            if (tab->lessons()[i].topic == topic)
                QTest::mouseClick(board, Qt::LeftButton, {}, board->rowRect(i).center().toPoint());
        person.settle();
        person.click(QStringLiteral("takeLessonButton"));
        person.wait();
    };
    take(log::Topic::stop);
    CHECK(person.shot().exposure.f_number > shot.exposure.f_number * 1.9);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().exposure.f_number == shot.exposure.f_number);
    const auto learned = [&] {
        std::size_t all = 0;
        for (const auto& flash : person.document().shoot().kit.flashes) all += flash.corrections.size();
        for (const auto& lamp : person.document().shoot().kit.lamps) all += lamp.corrections.size();
        return all;
    };
    const auto before = learned();
    take(log::Topic::exposure);
    CHECK(learned() == before + 1);
    person.window().goTo(desk::Sheet::shot);
    person.openLog();
    CHECK(person.board()->entries().size() == entries.size());  // what it taught did not happen again
}

TEST_CASE("the log is looked through, a shot is begun from a keeper, and an entry is forgotten", "[desk][log]") {
    Keeper person;
    person.log().write(log::demo_year(person.document().shoot(), 2026));
    person.openLog();
    auto* board = person.board();
    const auto all = board->entries().size();
    REQUIRE(all == 200);  // the newest
    CHECK(person.text(QStringLiteral("logFound")).contains(QStringLiteral("the newest 200")));
    person.type(QStringLiteral("logWordsField"), QStringLiteral("brooch"));
    person.wait();
    CHECK(board->entries().size() < all);
    REQUIRE_FALSE(board->entries().empty());
    for (const auto& entry : board->entries()) CHECK(entry.name.find("brooch") != std::string::npos);
    person.choose(QStringLiteral("logKindChoice"), QStringLiteral("proofs"));
    person.wait();
    for (const auto& entry : board->entries()) CHECK(entry.kind == log::Kind::proof);
    // By keys, with its picture and its plan.
    board->setFocus();
    person.key(Qt::Key_Down);
    person.wait();
    CHECK(board->chosen() == board->entries()[1].id);
    auto* tab = person.window().findChild<desk::LogTab*>();
    REQUIRE(tab->shown());
    CHECK_FALSE(tab->shown()->picture.empty());
    CHECK_FALSE(person.find<QLabel>(QStringLiteral("logPicture"))->pixmap(Qt::ReturnByValue).isNull());
    const int before = person.document().count();
    const auto name = tab->shown()->name;
    person.click(QStringLiteral("beginFromLogButton"));
    CHECK(person.document().count() == before + 1);
    CHECK(person.shot().name == name);
    CHECK(person.window().sheet() == desk::Sheet::shot);  // nothing differs
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.document().count() == before);
    person.openLog();
    const auto gone = board->chosen();
    const auto count = board->entries().size();
    person.click(QStringLiteral("forgetLogButton"));
    person.wait();
    CHECK(board->entries().size() == count - 1);
    CHECK(std::ranges::find(board->entries(), gone, &log::Entry::id) == board->entries().end());
    // Out and in again, as a table.
    const auto csv = QString::fromStdString((person.folder / "log.csv").string());
    person.log().exportTo(csv);
    person.wait();
    CHECK(QFile(csv).size() > 10000);
    person.log().setPath(QString::fromStdString((person.folder / "other.db").string()));
    person.log().importFrom(csv);
    person.wait();
    person.type(QStringLiteral("logWordsField"), QStringLiteral("bee"));
    person.wait();
    person.choose(QStringLiteral("logKindChoice"), QStringLiteral("counts"));
    person.wait();
    CHECK_FALSE(board->entries().empty());
}

TEST_CASE("what one change between two runs took is entered, but not a click or a lunch", "[desk][log]") {
    Keeper person;
    const auto shot = person.shot().id;
    person.writer().enterChange("light", shot, 300);
    person.writer().enterChange("thing", shot, 90);
    person.writer().enterChange("light", shot, 2);
    person.writer().enterChange("light", shot, 9000);
    person.writer().enterChange("light", "no such shot", 300);
    person.openLog();
    const auto& entries = person.board()->entries();
    REQUIRE(entries.size() == 2);
    for (const auto& entry : entries) {
        CHECK(entry.kind == log::Kind::change);
        CHECK(*entry.minutes == (entry.what == "light" ? 5 : 1.5));
    }
}

TEST_CASE("notes of a day in the field are read in, with what has no place", "[desk][log]") {
    Keeper person;
    const auto path = person.folder / "notes.txt";
    REQUIRE(storage::replace_file(path, "9:40 bee 3/20 gusty\n10:00 walrus\n"));
    QString words;
    QObject::connect(&person.writer(), &desk::LogWriter::said, [&](const QString& text) { words = text; });
    person.writer().readNotes(QString::fromStdString(path.string()));
    CHECK(words.contains(QStringLiteral("1 line read")));
    CHECK(words.contains(QStringLiteral("line 2: got \"10:00 walrus\"")));
    person.openLog();
    REQUIRE(person.board()->entries().size() == 1);
    CHECK(*person.board()->entries()[0].tried == 20);
}

TEST_CASE("an empty log offers nothing to choose, print, take or forget", "[desk][log]") {
    Keeper person;
    const auto seen = [&](const char* tab, std::initializer_list<const char*> controls) {
        person.openLog(tab);
        std::vector<bool> visible;
        for (const char* one : controls) visible.push_back(person.find<QWidget>(QLatin1String(one))->isVisible());
        return visible;
    };
    const auto look = [&] {
        return std::vector{seen("logTab", {"beginFromLogButton", "forgetLogButton", "logFacts"}),
                           seen("lessonsTab", {"takeLessonButton"}),
                           seen("protocolsTab", {"seriesChoice", "printProtocolButton"}),
                           seen("reviewTab", {"reviewDayChoice", "printReviewButton"})};
    };
    for (const auto& tab : look())
        for (const bool one : tab) CHECK_FALSE(one);
    person.log().write(log::demo_year(person.document().shoot(), 2026));
    person.wait();
    for (const auto& tab : look())
        for (const bool one : tab) CHECK(one);
}

TEST_CASE("what the log teaches is shown with its cases, and the day's prices are taken from it when asked",
          "[desk][log]") {
    Keeper person;
    person.openLog("lessonsTab");
    CHECK(person.text(QStringLiteral("lessonsWords")).startsWith(QStringLiteral("Nothing to learn from yet")));
    person.log().write(log::demo_year(person.document().shoot(), 2026));
    person.wait();
    auto* tab = person.window().findChild<desk::LessonsTab*>();
    tab->refresh();
    person.wait();
    REQUIRE(tab->lessons().size() > 10);
    const double before = person.document().shoot().workday.prices.light;
    person.click(QStringLiteral("takeTimesButton"));
    const double after = person.document().shoot().workday.prices.light;
    CHECK(after != before);
    CHECK(std::abs(after - 6.5 * 60) < 90);  // what the made-up year has, drawn to what practice says
    person.document().undoStack().undo();
    CHECK(person.document().shoot().workday.prices.light == before);
}
