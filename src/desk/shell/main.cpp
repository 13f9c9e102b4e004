#include "advice/advice.hpp"
#include "desk/drawing/paper_printer.hpp"
#include "desk/session/autosave.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/shell/main_window.hpp"
#include "desk/toolkit/theme.hpp"
#include "storage/shoot_file.hpp"

#include <QApplication>
#include <QCommandLineParser>
#include <QIcon>
#include <QScreen>
#include <QSettings>
#include <QTimer>

#include <cstdio>

namespace {

using namespace poquito;

int complain(const text::Error& error) {
    std::fprintf(stderr, "%s\n", text::message(error).c_str());
    return 1;
}

int write_sheet(const QString& file, const QString& out) {
    auto loaded = storage::load_shoot(file.toStdString());
    if (!loaded) return complain(loaded.error());
    const auto& shoot = *loaded;
    std::vector<advice::Assessment> assessments;
    for (const auto& shot : shoot.shots)
        assessments.push_back(advice::assessment_of(shoot.kit, shot, shoot::terms_of(shoot, shot)));
    if (const auto written = desk::writePaper(shoot, assessments, out); !written) return complain(written.error());
    return 0;
}

}  // namespace

int main(int argc, char** argv) {
    // A sheet needs fonts but no screen, help and version not even those.
    for (int i = 1; i < argc; ++i)
        for (const char* screenless : {"--sheet", "--help", "-h", "--version", "-v"})
            if (qstrcmp(argv[i], screenless) == 0 && qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM"))
                qputenv("QT_QPA_PLATFORM", "offscreen");
    const int size = QSettings(QStringLiteral("poquito"), QStringLiteral("poquito")).value(desk::size_key, 100).toInt();
    if (size > 100 && size <= 300 && qEnvironmentVariableIsEmpty("QT_SCALE_FACTOR"))
        qputenv("QT_SCALE_FACTOR", QByteArray::number(size / 100.0));
    QApplication application(argc, argv);
    QApplication::setOrganizationName(QStringLiteral("poquito"));
    QApplication::setApplicationName(QStringLiteral("poquito"));
    QApplication::setApplicationDisplayName(QStringLiteral("Poquito"));
    QGuiApplication::setDesktopFileName(QStringLiteral("org.poquito.poquito"));
    QApplication::setApplicationVersion(QStringLiteral(POQUITO_VERSION));

    QCommandLineParser parser;
    parser.setApplicationDescription(QStringLiteral("Plans, runs and checks close-up photographs."));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument(QStringLiteral("FILE"), QStringLiteral("A shoot to open (.poquito)."),
                                 QStringLiteral("[FILE]"));
    const QCommandLineOption demo(QStringLiteral("demo"), QStringLiteral("Open the demo shoot."));
    const QCommandLineOption dim(QStringLiteral("dim"), QStringLiteral("Use the dim theme."));
    const QCommandLineOption sheet(
        QStringLiteral("sheet"),
        QStringLiteral("Write the run sheet of FILE as PDF or HTML and end: poquito --sheet OUT.pdf FILE."),
        QStringLiteral("OUT.pdf"));
    parser.addOptions({demo, dim, sheet});
    parser.process(application);

    const auto files = parser.positionalArguments();
    const bool wants_dim = parser.isSet(dim) || QSettings().value(QStringLiteral("dim")).toBool();
    desk::applyTheme(application, wants_dim && !parser.isSet(sheet) ? desk::ThemeKind::dim : desk::ThemeKind::light);
    if (parser.isSet(sheet)) {
        if (files.size() != 1) {
            std::fprintf(stderr, "poquito: --sheet OUT.pdf needs one FILE\n");
            return 2;
        }
        return write_sheet(files.front(), parser.value(sheet));
    }

    QApplication::setWindowIcon(QIcon(QStringLiteral(":/data/poquito.svg")));
    desk::MainWindow window(parser.isSet(demo) ? desk::demoShoot : desk::genericShoot);
    // The file and what a crash left behind are read when the window stands.
    QObject::connect(&window, &desk::MainWindow::furnished, &window, [&] {
        if (parser.isSet(demo)) window.log().showMadeUp();
        if (!files.isEmpty()) window.openFile(files.front());
        window.goToRemembered();
        window.startAutosave(desk::Autosave::defaultFolder());
    });
    const QSize screen = application.primaryScreen()->availableSize();
    window.resize(window.size().boundedTo(screen));
    window.show();
    QTimer::singleShot(50, &window, [&] { window.activateWindow(); });  // without a window manager nobody else would
    return QApplication::exec();
}
