#include "support/person.hpp"

#include "desk/session/autosave.hpp"
#include "storage/shoot_file.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using desk::Autosave;
using test::answerNext;
using test::Person;

TEST_CASE("unsaved work is copied, and the copy goes with the save", "[desk][autosave]") {
    QTemporaryDir folder;
    desk::Document document;
    document.open(test::plain_shoot(), QStringLiteral("/somewhere/plain.poquito"));
    Autosave autosave(document, QDir(folder.path()));
    autosave.setDelay(0);
    autosave.flush();
    CHECK_FALSE(QFile::exists(autosave.copyPath()));  // nothing unsaved yet
    document.editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.name = "Changed"; });
    REQUIRE(QTest::qWaitFor([&] { return QFile::exists(autosave.copyPath()); }, test::patience));
    autosave.flush();
    const auto copy = storage::load_shoot(autosave.copyPath().toStdString());
    CHECK(copy.value() == document.shoot());
    CHECK(Autosave::leftovers(QDir(folder.path())).empty());  // its owner lives
    document.setSaved(QStringLiteral("/somewhere/plain.poquito"));
    CHECK(QTest::qWaitFor([&] { return !QFile::exists(autosave.copyPath()); }, test::patience));
}

TEST_CASE("an orderly end leaves no copy", "[desk][autosave]") {
    QTemporaryDir folder;
    desk::Document document;
    document.open(test::plain_shoot(), {});
    {
        Autosave autosave(document, QDir(folder.path()));
        document.editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.name = "Changed"; });
        autosave.flush();
        CHECK(QFile::exists(autosave.copyPath()));
    }
    CHECK(QDir(folder.path()).entryList({QStringLiteral("*.poquito")}).isEmpty());
}

TEST_CASE("what a killed program left behind is offered and comes back, unsaved", "[desk][autosave]") {
    QTemporaryDir folder;
    // The real program, killed with changes on the table.
    QProcess program;
    auto environment = QProcessEnvironment::systemEnvironment();
    environment.insert(QStringLiteral("XDG_DATA_HOME"), folder.path());
    environment.insert(QStringLiteral("XDG_CONFIG_HOME"), folder.path());
    environment.insert(QStringLiteral("QT_QPA_PLATFORM"), QStringLiteral("offscreen"));
    program.setProcessEnvironment(environment);
    program.start(QStringLiteral(POQUITO_DESK), {QStringLiteral("--demo")});
    REQUIRE(program.waitForStarted());
    const QDir recovery(folder.path() + QStringLiteral("/poquito/poquito/recovery"));
    // Whose lock it is stands in it a moment after it is there.
    const auto locks = [&] { return recovery.entryInfoList({QStringLiteral("*.lock")}, QDir::Files | QDir::Hidden); };
    REQUIRE(QTest::qWaitFor([&] { return !locks().isEmpty() && locks().front().size() > 0; }, test::patience));
    const QString lock = locks().front().fileName();
    auto shoot = test::plain_shoot();
    shoot.title = "Lost and found";
    // Its own copy, as it would have written it: once while it lives, and, since it clears away what it did not write,
    // once more when it is gone.
    const auto write_copy = [&] {
        REQUIRE(storage::save_shoot(shoot, recovery.filePath(lock.chopped(5)).toStdString()));
    };
    write_copy();
    CHECK(Autosave::leftovers(recovery).empty());
    program.kill();
    program.waitForFinished();
    write_copy();
    REQUIRE(Autosave::leftovers(recovery).size() == 1);

    Person person;
    QString asked;
    answerNext(QMessageBox::Yes, &asked);
    person.window().startAutosave(recovery);
    CHECK(asked.contains(QStringLiteral("Lost and found")));
    CHECK(person.document().shoot().title == "Lost and found");
    CHECK(person.document().isUnsaved());
    CHECK(Autosave::leftovers(recovery).empty());
}

TEST_CASE("a lock that guards nothing is cleared away, one that is held stays", "[desk][autosave]") {
    QTemporaryDir folder;
    desk::Document document;
    Autosave autosave(document, QDir(folder.path()));
    // The lock of this very machine, but of a process that is no more.
    QFile held(autosave.copyPath() + QStringLiteral(".lock"));
    REQUIRE(held.open(QIODevice::ReadOnly));
    QByteArrayList lines = held.readAll().split('\n');
    lines[0] = "4194303";
    QFile dead(folder.filePath(QStringLiteral("dead.poquito.lock")));
    REQUIRE(dead.open(QIODevice::WriteOnly));
    dead.write(lines.join('\n'));
    dead.close();
    CHECK(Autosave::leftovers(QDir(folder.path())).empty());
    CHECK(QFile::exists(held.fileName()));
    CHECK_FALSE(dead.exists());
}

TEST_CASE("a refused recovery is gone, and a broken copy disturbs nobody", "[desk][autosave]") {
    QTemporaryDir folder;
    auto shoot = test::plain_shoot();
    REQUIRE(storage::save_shoot(shoot, folder.filePath(QStringLiteral("a.poquito")).toStdString()));
    QFile broken(folder.filePath(QStringLiteral("b.poquito")));
    REQUIRE(broken.open(QIODevice::WriteOnly));
    broken.write("{");
    broken.close();
    Person person;
    answerNext(QMessageBox::No);
    person.window().startAutosave(QDir(folder.path()));
    CHECK(person.document().count() == 0);
    CHECK_FALSE(QFile::exists(folder.filePath(QStringLiteral("a.poquito"))));
    CHECK(QFile::exists(broken.fileName()));
}
