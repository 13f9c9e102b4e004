// What is kept for every shoot, in files of the user's own: it is there the next time, and a file that cannot be read
// is set aside, not written over.
#include "support/person.hpp"

#include "desk/session/bag.hpp"
#include "desk/session/subject_library.hpp"
#include "desk/subject/specimen_board.hpp"
#include "desk/subject/table_drawing.hpp"

#include <QDir>
#include <QFile>
#include <QInputDialog>
#include <QLabel>
#include <QStandardPaths>
#include <QTimer>

using namespace poquito;
using test::Person;

namespace {

/// The user's data folder, empty before and after.
struct OwnFolder {
    OwnFolder() { clear(); }
    ~OwnFolder() { clear(); }
    static QDir dir() { return QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation)); }
    static void clear() {
        for (const auto& file : dir().entryList({QStringLiteral("*.json*")}, QDir::Files)) dir().remove(file);
    }
    static void write(const char* name, const QByteArray& text) {
        dir().mkpath(QStringLiteral("."));
        QFile file(dir().filePath(QLatin1String(name)));
        REQUIRE(file.open(QIODevice::WriteOnly));
        file.write(text);
    }
    static QByteArray read(const QString& name) {
        QFile file(dir().filePath(name));
        return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
    }
    /// What was set aside of that file, in its own words.
    static QByteArray aside(const char* name) {
        const auto found = dir().entryList({QLatin1String(name) + QStringLiteral(".unread-*")});
        return found.size() == 1 ? read(found.front()) : QByteArray();
    }
};

/// A person at the table, who puts a thing on it.
struct AtTable : Person {
    explicit AtTable(const char* thing) {
        window().openDemo();
        goTo(1);
        click(QStringLiteral("stagingTab"));
        choose(QStringLiteral("propChoice"), QString::fromUtf8(thing));
        click(QStringLiteral("addPropButton"));
    }
};

/// The strip's words until a moment has passed.
QString problem(Person& person) {
    (void)QTest::qWaitFor([&] { return person.find<QLabel>(QStringLiteral("problemText"))->isVisible(); },
                          test::patience);
    return person.text(QStringLiteral("problemText"));
}

}  // namespace

TEST_CASE("a subject of one's own is kept, and found in the library the next time", "[desk][kept]") {
    const OwnFolder own;
    {
        Person person;
        person.window().openDemo();
        person.selectShot(QStringLiteral("Fossil urchin"));
        person.goTo(1);
        person.click(QStringLiteral("keepSubjectButton"));
    }
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Toffee tin"));
    const auto exposure = person.shot().exposure;
    person.goTo(1);
    person.choose(QStringLiteral("libraryKind"), QStringLiteral("My own"));
    // By keys: the arrows stay on the board, Enter takes it.
    auto* board = person.find<desk::SpecimenBoard>(QStringLiteral("libraryBoard"));
    board->setFocus();
    for (const auto key : {Qt::Key_Right, Qt::Key_Down, Qt::Key_Left, Qt::Key_Up, Qt::Key_Return}) person.key(key);
    CHECK(person.shot().subject.library == "own-Fossil urchin");
    CHECK(person.shot().subject.width == 42);
    CHECK(person.shot().subject.form == shoot::Form::dome);
    CHECK(person.shot().exposure == exposure);
    // Kept again under that name it takes its own place.
    person.click(QStringLiteral("keepSubjectButton"));
    person.selectShot(QStringLiteral("Fossil urchin"));
    person.click(QStringLiteral("keepSubjectButton"));
    desk::SubjectLibrary library;
    const auto mine = [](const shoot::LibrarySubject& one) { return one.kind == "My own"; };
    CHECK(std::ranges::count_if(library.subjects(), mine) == 2);
}

TEST_CASE("a thing for the table and a set of views are kept under their names", "[desk][kept]") {
    const OwnFolder own;
    {
        AtTable person("Pebble");
        person.type(QStringLiteral("stagedNameField"), QStringLiteral("Grey flint"));
        person.type(QStringLiteral("stagedBehindField"), QStringLiteral("12 cm"));
        person.click(QStringLiteral("keepPropButton"));
        CHECK(person.text(QStringLiteral("propChoice")) == QStringLiteral("Grey flint"));
        // A view of a thing: its set.
        person.selectShot(QStringLiteral("Satchel, front"));
        REQUIRE(person.shot().view);
        person.window().goTo(desk::Sheet::day);
        person.click(QStringLiteral("setsTab"));
        QTimer::singleShot(0, [] {
            auto* dialog = qobject_cast<QInputDialog*>(QApplication::activeModalWidget());
            CHECK(dialog);
            if (!dialog) return;
            dialog->setTextValue(QStringLiteral("My bags"));
            dialog->accept();
        });
        person.click(QStringLiteral("keepSetButton"));
        CHECK(person.text(QStringLiteral("viewSetChoice")) == QStringLiteral("My bags"));
    }
    AtTable person("Grey flint");
    REQUIRE(person.shot().staging.size() == 1);
    CHECK(person.shot().staging[0].behind < 120);  // it stands beside the subject, not where the other one stood
    person.window().goTo(desk::Sheet::day);
    person.click(QStringLiteral("setsTab"));
    CHECK(person.find<QComboBox>(QStringLiteral("viewSetChoice"))->findText(QStringLiteral("My bags")) == 0);
}

TEST_CASE("what is kept and cannot be read is set aside as it is, and said", "[desk][kept]") {
    const OwnFolder own;
    const QByteArray broken = "{ \"format\": \"poquito-su";
    for (const char* name : {"subjects.json", "props.json", "view-sets.json", "checks.json"}) own.write(name, broken);
    Person person;
    person.window().openDemo();
    person.goTo(1);
    person.settle();
    CHECK(problem(person).contains(QStringLiteral("stands aside as")));
    for (const char* name : {"subjects.json", "props.json", "checks.json"}) {
        INFO(name);
        CHECK(own.aside(name) == broken);
        CHECK_FALSE(own.dir().exists(QLatin1String(name)));
    }
    person.window().goTo(desk::Sheet::day);
    person.settle();
    CHECK(problem(person).startsWith(QStringLiteral("Your sets of views could not be read")));
    CHECK(own.aside("view-sets.json") == broken);
    // What is kept from now on is written, and what stood aside stays.
    person.window().goTo(desk::Sheet::shot);
    person.goTo(1);
    person.click(QStringLiteral("subjectTab"));
    person.click(QStringLiteral("keepSubjectButton"));
    CHECK(own.read(QStringLiteral("subjects.json")).contains("own-Fossil urchin"));
    CHECK(own.aside("subjects.json") == broken);
}

TEST_CASE("limits that cannot be read are set aside, and the bag is read all the same", "[desk][kept]") {
    QTemporaryDir folder;
    const auto path = folder.filePath(QStringLiteral("bag.json"));
    {
        desk::Bag bag(path);
        bag.document().edit({QStringLiteral("name")}, [](shoot::Shoot& shoot) {
            shoot.kit.cameras[0].name = "My body";
            shoot.terms.limits.f_number = 8;
        });
    }
    CHECK(desk::Bag(path).document().shoot().terms.limits.f_number == 8);
    QFile limits(folder.filePath(QStringLiteral("limits.json")));
    REQUIRE(limits.open(QIODevice::WriteOnly));
    limits.write("[]");
    limits.close();
    const desk::Bag bag(path);
    CHECK(bag.problem().startsWith(QStringLiteral("Your limits could not be read")));
    CHECK(bag.kit().cameras[0].name == "My body");
    CHECK(QDir(folder.path()).entryList({QStringLiteral("limits.json.unread-*")}).size() == 1);
}
