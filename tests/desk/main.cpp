#include "desk/toolkit/theme.hpp"
#include "support/runner.hpp"
#include "support/watched_application.hpp"

#include <QApplication>
#include <QFile>
#include <QSettings>
#include <QTemporaryDir>

/// The real application object, with settings and data in a folder of this process's own: cases run side by side.
int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QTemporaryDir own;
    for (const char* kind : {"XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME"})
        qputenv(kind, QFile::encodeName(own.filePath(QLatin1String(kind))));
    poquito::test::WatchedApplication application(argc, argv);
    QApplication::setOrganizationName(QStringLiteral("poquito-test"));
    QApplication::setApplicationName(QStringLiteral("poquito-test"));
    QSettings::setDefaultFormat(QSettings::IniFormat);
    QSettings::setPath(QSettings::IniFormat, QSettings::UserScope, own.path());
    poquito::desk::applyTheme(application, poquito::desk::ThemeKind::light);
    return poquito::test::run_tests(argc, argv);
}
