// The application's way from process start to its first painted window, with the demo; then it ends.
#include "desk/main_window.hpp"
#include "desk/theme.hpp"

#include <QApplication>
#include <QTimer>

namespace {

class UntilPainted : public QObject {
    bool eventFilter(QObject*, QEvent* event) override {
        if (event->type() == QEvent::Paint) QTimer::singleShot(0, qApp, &QApplication::quit);
        return false;
    }
};

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    poquito::desk::applyTheme(application, poquito::desk::ThemeKind::light);
    poquito::desk::MainWindow window;
    window.openDemo();
    UntilPainted until;
    window.installEventFilter(&until);
    window.show();
    return QApplication::exec();
}
