// One picture of each main view, made from the demo shoot: poquito-screenshots FOLDER [WIDTHxHEIGHT] [light|dim] [SHOT]
#include "desk/bench_view.hpp"
#include "desk/ledger_model.hpp"
#include "desk/ledger_view.hpp"
#include "desk/main_window.hpp"
#include "desk/theme.hpp"

#include <QApplication>
#include <QDir>
#include <QSettings>
#include <QTemporaryDir>
#include <QTimer>

#include <map>

using namespace poquito;

namespace {

void settle() {
    QEventLoop loop;
    QTimer::singleShot(200, &loop, &QEventLoop::quit);
    loop.exec();
}

/// Which shot shows a station at its best, by its place in the demo.
const std::map<shoot::Station, int> best_shot = {{shoot::Station::subject, 0}, {shoot::Station::reach, 9},
                                                 {shoot::Station::depth, 1},   {shoot::Station::light, 4},
                                                 {shoot::Station::run, 2},     {shoot::Station::proof, 1}};

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

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QTemporaryDir settings;
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
    for (const auto station : shoot::stations) {
        ++number;
        window.document().select(arguments.size() > 4 ? arguments.at(4).toInt() : best_shot.at(station));
        if (station == shoot::Station::proof) log_something(window.document());
        window.goTo(station);
        auto* ledger = window.findChild<desk::LedgerView*>();
        auto* model = static_cast<desk::LedgerModel*>(ledger->model());
        if (station == shoot::Station::reach) Q_EMIT ledger->clicked(model->indexOf("working_f_number"));
        auto* bench = window.findChild<desk::BenchView*>();
        bench->setElevation(station == shoot::Station::light ? desk::Elevation::top : desk::Elevation::side);
        settle();
        window.grab().save(
            folder.filePath(QStringLiteral("%1-%2%3.png")
                                .arg(number)
                                .arg(QString::fromLatin1(shoot::station_name(station)).toLower(), suffix)));
        if (station == shoot::Station::reach) model->toggle(model->indexOf("working_f_number"));
    }
    window.newShoot();
    settle();
    window.grab().save(folder.filePath(QStringLiteral("0-empty%1.png").arg(suffix)));
    return 0;
}
