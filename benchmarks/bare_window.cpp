// What first_window.cpp is compared with: an empty Qt window of the same size, up to its first paint.
#include <QApplication>
#include <QTimer>
#include <QWidget>

#include <cstdlib>

namespace {

class Bare : public QWidget {
    void paintEvent(QPaintEvent*) override {
        QTimer::singleShot(0, qApp, [] { std::_Exit(0); });
    }
};

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    Bare window;
    window.resize(1280, 800);
    window.show();
    return QApplication::exec();
}
