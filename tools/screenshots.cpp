// One picture of each main view, made from the demo shoot: poquito-screenshots FOLDER [WIDTHxHEIGHT] [light|dim] [SHOT]
#include "desk/depth/ladder_view.hpp"
#include "desk/drawing/ruler_view.hpp"
#include "desk/finder/finder_view.hpp"
#include "desk/finder/loupe_view.hpp"
#include "desk/kit/measure_dialog.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/set/bench_view.hpp"
#include "desk/shell/ledger_model.hpp"
#include "desk/shell/ledger_view.hpp"
#include "desk/shell/main_window.hpp"
#include "desk/subject/proposals_view.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "desk/toolkit/theme.hpp"

#include <QAction>
#include <QApplication>
#include <QDir>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QRegularExpression>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>
#include <QToolButton>

#include <cmath>
#include <map>

using namespace poquito;

namespace {

void settle() {
    QEventLoop loop;
    QTimer::singleShot(200, &loop, &QEventLoop::quit);
    loop.exec();
}

/// Until the pictures that are rendered away from the interface thread are there.
void waitForPictures(const desk::MainWindow& window) {
    for (int i = 0; i < 100; ++i) {
        settle();
        const auto* finder = window.findChild<desk::FinderView*>();
        const auto* loupe = window.findChild<desk::LoupeView*>();
        const auto* ladder = window.findChild<desk::LadderView*>();
        const auto* plans = window.findChild<desk::ProposalsView*>();
        if (plans && !plans->isSettled()) continue;
        if ((!finder || finder->isSettled()) && (!loupe || loupe->isSettled()) && (!ladder || ladder->isSettled()))
            return;
    }
}

/// Which shot shows a station at its best, by its place in the demo.
const std::map<advice::Station, int> best_shot = {{advice::Station::subject, 0}, {advice::Station::reach, 5},
                                                  {advice::Station::depth, 1},   {advice::Station::light, 0},
                                                  {advice::Station::run, 4},     {advice::Station::proof, 1}};

void log_something(desk::Document& document) {
    document.editShot({QStringLiteral("note")}, [](shoot::Shot& shot) {
        shot.proof = {{.time = "2026-11-20T10:42:00",
                       .frames = 20,
                       .correction = -1.0 / 3,
                       .verdict = shoot::Verdict::redo,
                       .remark = "highlight on the rim clipped"},
                      {.time = "2026-11-20T11:05:00",
                       .frames = 20,
                       .correction = 0,
                       .verdict = shoot::Verdict::keep,
                       .remark = "sharp at both ends"}};
    });
}

/// A stack with a frame that the flash missed and a subject that slipped, as Proof shows it.
void grab_proof(desk::MainWindow& window, const QString& folder) {
    QTemporaryDir frames;
    window.runs().setFolder(QDir(frames.path()));
    auto settings = window.runs().settings();
    settings.speed = 1000;
    settings.pictureWidth = 960;
    settings.rehearsed = desk::Rehearsed{.watched = false};
    for (const char* mishap : {"flash-not-ready@6", "subject-moves@12:0.5", "flash-not-ready@20"})
        settings.rehearsed->exactly.push_back(*devices::parse_mishap(mishap));
    window.runs().setSettings(settings);
    const auto run = [&](int shot) {
        window.document().select(shot);
        window.runs().start({window.document().shot()->id}, false);
        while (window.runs().isRunning() || window.proof().isBusy()) settle();
    };
    run(1);
    window.goTo(advice::Station::proof);
    for (int i = 0; i < 10; ++i) settle();
    window.grab().save(folder + QStringLiteral("/6-proof.png"));
    // A card with three stacks on it, one of them short of a few frames.
    run(0);
    run(6);
    QDir card(frames.path());
    card.mkdir(QStringLiteral("card"));
    QStringList paths;
    for (const auto& entry : QDir(frames.path()).entryInfoList(QDir::Dirs | QDir::NoDotAndDotDot))
        for (const auto& file : QDir(entry.filePath()).entryInfoList({QStringLiteral("*.jpg")}))
            if (!file.fileName().contains(QRegularExpression(QStringLiteral("urchin-1-001[0-3]"))))
                paths << file.filePath();
    window.proof().takeIn(desk::ProofController::framesIn(paths), QStringLiteral("card"));
    while (window.proof().isBusy()) settle();
    for (int i = 0; i < 10; ++i) settle();
    window.grab().save(folder + QStringLiteral("/6-sorting.png"));
}

/// The seventh frame of a run on the simulated bench, many times as fast as the clock goes.
void grab_run(desk::MainWindow& window, const QString& file) {
    QTemporaryDir frames;
    window.runs().setFolder(QDir(frames.path()));
    auto settings = window.runs().settings();
    settings.speed = 25;
    window.runs().setSettings(settings);
    window.findChild<QToolButton*>(QStringLiteral("checklistTab"))->click();
    window.findChild<QPushButton*>(QStringLiteral("startRunButton"))->click();
    for (int i = 0; i < 2000; ++i) {
        QEventLoop loop;
        QTimer::singleShot(5, &loop, &QEventLoop::quit);
        loop.exec();
        const auto status = window.runs().status();
        if (status && status->frame >= 7 && status->phase == run::Phase::settling) break;
    }
    window.grab().save(file);
    window.runs().stop();
    while (window.runs().isRunning()) settle();
    window.findChild<QPushButton*>(QStringLiteral("leaveRunButton"))->click();
}

/// A made-up photograph of a rule, half a millimetre wide ticks every millimetre, held a little askew.
QImage photographed_rule() {
    QImage picture(1500, 1000, QImage::Format_RGB32);
    picture.fill(QColor(205, 200, 188));
    QPainter painter(&picture);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.translate(60, 240);
    painter.rotate(3);
    painter.fillRect(QRectF(-200, 0, 2000, 460), QColor(236, 228, 200));
    constexpr double pixels_per_mm = 39.6;  // 0.62x on 23.5 mm
    QFont font = desk::textFont(44);
    painter.setFont(font);
    for (int mm = 0; mm < 36; ++mm) {
        const double x = mm * pixels_per_mm, height = mm % 10 == 0 ? 190 : mm % 5 == 0 ? 150 : 110;
        painter.fillRect(QRectF(x - 2.4, 0, 4.8, height), QColor(40, 40, 44));
        if (mm % 10 == 0) painter.drawText(QRectF(x - 60, 200, 120, 60), Qt::AlignCenter, QString::number(mm / 10));
    }
    return picture;
}

void mark_rule(desk::MeasureDialog& measure) {
    measure.showPicture(photographed_rule(), QStringLiteral("rule.jpg"));
    settle();
    auto* view = measure.findChild<desk::RulerView*>();
    for (const double mm : {2.0, 32.0}) {
        const double angle = 3 * 3.14159265 / 180, x = mm * 39.6, y = 60;
        const auto at = view->toView(
            {60 + x * std::cos(angle) - y * std::sin(angle), 240 + x * std::sin(angle) + y * std::cos(angle)});
        QMouseEvent press(QEvent::MouseButtonPress, at, view->mapToGlobal(at), Qt::LeftButton, Qt::LeftButton, {});
        QApplication::sendEvent(view, &press);
    }
    measure.findChild<desk::QuantityField*>(QStringLiteral("ruleDistanceField"))->setValue(30);
    Q_EMIT view->marksChanged();
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QTemporaryDir settings;
    QStandardPaths::setTestModeEnabled(true);  // not the bag of whoever runs this
    QSettings::setDefaultFormat(QSettings::IniFormat);
    QSettings::setPath(QSettings::IniFormat, QSettings::UserScope, settings.path());
    const auto arguments = QApplication::arguments();
    if (arguments.size() < 2)
        return qCritical("usage: poquito-screenshots FOLDER [WIDTHxHEIGHT] [light|dim] [SHOT]"), 2;
    const QDir folder(arguments.at(1));
    folder.mkpath(QStringLiteral("."));
    const auto size = arguments.value(2, QStringLiteral("1280x800")).split(QLatin1Char('x'));
    const bool dim = arguments.value(3) == QStringLiteral("dim");
    desk::applyTheme(application, dim ? desk::ThemeKind::dim : desk::ThemeKind::light);

    desk::MainWindow window;
    window.resize(size.value(0).toInt(), size.value(1).toInt());
    window.openDemo();
    window.show();
    const QString suffix =
        (dim ? QStringLiteral("-dim") : QString()) +
        (arguments.value(2, QStringLiteral("1280x800")) == QStringLiteral("1280x800") ? QString()
                                                                                      : QStringLiteral("-small"));
    int number = 0;
    for (const auto station : advice::stations) {
        ++number;
        window.document().select(arguments.size() > 4 ? arguments.at(4).toInt() : best_shot.at(station));
        if (station == advice::Station::proof) log_something(window.document());
        window.goTo(station);
        auto* ledger = window.findChild<desk::LedgerView*>();
        if (station == advice::Station::reach) {
            ledger->ledger()->toggle(ledger->ledger()->show("working_f_number"));
            ledger->scrollToTop();
        }
        auto* bench = window.findChild<desk::BenchView*>();
        bench->setElevation(station == advice::Station::light ? desk::Elevation::top : desk::Elevation::side);
        waitForPictures(window);
        window.grab().save(
            folder.filePath(QStringLiteral("%1-%2%3.png")
                                .arg(number)
                                .arg(QString::fromLatin1(advice::station_name(station)).toLower(), suffix)));
        if (station == advice::Station::reach) ledger->ledger()->toggle(ledger->ledger()->indexOf("working_f_number"));
    }
    window.openDemo();
    window.document().select(arguments.size() > 4 ? arguments.at(4).toInt() : 9);
    window.goTo(advice::Station::depth);
    auto* finder = window.findChild<desk::FinderView*>();
    finder->setLoupe({.x = -2.5, .y = 1.5});
    for (const auto& [tab, file] : {std::pair("ladderTab", "3-ladder"), std::pair("backgroundTab", "3-background"),
                                    std::pair("planeTab", "3-plane")}) {
        window.findChild<QToolButton*>(QLatin1String(tab))->click();
        if (QLatin1String(tab) == QLatin1String("planeTab"))
            window.findChild<QPushButton*>(QStringLiteral("leastDepthButton"))->click();
        waitForPictures(window);
        window.grab().save(folder.filePath(QLatin1String(file) + suffix + QStringLiteral(".png")));
    }
    struct Tab {
        const char* tab;
        int shot;  // by its place in the demo
        const char* file;
    };
    window.goTo(advice::Station::subject);
    for (const auto& [tab, shot, file] :
         {Tab{"mattersTab", 9, "1-matters"}, Tab{"plansTab", 9, "1-plans"}, Tab{"stagingTab", 6, "1-table"}}) {
        window.document().select(arguments.size() > 4 ? arguments.at(4).toInt() : shot);
        window.findChild<QToolButton*>(QLatin1String(tab))->click();
        settle();
        waitForPictures(window);
        window.grab().save(folder.filePath(QLatin1String(file) + suffix + QStringLiteral(".png")));
    }
    window.findChild<QToolButton*>(QStringLiteral("subjectTab"))->click();
    window.goTo(advice::Station::reach);
    window.document().select(6);  // on a table, from above
    window.findChild<QToolButton*>(QStringLiteral("standTab"))->click();
    window.findChild<QAbstractButton*>(QStringLiteral("readButton"))->click();  // a page beside it
    settle();
    window.grab().save(folder.filePath(QStringLiteral("2-stand%1.png").arg(suffix)));
    window.findChild<QAbstractButton*>(QStringLiteral("closeReadingButton"))->click();
    window.findChild<QToolButton*>(QStringLiteral("trainTab"))->click();
    window.goTo(advice::Station::light);
    for (const auto& [tab, shot, file] :
         {Tab{"lightsTab", 7, "4-lights"}, Tab{"daylightTab", 15, "4-daylight"}, Tab{"freezeTab", 7, "4-freeze"},
          Tab{"shineTab", 1, "4-shine"}, Tab{"backdropTab", 17, "4-background"},
          Tab{"testFrameTab", 1, "4-test-frame"}}) {
        window.document().select(arguments.size() > 4 ? arguments.at(4).toInt() : shot);
        window.findChild<QToolButton*>(QLatin1String(tab))->click();
        settle();
        window.grab().save(folder.filePath(QLatin1String(file) + suffix + QStringLiteral(".png")));
    }
    window.goTo(advice::Station::run);
    for (const auto& [tab, shot, file] : {Tab{"stackTab", 1, "5-stack"}, Tab{"chanceTab", 7, "5-chance"},
                                          Tab{"costTab", 1, "5-cost"}, Tab{"stepsTab", 0, "5-steps"}}) {
        window.document().select(arguments.size() > 4 ? arguments.at(4).toInt() : shot);
        window.findChild<QToolButton*>(QLatin1String(tab))->click();
        // With the way of what is thrown above its odds.
        const bool chance = QLatin1String(tab) == QLatin1String("chanceTab");
        if (chance) window.findChild<QToolButton*>(QStringLiteral("trainButton"))->click();
        for (int i = 0; i < 20; ++i) settle();
        waitForPictures(window);
        window.grab().save(folder.filePath(QLatin1String(file) + suffix + QStringLiteral(".png")));
        if (chance)
            window.findChild<QWidget*>(QStringLiteral("finderPanel"))
                ->findChild<QToolButton*>(QStringLiteral("benchButton"))
                ->click();
    }
    window.document().select(1);
    grab_run(window, folder.filePath(QStringLiteral("5-running") + suffix + QStringLiteral(".png")));
    if (suffix.isEmpty()) grab_proof(window, folder.path());
    window.document().select(1);
    window.goTo(advice::Station::reach);
    const auto grab_window = [&](const char* action, const char* name, const QString& file) {
        window.findChild<QAction*>(QLatin1String(action))->trigger();
        settle();
        auto* found = window.findChild<QWidget*>(QLatin1String(name));
        found->grab().save(folder.filePath(file + suffix + QStringLiteral(".png")));
        found->close();
    };
    grab_window("handbookAction", "handbook", QStringLiteral("0-handbook"));
    grab_window("findSetupAction", "reachFinder", QStringLiteral("7-find"));
    window.findChild<QAction*>(QStringLiteral("measureAction"))->trigger();
    mark_rule(*window.findChild<desk::MeasureDialog*>());
    grab_window("measureAction", "measureDesk", QStringLiteral("9-measure"));
    for (const auto& [sheet, file] : {std::pair(desk::Sheet::day, "0-day"), std::pair(desk::Sheet::book, "8-kit")}) {
        window.goTo(sheet);
        for (int i = 0; i < 20; ++i) settle();
        window.grab().save(folder.filePath(QLatin1String(file) + suffix + QStringLiteral(".png")));
    }
    window.goTo(desk::Sheet::book);
    for (const auto& [tab, file] :
         {std::pair("logTab", "8-log"), std::pair("lessonsTab", "8-lessons"), std::pair("protocolsTab", "8-series"),
          std::pair("reviewTab", "8-review"), std::pair("practiceTab", "8-practice"), std::pair("kitTab", "8-gear")}) {
        window.findChild<QAbstractButton*>(QLatin1String(tab))->click();
        for (int i = 0; i < 400 && (i < 20 || window.logWriter().isBusy()); ++i) settle();
        if (QLatin1String(file) == QLatin1String("8-gear")) break;
        window.grab().save(folder.filePath(QLatin1String(file) + suffix + QStringLiteral(".png")));
    }
    window.goTo(desk::Sheet::day);
    window.document().select(9);  // out of doors
    window.findChild<QToolButton*>(QStringLiteral("sunTab"))->click();
    for (int i = 0; i < 10; ++i) settle();
    window.grab().save(folder.filePath(QStringLiteral("0-sun%1.png").arg(suffix)));
    window.document().select(10);  // a view
    for (const auto& [tab, file] :
         {std::pair("setsTab", "0-sets"), std::pair("packingTab", "0-packing"), std::pair("outletsTab", "0-outlets")}) {
        window.findChild<QToolButton*>(QLatin1String(tab))->click();
        for (const char* way : {"frameForOutletButton", "chooseAllButton"})
            if (QLatin1String(tab) == QLatin1String("outletsTab"))
                window.findChild<QPushButton*>(QLatin1String(way))->click();
        for (int i = 0; i < 15; ++i) settle();
        window.grab().save(folder.filePath(QLatin1String(file) + suffix + QStringLiteral(".png")));
    }
    window.newShoot();
    settle();
    window.grab().save(folder.filePath(QStringLiteral("0-empty%1.png").arg(suffix)));
    return 0;
}
