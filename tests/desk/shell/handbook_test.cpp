// The handbook inside the application, and what its About says.
#include "support/person.hpp"

#include "desk/reading/page_drawing.hpp"
#include "desk/reading/reading_view.hpp"
#include "desk/reading/word_tips.hpp"
#include "desk/session/shipped_handbook.hpp"
#include "desk/shell/handbook_window.hpp"
#include "desk/shell/station_views.hpp"
#include "desk/toolkit/tabs.hpp"
#include "desk/toolkit/theme.hpp"

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
    // Behind them the pages of each station, and the words.
    for (const auto station : advice::stations)
        wanted << QStringLiteral("%1: what stands behind it").arg(QLatin1String(advice::station_name(station)));
    wanted << QStringLiteral("Words");
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
        REQUIRE(QTest::qWaitFor([&] { return furnished == 1; }, test::patience));
        CHECK(opened == 1);
        CHECK(window.document().count() == 20);
        CHECK(window.findChild<QAction*>(QStringLiteral("saveAction")));
    }
    desk::MainWindow window([&] {
        ++opened;
        return desk::demoShoot();
    });
    CHECK(window.document().count() == 20);  // asked before it was shown
    CHECK(opened == 2);
    CHECK(window.findChild<QListView*>(QStringLiteral("ledger")));
}

namespace {

void open_station(Person& person, int station) {
    person.trigger(
        QStringLiteral("goTo%1").arg(QLatin1String(advice::station_name(advice::stations[std::size_t(station)]))));
}

QString read_text(Person& person) { return person.find<QTextBrowser>(QStringLiteral("readingText"))->toPlainText(); }

QString tip_of(QWidget* widget, QPoint at) {
    QToolTip::hideText();
    QHelpEvent help(QEvent::ToolTip, at, widget->mapToGlobal(at));
    QApplication::sendEvent(widget, &help);
    return QToolTip::text();
}

}  // namespace

TEST_CASE("A page is read beside its station, with the numbers of the shot - keys, mouse, leaves", "[desk][reading]") {
    Person person;
    person.window().openDemo();
    open_station(person, 2);
    auto* offer = person.find<QToolButton>(QStringLiteral("readButton"));
    CHECK(offer->isVisible());
    CHECK(offer->text().contains(QStringLiteral("What counts as sharp")));
    person.click(offer);
    auto* view = person.find<desk::ReadingView>(QStringLiteral("readingView"));
    auto* ledger = person.find<desk::LedgerView>(QStringLiteral("ledger"));
    CHECK(view->isVisible());
    CHECK_FALSE(ledger->isVisible());
    const auto limit = workings::figures(*person.document().assessment());
    const auto found = std::ranges::find(limit, "blur_limit_mm", &workings::Figure::key);
    REQUIRE(found != limit.end());
    CHECK(read_text(person).contains(QString::fromStdString(found->value + " " + found->unit)));
    // Another tab, another page; and what is edited is read.
    person.click(QStringLiteral("planeTab"));
    CHECK(person.find<QLabel>(QStringLiteral("readingTitle"))->text() ==
          QStringLiteral("Turning instead of stopping down"));
    open_station(person, 1);
    CHECK(view->page()->id == "magnification");
    const QString before = read_text(person);
    person.document().editShot({QStringLiteral("Refocus")}, [](shoot::Shot& shot) { shot.rig.focus.value *= 0.8; });
    CHECK(read_text(person) != before);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(read_text(person) == before);
    // A link leads on, Escape back to the numbers.
    Q_EMIT person.find<QTextBrowser>(QStringLiteral("readingText"))
        ->anchorClicked(QUrl(QStringLiteral("working-aperture")));
    CHECK(view->page()->id == "working-aperture");
    view->setFocus();
    QTest::keyClick(view, Qt::Key_Escape);
    CHECK_FALSE(view->isVisible());
    CHECK(ledger->isVisible());
    CHECK(offer->isVisible());
    // F1 opens and closes; at Proof, where there are no numbers, the page has their place.
    open_station(person, 5);
    CHECK_FALSE(ledger->isVisible());
    person.trigger(QStringLiteral("readAction"));
    CHECK(view->isVisible());
    CHECK(view->page()->id == "by-eye");  // no frames yet: that tab is shown
    person.trigger(QStringLiteral("readAction"));
    CHECK_FALSE(view->isVisible());
    CHECK_FALSE(ledger->isVisible());
    // All of it, at this page; elsewhere the chapter of what is shown.
    open_station(person, 2);
    person.trigger(QStringLiteral("readAction"));
    person.click(QStringLiteral("allOfHandbookButton"));
    auto* book = person.find<desk::HandbookWindow>(QStringLiteral("handbook"));
    CHECK(book->chapterShown() == QStringLiteral("Depth: what stands behind it"));
    book->close();
    person.window().goTo(desk::Sheet::day);
    person.click(QStringLiteral("sunTab"));
    person.trigger(QStringLiteral("readAction"));
    CHECK(book->isVisible());
    CHECK(book->chapterShown() == QStringLiteral("The sun"));
    book->close();
}

TEST_CASE("The working of a number leads to its page", "[desk][reading]") {
    Person person;
    person.window().openDemo();
    open_station(person, 1);
    auto* ledger = person.find<desk::LedgerView>(QStringLiteral("ledger"));
    const auto folded = ledger->ledger()->show("working_f_number");
    CHECK(ledger->readRect(folded).isEmpty());
    person.clickRow(ledger, folded);
    const auto number = ledger->ledger()->indexOf("working_f_number");
    CHECK(number.data(desk::LedgerModel::readRole).toString() == QStringLiteral("Read: The stop that really works"));
    const QRect link = ledger->readRect(number);
    REQUIRE(!link.isEmpty());
    QTest::mouseClick(ledger->viewport(), Qt::LeftButton, {}, QPoint(link.left() + 30, link.center().y() - 4));
    auto* view = person.find<desk::ReadingView>(QStringLiteral("readingView"));
    REQUIRE(view->isVisible());
    CHECK(view->page()->id == "working-aperture");
    person.click(QStringLiteral("closeReadingButton"));
    // By keyboard: the number that has the keys.
    ledger->setFocus();
    ledger->setCurrentIndex(ledger->ledger()->show("working_distance_mm"));
    person.trigger(QStringLiteral("readAction"));
    CHECK(view->page()->id == "distance");
}

TEST_CASE("Words are explained where they stand, on hover and by keyboard", "[desk][reading]") {
    Person person;
    person.window().openDemo();
    open_station(person, 2);
    QLabel* label = nullptr;
    for (auto* one : person.window().findChildren<QLabel*>())
        if (one->text() == QStringLiteral("Blur limit") && one->isVisible()) label = one;
    REQUIRE(label);
    CHECK(tip_of(label, label->rect().center()).contains(QStringLiteral("passes for a point")));
    // A number of the list: its formula stays, the word comes below.
    auto* ledger = person.find<desk::LedgerView>(QStringLiteral("ledger"));
    const auto airy = ledger->ledger()->show("airy_diameter_mm");
    ledger->scrollTo(airy);
    const QString tip = tip_of(ledger->viewport(), ledger->visualRect(airy).center());
    CHECK(tip.contains(QStringLiteral("2.44 wavelengths")));
    CHECK(tip.contains(QStringLiteral("Airy =")));
    // With F1 on the day and in the book the same, at what has the keys.
    QToolTip::hideText();
    CHECK(desk::WordTips::explain(label));
    CHECK(QToolTip::text().contains(QStringLiteral("passes for a point")));
    CHECK_FALSE(desk::WordTips::explain(person.find<QLineEdit>(QStringLiteral("titleField"))));
    CHECK_FALSE(desk::WordTips::explain(nullptr));
    // What says nothing of the trade keeps its own tip.
    auto* title = person.find<QLineEdit>(QStringLiteral("titleField"));
    CHECK_FALSE(tip_of(title, title->rect().center()).contains(QStringLiteral("<p")));
    // By keyboard: while one reads, whatever has the keys.
    person.trigger(QStringLiteral("readAction"));
    auto* here = person.find<QLabel>(QStringLiteral("readingHere"));
    auto* limit = person.find<QComboBox>(QStringLiteral("blurRuleChoice"));
    limit->setFocus();
    person.settle();
    CHECK(here->isVisible());
    CHECK(here->text().contains(QStringLiteral("passes for a point")));
    title->setFocus();
    person.settle();
    CHECK_FALSE(here->isVisible());
}

TEST_CASE("Every leaf of every station has a page of its own, and its drawing shows something", "[desk][reading]") {
    Person person;
    person.window().openDemo();
    const auto& book = desk::shippedHandbook();
    for (std::size_t i = 0; i < advice::stations.size(); ++i) {
        open_station(person, static_cast<int>(i));
        auto* views = person.window().findChild<desk::StationViews*>();
        auto* tabs = views->currentWidget()->findChild<desk::Tabs*>();
        REQUIRE(tabs);
        for (auto* tab :
             tabs->findChildren<QToolButton*>(QRegularExpression(QStringLiteral("Tab$")), Qt::FindDirectChildrenOnly)) {
            INFO(tab->objectName().toStdString());
            const auto* page = handbook::page_of_tab(book, advice::stations[i], tab->objectName().toStdString());
            REQUIRE(page);
            CHECK(std::ranges::count(page->leaves, tab->objectName().toStdString()) == 1);
        }
    }
    for (int shot = 0; shot < person.document().count(); ++shot)
        for (const auto& page : book.pages) {
            INFO(page.id << " of shot " << shot);
            QImage image(268, 196, QImage::Format_RGB32);
            image.fill(desk::theme().panel);
            {
                QPainter painter(&image);
                desk::drawPage(painter, QRectF(2, 0, 264, 194), page.drawing, person.document().assessment(shot));
            }
            std::set<QRgb> colours;
            for (int y = 0; y < image.height(); ++y)
                for (int x = 0; x < image.width(); ++x) colours.insert(image.pixel(x, y));
            CHECK((page.drawing == handbook::Drawing::none) == (colours.size() == 1));
        }
}
