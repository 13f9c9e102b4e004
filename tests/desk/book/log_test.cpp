// The logbook at the desk: what happens is entered, found again, begun from and forgotten.
#include "support/person.hpp"

#include "desk/base/facts_view.hpp"
#include "desk/book/lessons_leaf.hpp"
#include "desk/book/log_board.hpp"
#include "desk/book/log_desk.hpp"
#include "desk/book/log_leaf.hpp"
#include "desk/run/run_desk.hpp"
#include "log/made_up.hpp"
#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/folder.hpp"

using namespace poquito;
using test::Person;

namespace {

struct Keeper : Person {
    test::Folder folder;
    Keeper() {
        window().openDemo();
        log().setPath(QString::fromStdString((folder / "logbook.db").string()));
        log().setPatience(40);
    }
    desk::LogDesk& log() { return window().log(); }
    desk::LogBoard* board() { return find<desk::LogBoard>(QStringLiteral("logBoard")); }
    void openLog(const char* tab = "logTab") {
        window().goTo(desk::Sheet::book);
        click(QLatin1String(tab));
        wait();
    }
    /// Until all is entered and answered.
    void wait() {
        (void)QTest::qWaitFor([&] { return !log().isBusy(); }, 20000);
        QTest::qWait(150);
        (void)QTest::qWaitFor([&] { return !log().isBusy(); }, 20000);
        settle();
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
    settings.rehearsed.clear(), settings.railLine.clear(), settings.dialectFile.clear();
    runs.setSettings(settings);
    runs.start({person.shot().id}, false);
    REQUIRE(QTest::qWaitFor([&] { return !runs.isRunning(); }, 20000));
    person.wait();
    person.openLog();
    REQUIRE(person.board()->entries().size() == 2);
    const auto& entries = person.board()->entries();
    const auto of = [&](log::Kind kind) { return *std::ranges::find(entries, kind, &log::Entry::kind); };
    CHECK(of(log::Kind::proof).verdict == "keep");
    CHECK(of(log::Kind::run).name == "Toffee tin");
    // A verdict that is given just before another shoot is opened is entered too; that one's past is not entered again.
    person.log().setPatience(60000);
    person.verdict(shoot::Verdict::redo, "2026-11-30T12:00:00");
    const auto file = person.folder / "same.poquito";
    REQUIRE_FALSE(storage::save_shoot(person.document().shoot(), file));
    REQUIRE(person.window().openFile(QString::fromStdString(file.string())));
    person.log().setPatience(40);
    person.wait();
    person.log().setPath(QString::fromStdString((person.folder / "logbook.db").string()));
    person.openLog();
    CHECK(person.board()->entries().size() == 3);
}

TEST_CASE("the log is looked through, a shot is begun from a keeper, and an entry is forgotten", "[desk][log]") {
    Keeper person;
    person.log().write(log::made_up_year(person.document().shoot(), 2026));
    person.openLog();
    auto* board = person.board();
    const auto all = board->entries().size();
    REQUIRE(all == 200);  // the newest
    CHECK(person.text(QStringLiteral("logFound")).contains(QStringLiteral("the newest 200")));
    person.type(QStringLiteral("logWordsField"), QStringLiteral("brooch"));
    QTest::qWait(200);
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
    auto* leaf = person.window().findChild<desk::LogLeaf*>();
    REQUIRE(leaf->shown());
    CHECK_FALSE(leaf->shown()->picture.empty());
    CHECK_FALSE(person.find<QLabel>(QStringLiteral("logPicture"))->pixmap(Qt::ReturnByValue).isNull());
    const int before = person.document().count();
    const auto name = leaf->shown()->name;
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
    QTest::qWait(200);
    person.choose(QStringLiteral("logKindChoice"), QStringLiteral("counts"));
    person.wait();
    CHECK_FALSE(board->entries().empty());
}

TEST_CASE("what one change between two runs took is entered, but not a click or a lunch", "[desk][log]") {
    Keeper person;
    const auto shot = person.shot().id;
    person.log().enterChange("light", shot, 300);
    person.log().enterChange("thing", shot, 90);
    person.log().enterChange("light", shot, 2);
    person.log().enterChange("light", shot, 9000);
    person.log().enterChange("light", "no such shot", 300);
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
    REQUIRE_FALSE(storage::replace_file(path, "9:40 bee 3/20 gusty\n10:00 walrus\n"));
    QString words;
    QObject::connect(&person.log(), &desk::LogDesk::said, [&](const QString& text) { words = text; });
    person.log().importFrom(QString::fromStdString(path.string()));
    CHECK(words.contains(QStringLiteral("1 line read")));
    CHECK(words.contains(QStringLiteral("line 2: got \"10:00 walrus\"")));
    person.openLog();
    REQUIRE(person.board()->entries().size() == 1);
    CHECK(*person.board()->entries()[0].tried == 20);
}

TEST_CASE("what the log teaches is shown with its cases, and the day's prices are taken from it when asked",
          "[desk][log]") {
    Keeper person;
    person.openLog("lessonsTab");
    CHECK(person.text(QStringLiteral("lessonsWords")).contains(QStringLiteral("Too little was logged")));
    person.log().write(log::made_up_year(person.document().shoot(), 2026));
    person.wait();
    auto* leaf = person.window().findChild<desk::LessonsLeaf*>();
    leaf->refresh();
    person.wait();
    REQUIRE(leaf->lessons().size() > 10);
    const double before = person.document().shoot().workday.prices.light;
    person.click(QStringLiteral("takeTimesButton"));
    const double after = person.document().shoot().workday.prices.light;
    CHECK(after != before);
    CHECK(std::abs(after - 6.5 * 60) < 90);  // what the made-up year has, drawn to what practice says
    person.document().undoStack().undo();
    CHECK(person.document().shoot().workday.prices.light == before);
}
