// The application's way from process start to its first painted window, with the demo; there it ends, without clearing
// up.
#include "desk/shell/main_window.hpp"
#include "desk/toolkit/theme.hpp"

#include <QApplication>
#include <QTimer>

#include <cstdlib>

namespace {

class UntilPainted : public QObject {
    bool eventFilter(QObject*, QEvent* event) override {
        if (event->type() == QEvent::Paint) QTimer::singleShot(0, qApp, [] { std::_Exit(0); });
        return false;
    }
};

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    poquito::desk::applyTheme(application, poquito::desk::ThemeKind::light);
    poquito::desk::MainWindow window(poquito::desk::demoShoot);
    UntilPainted until;
    window.installEventFilter(&until);
    window.show();
    return QApplication::exec();
}
