#include "support/pdf.hpp"
#include "support/person.hpp"

#include "desk/day/day_sheet.hpp"
#include "desk/drawing/paper_printer.hpp"

using namespace poquito;
using test::answerNext;
using test::pdfText;
using test::Person;

namespace {

QByteArray bytes(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

}  // namespace

TEST_CASE("the run sheet is exported as PDF and HTML with every shot", "[desk][sheet][long]") {
    QTemporaryDir folder;
    Person person;
    person.window().openDemo();
    person.key(Qt::Key_0);
    auto* page = person.window().findChild<desk::DaySheet*>();
    REQUIRE(page);
    const QString pdf = folder.filePath(QStringLiteral("sheet.pdf")),
                  html = folder.filePath(QStringLiteral("sheet.html"));
    REQUIRE(page->exportPaper(pdf));
    REQUIRE(page->exportPaper(html));
    CHECK(bytes(pdf).startsWith("%PDF-"));
    const QString text = pdfText(pdf);
    REQUIRE_FALSE(text.isEmpty());
    const auto web = QString::fromUtf8(bytes(html));
    for (const auto& shot : person.document().shoot().shots) {
        const auto name = QString::fromStdString(shot.name);
        INFO(shot.name);
        CHECK(text.contains(name));
        CHECK(web.contains(name));
    }
    CHECK(text.contains(QStringLiteral("Exposure compensation")));
    // The day and what to pack first, every page numbered, times as photographers write them.
    CHECK(text.indexOf(QStringLiteral("To pack")) < text.indexOf(QStringLiteral("1. Fossil urchin")));
    const int pages = static_cast<int>(text.count(QLatin1Char('\f')));
    CHECK(pages <= static_cast<int>(person.document().shoot().shots.size()) + 1);
    for (int i = 1; i <= pages; ++i) CHECK(text.contains(QStringLiteral("%1 of %2").arg(i).arg(pages)));
    CHECK(text.contains(QStringLiteral("1/160 s")));
    CHECK_FALSE(text.contains(QStringLiteral("0.006")));
    // On paper each shot has its bench and its frame, and something is drawn in them.
    const auto pictures = test::pdfPictures(pdf, QDir(folder.path()));
    CHECK(pictures.size() == 2 * person.document().shoot().shots.size());
    for (const auto& picture : pictures) {
        REQUIRE(picture.width() > 500);
        int drawn = 0, looked = 0;
        for (int y = 0; y < picture.height(); y += 3)
            for (int x = 0; x < picture.width(); x += 3, ++looked) drawn += qGray(picture.pixel(x, y)) < 245;
        CHECK(drawn > looked / 50);
        CHECK(drawn < looked * 9 / 10);
    }
    // Bench and frame of every shot, inside the one file.
    CHECK(web.count(QStringLiteral("data:image/png;base64,")) ==
          2 * static_cast<int>(person.document().shoot().shots.size()));
    CHECK(web.contains(QStringLiteral("max-width: 640px")));
    CHECK_FALSE(web.contains(QStringLiteral("http")));
    // Cautions stand with what they are about: that of the light after the lights.
    const int saddle = static_cast<int>(web.indexOf(QStringLiteral("6. Ammonite, one saddle")));
    const int lights = static_cast<int>(web.indexOf(QStringLiteral(">Lights<"), saddle));
    const int stop = static_cast<int>(web.indexOf(QStringLiteral("Light A would need"), saddle));
    const int frames = static_cast<int>(web.indexOf(QStringLiteral(">Frames<"), saddle));
    CHECK(lights < stop);
    CHECK(stop < frames);
    QString asked;
    answerNext(QMessageBox::Ok, &asked);
    CHECK_FALSE(page->exportPaper(QStringLiteral("/no/such/folder/sheet.pdf")));
    CHECK(asked.contains(QStringLiteral("not written")));
}

TEST_CASE("help and version need no screen", "[desk]") {
    auto environment = QProcessEnvironment::systemEnvironment();
    for (const char* name : {"QT_QPA_PLATFORM", "DISPLAY", "WAYLAND_DISPLAY"}) environment.remove(QLatin1String(name));
    for (const char* option : {"--help", "--version"}) {
        QProcess program;
        program.setProcessEnvironment(environment);
        program.start(QStringLiteral(POQUITO_DESK), {QLatin1String(option)});
        REQUIRE(program.waitForFinished());
        CHECK(program.exitCode() == 0);
        CHECK(program.readAllStandardOutput().toLower().contains("poquito"));
    }
}

TEST_CASE("the program writes a sheet without a window", "[desk][sheet]") {
    QTemporaryDir folder;
    const QString pdf = folder.filePath(QStringLiteral("a.pdf"));
    CHECK(QProcess::execute(
              QStringLiteral(POQUITO_DESK),
              {QStringLiteral("--sheet"), pdf, QStringLiteral(POQUITO_DATA "/winter-catalogue.poquito")}) == 0);
    CHECK(bytes(pdf).startsWith("%PDF-"));
    const QString web = folder.filePath(QStringLiteral("a.html"));
    CHECK(QProcess::execute(
              QStringLiteral(POQUITO_DESK),
              {QStringLiteral("--sheet"), web, QStringLiteral(POQUITO_DATA "/winter-catalogue.poquito")}) == 0);
    CHECK(bytes(web).startsWith("<!DOCTYPE html>"));
    CHECK(bytes(web).contains("max-width: 640px"));  // a phone's rules
    CHECK(bytes(web).contains("data:image/png"));    // its drawings are in it
    CHECK(QProcess::execute(QStringLiteral(POQUITO_DESK),
                            {QStringLiteral("--sheet"), pdf, QStringLiteral("/no/such/file")}) == 1);
    CHECK(QProcess::execute(QStringLiteral(POQUITO_DESK), {QStringLiteral("--sheet"), pdf}) == 2);
}
