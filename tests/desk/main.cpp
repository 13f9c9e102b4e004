#include "desk/base/theme.hpp"
#include "support/runner.hpp"

#include <QApplication>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>

/// The real application object, with settings and data in a folder of the test's own.
int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    QApplication::setOrganizationName(QStringLiteral("poquito-test"));
    QApplication::setApplicationName(QStringLiteral("poquito-test"));
    QStandardPaths::setTestModeEnabled(true);
    QTemporaryDir settings;
    QSettings::setDefaultFormat(QSettings::IniFormat);
    QSettings::setPath(QSettings::IniFormat, QSettings::UserScope, settings.path());
    poquito::desk::applyTheme(application, poquito::desk::ThemeKind::light);
    return poquito::test::run_tests(argc, argv);
}
