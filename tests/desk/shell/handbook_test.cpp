// The handbook inside the application, and what its About says.
#include "support/person.hpp"

#include "desk/shell/handbook_window.hpp"

using namespace poquito;
using test::Person;

TEST_CASE("Help opens the handbook - chapters and words are found in it", "[desk][help]") {
    Person person;
    person.trigger(QStringLiteral("handbookAction"));
    auto* book = person.find<desk::HandbookWindow>(QStringLiteral("handbook"));
    CHECK(book->isVisible());
    auto* text = book->findChild<QTextBrowser*>(QStringLiteral("handbookText"));
    auto* chapters = book->findChild<QListView*>(QStringLiteral("handbookChapters"));
    REQUIRE(text);
    REQUIRE(chapters);
    CHECK(text->toPlainText().startsWith(QStringLiteral("Handbook")));
    CHECK(text->verticalScrollBar()->value() == 0);
    // All chapters of the file, in its order, and none with gaps where its lines were broken.
    QFile file(QStringLiteral(POQUITO_DATA "/../docs/handbook.md"));
    REQUIRE(file.open(QIODevice::ReadOnly));
    QStringList wanted;
    for (const auto& line : QString::fromUtf8(file.readAll()).split(QLatin1Char('\n')))
        if (line.startsWith(QStringLiteral("## "))) wanted << line.mid(3);
    REQUIRE(chapters->model()->rowCount() == wanted.size());
    for (int row = 0; row < wanted.size(); ++row)
        CHECK(chapters->model()->index(row, 0).data().toString() == wanted[row]);
    CHECK_FALSE(text->toPlainText().contains(QStringLiteral("   ")));
    // A chapter is gone to.
    const int row = static_cast<int>(wanted.indexOf(QStringLiteral("Running a stack")));
    REQUIRE(row > 0);
    person.clickRow(chapters, chapters->model()->index(row, 0));
    CHECK(book->chapterShown() == QStringLiteral("Running a stack"));
    CHECK(text->cursorForPosition({20, 16}).block().text().contains(QStringLiteral("Running a stack")));
    // A word is looked for from the top, Enter goes on.
    auto* search = book->findChild<QLineEdit*>(QStringLiteral("handbookSearch"));
    search->setFocus();
    QTest::keyClicks(search, QStringLiteral("dioptre"));
    QTest::keyClicks(search, QStringLiteral("zzz"));
    CHECK(book->findChild<QLabel*>(QStringLiteral("handbookFound"))->text() == QStringLiteral("nowhere"));
    search->clear();
    QTest::keyClicks(search, QStringLiteral("journal"));
    const auto first = text->textCursor();
    CHECK(first.selectedText().compare(QStringLiteral("journal"), Qt::CaseInsensitive) == 0);
    QTest::keyClick(search, Qt::Key_Return);
    CHECK(text->textCursor().selectedText().compare(QStringLiteral("journal"), Qt::CaseInsensitive) == 0);
    book->close();
}

TEST_CASE("About names the version of the build", "[desk][help]") {
    Person person;
    QString said;
    QTimer::singleShot(50, [&] {
        if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
            said = box->text();
            box->close();
        }
    });
    person.trigger(QStringLiteral("aboutAction"));
    CHECK(said.contains(QStringLiteral("Poquito " POQUITO_VERSION "<")));
}

TEST_CASE("the window's first picture needs no shoot - everything is there before it is asked for", "[desk][start]") {
    int opened = 0;
    {
        desk::MainWindow window([&] {
            ++opened;
            return desk::demoShoot();
        });
        window.resize(1280, 800);
        CHECK(opened == 0);
        int furnished = 0;
        QObject::connect(&window, &desk::MainWindow::furnished, [&] { ++furnished; });
        window.show();
        REQUIRE(QTest::qWaitFor([&] { return furnished == 1; }, 5000));
        CHECK(opened == 1);
        CHECK(window.document().count() == 19);
        CHECK(window.findChild<QAction*>(QStringLiteral("saveAction")));
    }
    desk::MainWindow window([&] {
        ++opened;
        return desk::demoShoot();
    });
    CHECK(window.document().count() == 19);  // asked before it was shown
    CHECK(opened == 2);
    CHECK(window.findChild<QListView*>(QStringLiteral("ledger")));
}
