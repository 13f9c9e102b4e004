// What a hostile and unlucky world does to the window: files of somebody else, two windows at once, disks that are
// full.
#include "support/person.hpp"

#include "desk/session/autosave.hpp"
#include "desk/session/bag.hpp"
#include "desk/session/picture_file.hpp"
#include "desk/session/subject_library.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "storage/atomic_file.hpp"
#include "storage/kit_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/shoots.hpp"

#include <sys/stat.h>

using namespace poquito;
using test::answerNextBy;
using test::Person;

namespace {

const auto markup = QStringLiteral("<h1>large</h1><img src=\"/dev/zero\">");

}  // namespace

// ---- a shoot from somebody else ----------------------------------------------------------------------------------

TEST_CASE("texts of a file are lettering in labels, questions and tips, never markup", "[desk][hostile]") {
    Person person;
    auto shoot = test::plain_shoot();
    shoot.title = markup.toStdString();
    shoot.shots[0].name = markup.toStdString();
    person.document().open(shoot, {});
    person.goTo(1);
    person.goTo(5);
    person.settle();
    for (const auto* label : person.window().findChildren<QLabel*>())
        if (label->isVisible()) CHECK(label->textFormat() != Qt::AutoText);
    // A question about it.
    person.document().editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.exposure.iso = 200; });
    bool seen = false;
    QTimer::singleShot(0, qApp, [&] {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        REQUIRE(box);
        seen = box->text().contains(markup);
        CHECK(box->findChild<QLabel*>(QStringLiteral("qt_msgbox_label"))->textFormat() == Qt::PlainText);
        box->button(QMessageBox::Cancel)->click();
    });
    person.trigger(QStringLiteral("newAction"));
    CHECK(seen);
    // A tip of it, of a widget and of a row in a list.
    QLabel label;
    label.setToolTip(markup);
    label.show();
    QHelpEvent help(QEvent::ToolTip, {1, 1}, label.mapToGlobal(QPoint(1, 1)));
    QApplication::sendEvent(&label, &help);
    CHECK(QToolTip::text().contains(QStringLiteral("&lt;img")));
    CHECK_FALSE(QToolTip::text().contains(QStringLiteral("<img")));
    auto* cards = person.find<QListView>(QStringLiteral("shotCards"));
    const auto place = cards->visualRect(cards->model()->index(0, 0)).center();
    QHelpEvent row(QEvent::ToolTip, place, cards->viewport()->mapToGlobal(place));
    QApplication::sendEvent(cards->viewport(), &row);
    CHECK_FALSE(QToolTip::text().contains(QStringLiteral("<img")));
    QToolTip::hideText();
}

TEST_CASE("pictures come through one door: regular files of this machine, of formats that are bounded",
          "[desk][hostile]") {
    QTemporaryDir folder;
    const auto path = [&](const char* name) { return folder.filePath(QLatin1String(name)).toStdString(); };
    QImage drawn(300, 200, QImage::Format_RGB32);
    drawn.fill(QColor(200, 60, 40));
    REQUIRE(drawn.save(folder.filePath(QStringLiteral("good.png"))));
    REQUIRE(drawn.save(folder.filePath(QStringLiteral("named.tif")), "JPG"));  // by its content, not by its name
    REQUIRE(::mkfifo(path("pipe.png").c_str(), 0600) == 0);
    REQUIRE(storage::replace_file(path("drawn.svg"), "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'/>"));
    REQUIRE(storage::replace_file(path("none.jpg"), "not a picture at all"));
    using desk::readPicture;
    using desk::Turned;
    CHECK(readPicture(path("good.png"), Turned::upright).image.size() == QSize(300, 200));
    CHECK(readPicture(path("good.png"), Turned::upright, {30, 30}).image.size() == QSize(30, 20));
    CHECK(readPicture(path("named.tif"), Turned::asItLies).image.size() == QSize(300, 200));
    for (const char* name : {"pipe.png", "drawn.svg", "none.jpg", "missing.jpg"}) {
        INFO(name);
        const auto read = readPicture(path(name), Turned::upright);
        CHECK(read.image.isNull());
        CHECK_FALSE(read.problem.isEmpty());
    }
    CHECK(readPicture("http://127.0.0.1:9/a.jpg", Turned::upright).problem == QStringLiteral("no such file"));
}

// ---- work that is lost -------------------------------------------------------------------------------------------

TEST_CASE("Escape at unsaved work keeps it for the next start, only Discard discards", "[desk][autosave]") {
    QTemporaryDir folder;
    const auto copy = folder.filePath(QStringLiteral("a.poquito"));
    REQUIRE(storage::save_shoot(test::plain_shoot(), copy.toStdString()));
    {
        Person person;
        QTimer::singleShot(0, qApp, [] {
            auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
            REQUIRE(box);
            QTest::keyClick(box, Qt::Key_Escape);
        });
        person.window().startAutosave(QDir(folder.path()));
        CHECK(person.document().count() == 0);
        CHECK(QFile::exists(copy));
    }
    Person person;
    QString asked;
    answerNextBy(QStringLiteral("Discard"), &asked);
    person.window().startAutosave(QDir(folder.path()));
    CHECK_FALSE(asked.isEmpty());
    CHECK_FALSE(QFile::exists(copy));
}

TEST_CASE("a copy of unsaved work that cannot be written is told, and tried again until it can", "[desk][autosave]") {
    QTemporaryDir around;
    // Where the folder should be there is a file: nobody, not even root, can write into it.
    const auto path = around.filePath(QStringLiteral("recovery"));
    QFile block(path);
    REQUIRE(block.open(QIODevice::WriteOnly));
    block.close();
    desk::Document document;
    document.open(test::plain_shoot(), {});
    desk::Autosave autosave(document, QDir(path));
    autosave.setDelay(0);
    autosave.setRetryDelay(1);
    QStringList told;
    QObject::connect(&autosave, &desk::Autosave::told, [&](const QString& words) { told << words; });
    document.editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.name = "Changed"; });
    REQUIRE(QTest::qWaitFor([&] { return told.size() == 1; }, test::patience));
    CHECK(told[0].contains(QStringLiteral("not safe from a crash")));
    REQUIRE(QFile::remove(path));
    // Nothing is edited: it is tried again by itself, and said to be well once.
    REQUIRE(QTest::qWaitFor([&] { return told.size() == 2; }, test::patience));
    CHECK(told[1].isEmpty());
    CHECK(QFile::exists(autosave.copyPath()));
}

TEST_CASE("a shoot that another window saved meanwhile is asked about, and both can be kept", "[desk][files]") {
    QTemporaryDir folder;
    const auto path = folder.filePath(QStringLiteral("two.poquito"));
    auto shoot = test::plain_shoot();
    REQUIRE(storage::save_shoot(shoot, path.toStdString()));
    const auto title = [&] { return storage::load_shoot(path.toStdString()).value().title; };
    Person person;
    REQUIRE(person.window().openFile(path));
    person.type(QStringLiteral("titleField"), QStringLiteral("Mine"));
    shoot.title = "Theirs";
    REQUIRE(storage::save_shoot(shoot, path.toStdString()));
    QString asked;
    answerNextBy(QStringLiteral("Cancel"), &asked);
    person.trigger(QStringLiteral("saveAction"));
    CHECK(asked.contains(QStringLiteral("two.poquito was written by another window")));
    CHECK(title() == "Theirs");
    CHECK(person.document().isUnsaved());
    answerNextBy(QStringLiteral("Replace the other"));
    person.trigger(QStringLiteral("saveAction"));
    CHECK(title() == "Mine");
    CHECK_FALSE(person.document().isUnsaved());
    // The one that does not stay there is kept beside it.
    const auto kept = [&](const char* which) {
        const auto names =
            QDir(folder.path()).entryList({QStringLiteral("two-%1-*.poquito").arg(QLatin1String(which))});
        REQUIRE(names.size() == 1);
        return storage::load_shoot(folder.filePath(names[0]).toStdString()).value().title;
    };
    CHECK(kept("other") == "Theirs");
    // Saved by oneself it is nobody else's: not asked again.
    person.type(QStringLiteral("titleField"), QStringLiteral("Mine again"));
    person.trigger(QStringLiteral("saveAction"));
    CHECK(title() == "Mine again");
    REQUIRE(storage::save_shoot(shoot, path.toStdString()));
    person.type(QStringLiteral("titleField"), QStringLiteral("Third"));
    answerNextBy(QStringLiteral("Open the other"));
    person.trigger(QStringLiteral("saveAction"));
    CHECK(person.document().shoot().title == "Theirs");
    CHECK(title() == "Theirs");
    CHECK(kept("mine") == "Third");
}

TEST_CASE("two bags at once: whoever comes second is asked, and neither is lost", "[desk][bag]") {
    QTemporaryDir folder;
    const auto path = folder.filePath(QStringLiteral("bag.json"));
    const auto rename = [](desk::Bag& bag, const char* name) {
        bag.document().edit({QStringLiteral("x")}, [&](shoot::Shoot& own) { own.kit.lenses[0].name = name; });
    };
    const auto stored = [&] { return storage::load_kit(path.toStdString()).value().lenses[0].name; };
    desk::Bag first(path);
    rename(first, "First");
    desk::Bag second(path);
    int asked = 0;
    QObject::connect(&second, &desk::Bag::changedElsewhere, [&] { ++asked; });
    rename(second, "Second");
    CHECK(stored() == "Second");
    CHECK(asked == 0);
    int first_asked = 0;
    QObject::connect(&first, &desk::Bag::changedElsewhere, [&] { ++first_asked; });
    rename(first, "First again");
    CHECK(first_asked == 1);
    CHECK(stored() == "Second");
    CHECK(first.problem().contains(QStringLiteral("another window")));
    first.takeTheirs();
    CHECK(first.kit().lenses[0].name == "Second");
    first.document().undoStack().undo();
    CHECK(first.kit().lenses[0].name == "First again");
    CHECK(stored() == "First again");
    rename(second, "Second again");
    CHECK(asked == 1);
    second.keepOurs();
    CHECK(stored() == "Second again");
    const auto others = QDir(folder.path()).entryList({QStringLiteral("bag.json.other-*")});
    REQUIRE(others.size() == 1);
    const auto other = storage::read_file(folder.filePath(others[0]).toStdString());
    CHECK(other.value().find("First again") != std::string::npos);
}

TEST_CASE("what is refused leaves nothing of itself behind", "[desk][fields]") {
    Person person;
    person.window().openDemo();
    person.goTo(1);
    auto* field = person.find<desk::QuantityField>(QStringLiteral("depthField"));
    const double before = person.shot().subject.depth;
    for (const char* text : {"1.234,5", "12 34", "5 mmm", "7 x"}) {
        INFO(text);
        person.type(QStringLiteral("depthField"), QString::fromLatin1(text));
        CHECK(field->property("wrong").toBool());
        CHECK(person.shot().subject.depth == before);
        person.key(Qt::Key_Escape);
        CHECK_FALSE(field->property("wrong").toBool());
        CHECK(person.shot().subject.depth == before);
    }
    // What is good on the way counts as it is typed, and Escape takes it back.
    person.type(QStringLiteral("depthField"), QStringLiteral("9.5"));
    CHECK(person.shot().subject.depth == 9.5);
    person.key(Qt::Key_Escape);
    CHECK(person.shot().subject.depth == before);
    person.type(QStringLiteral("depthField"), QStringLiteral("9.5"));
    person.key(Qt::Key_Return);
    person.type(QStringLiteral("depthField"), QStringLiteral("8 8"));
    CHECK(person.shot().subject.depth == 9.5);
}
