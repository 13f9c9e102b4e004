// Time from the key that goes to the next frame until its preview is there, of frames of 24 megapixels: at a pace at
// which one looks at each, and as fast as a held key repeats; while they are still looked at, and after.
#include "desk/base/theme.hpp"
#include "desk/proof/frame_view.hpp"
#include "desk/proof/frames_panel.hpp"
#include "desk/proof/proof_desk.hpp"
#include "desk/shell/main_window.hpp"
#include "photograph.hpp"
#include "storage/atomic_file.hpp"
#include "support/folder.hpp"

#include <QApplication>
#include <QElapsedTimer>
#include <QKeyEvent>

#include <algorithm>
#include <cstdio>
#include <string>
#include <vector>

using namespace poquito;

namespace {

void go_on_for(qint64 ms) {
    QElapsedTimer timer;
    timer.start();
    while (timer.elapsed() < ms) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
}

void measure(const char* name, desk::FramesPanel& panel, const std::vector<std::filesystem::path>& files, int pause) {
    std::vector<double> times;
    panel.goTo(0);
    go_on_for(pause);
    while (panel.current() + 1 < files.size()) {
        QElapsedTimer timer;
        timer.start();
        QKeyEvent key(QEvent::KeyPress, Qt::Key_Right, Qt::NoModifier);
        panel.take(&key);
        while (panel.pictures().picture(files[panel.current()], desk::FramePictures::Kind::preview).isNull())
            QCoreApplication::processEvents(QEventLoop::AllEvents, 1);
        panel.view()->repaint();
        times.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
        go_on_for(std::max<qint64>(0, pause - timer.elapsed()));
    }
    std::ranges::sort(times);
    constexpr double wanted = 100;  // ms
    std::printf(
        "next frame by a key, %s: median %.0f ms, 9 of 10 within %.0f ms, slowest %.0f ms; 9 of 10 are %.2f of 100 "
        "ms\n",
        name, times[times.size() / 2], times[times.size() * 9 / 10], times.back(),
        times[times.size() * 9 / 10] / wanted);
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    desk::applyTheme(application, desk::ThemeKind::light);
    constexpr int frames = 24;
    const test::Folder folder;
    std::vector<std::filesystem::path> files;
    for (int i = 0; i < frames; ++i) {
        files.push_back(folder.path() / ("F" + std::to_string(1000 + i) + ".jpg"));
        const auto bytes = storage::frame_file(bench::photograph(i, frames),
                                               {.f_number = 5.6, .shutter = 0.01, .iso = 100, .focal_length = 90});
        (void)storage::replace_file(files.back(), std::get<std::string>(bytes));
    }
    desk::MainWindow window;
    window.openDemo();
    window.resize(1280, 800);
    window.show();
    window.goTo(advice::Station::proof);
    const auto& document = window.document();
    window.proof().add(document.shoot().shots[0].id, files);
    go_on_for(50);
    auto* panel = window.findChild<desk::FramesPanel*>();
    constexpr int looked_at = 400, held = 120;  // ms from key to key
    measure("one after the other while they are looked at", *panel, files, looked_at);
    while (window.proof().isBusy()) go_on_for(20);
    panel->pictures().forget();
    measure("one after the other", *panel, files, looked_at);
    panel->pictures().forget();
    measure("as fast as a held key", *panel, files, held);
    return 0;
}
