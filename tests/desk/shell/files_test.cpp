#include "support/person.hpp"

#include "storage/shoot_file.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using test::answerNext;
using test::Person;

TEST_CASE("a file that cannot be read says why and leaves the shoot as it is", "[desk][files]") {
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("broken.poquito"));
    auto shoot = test::plain_shoot();
    shoot.shots[0].exposure.iso = -100;
    REQUIRE(storage::save_shoot(shoot, path.toStdString()));
    Person person;
    person.window().openDemo();
    const auto before = person.document().shoot();
    CHECK_FALSE(person.window().openFile(path));
    CHECK(person.document().shoot() == before);
    CHECK(person.find(QStringLiteral("problemText"))->isVisible());
    CHECK(person.text(QStringLiteral("problemText")) ==
          QStringLiteral("broken.poquito was not opened. shots[0].exposure.iso: got -100, expected 1 to 10000000"));
    person.click(QStringLiteral("dismissProblemButton"));
    CHECK_FALSE(person.find(QStringLiteral("problemText"))->isVisible());
}

TEST_CASE("a save that fails keeps the changes and says so", "[desk][files]") {
    Person person;
    person.window().openDemo();
    person.type(QStringLiteral("titleField"), QStringLiteral("Changed"));
    CHECK_FALSE(person.window().saveTo(QStringLiteral("/no/such/folder/x.poquito")));
    CHECK(person.document().isUnsaved());
    CHECK(person.text(QStringLiteral("problemText")).contains(QStringLiteral("not saved")));
}

TEST_CASE("unsaved changes are asked about before they are dropped", "[desk][files]") {
    Person person;
    person.window().openDemo();
    person.type(QStringLiteral("titleField"), QStringLiteral("Changed"));
    CHECK(person.text(QStringLiteral("fileState")).contains(QStringLiteral("unsaved")));
    QString asked;
    answerNext(QMessageBox::Cancel, &asked);
    person.trigger(QStringLiteral("newAction"));
    CHECK(asked.contains(QStringLiteral("Changed")));
    CHECK(person.document().shoot().title == "Changed");
    answerNext(QMessageBox::Cancel);
    CHECK_FALSE(person.window().close());
    answerNext(QMessageBox::Discard);
    person.trigger(QStringLiteral("newAction"));
    CHECK(person.document().count() == 0);
    CHECK(person.window().close());
}

TEST_CASE("a name without suffix gets one, and a file that is there is asked about first", "[desk][files]") {
    QTemporaryDir folder;
    const QString taken = folder.filePath(QStringLiteral("spring.poquito"));
    REQUIRE(storage::save_shoot(test::plain_shoot(), taken.toStdString()));
    Person person;
    person.window().openDemo();
    bool asked = false;
    const auto answer = [&](const QString& name, QMessageBox::StandardButton button) {
        QTimer::singleShot(0, qApp, [&, name, button] {
            auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
            REQUIRE(dialog);
            auto* field = dialog->findChild<QLineEdit*>(QStringLiteral("fileNameEdit"));
            field->setText(folder.filePath(name));
            QTimer::singleShot(0, qApp, [&, dialog, button] {
                if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
                    asked = true;
                    box->button(button)->click();
                    if (button == QMessageBox::No) dialog->reject();
                }
            });
            QMetaObject::invokeMethod(dialog, "accept");
        });
        person.trigger(QStringLiteral("saveAsAction"));
    };
    QApplication::setAttribute(Qt::AA_DontUseNativeDialogs);
    answer(QStringLiteral("spring"), QMessageBox::No);
    CHECK(asked);
    CHECK(storage::load_shoot(taken.toStdString()).value().title == "Test");
    answer(QStringLiteral("summer"), QMessageBox::No);
    CHECK(QFile::exists(folder.filePath(QStringLiteral("summer.poquito"))));
    CHECK_FALSE(person.document().isUnsaved());
}

TEST_CASE("saved and opened files are remembered, the latest first", "[desk][files]") {
    QTemporaryDir folder;
    Person person;
    person.window().openDemo();
    const QString one = folder.filePath(QStringLiteral("one.poquito")),
                  two = folder.filePath(QStringLiteral("two.poquito"));
    REQUIRE(person.window().saveTo(one));
    REQUIRE(person.window().saveTo(two));
    REQUIRE(person.window().openFile(one));
    auto recent = QSettings().value(QStringLiteral("recent")).toStringList();
    REQUIRE(recent.size() >= 2);
    CHECK(recent[0] == one);
    CHECK(recent[1] == two);
    CHECK(person.document().path() == one);
}

TEST_CASE("saving into the file that was opened keeps what a later version wrote", "[desk][files]") {
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("later.poquito"));
    auto shoot = test::plain_shoot();
    shoot.shots[0].unknown = "{\"mood\": \"calm\"}";
    REQUIRE(storage::save_shoot(shoot, path.toStdString()));
    Person person;
    REQUIRE(person.window().openFile(path));
    person.type(QStringLiteral("nameField"), QStringLiteral("Renamed"));
    person.trigger(QStringLiteral("saveAction"));
    QFile file(path);
    REQUIRE(file.open(QIODevice::ReadOnly));
    const auto text = file.readAll();
    CHECK(text.contains("\"mood\": \"calm\""));
    CHECK(text.contains("Renamed"));
}
