// Time from the key that goes to the next frame until its preview is there, of frames of 24 megapixels: at a pace at
// which one looks at each, and as fast as a held key repeats; while they are still looked at, and after.
#include "desk/proof/frame_view.hpp"
#include "desk/proof/frames_panel.hpp"
#include "desk/session/proof_desk.hpp"
#include "desk/shell/main_window.hpp"
#include "desk/toolkit/theme.hpp"
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
    std::vector<std::string> photographs;
    for (int i = 0; i < frames; ++i) {
        const auto bytes = storage::frame_file(bench::photograph(i, frames),
                                               {.f_number = 5.6, .shutter = 0.01, .iso = 100, .focal_length = 90});
        photographs.push_back(std::get<std::string>(bytes));
    }
    // Each time under other names: nothing is kept of the time before.
    const auto put = [&](const std::string& name) {
        std::vector<std::filesystem::path> files;
        for (std::size_t i = 0; i < photographs.size(); ++i) {
            files.push_back(folder.path() / (name + std::to_string(1000 + i) + ".jpg"));
            (void)storage::replace_file(files.back(), photographs[i]);
        }
        return files;
    };
    desk::MainWindow window;
    window.openDemo();
    window.resize(1280, 800);
    window.show();
    window.goTo(advice::Station::proof);
    const auto shot = window.document().shoot().shots[0].id;
    auto* panel = window.findChild<desk::FramesPanel*>();
    const auto look_at = [&](const std::string& name) {
        auto files = put(name);
        window.proof().lookAt(shot, {.files = files, .planes = {}, .from = {}});
        go_on_for(50);
        return files;
    };
    constexpr int looked_at = 400, held = 120;  // ms from key to key
    measure("one after the other while they are looked at", *panel, look_at("A"), looked_at);
    const auto wait = [&] {
        while (window.proof().isBusy()) go_on_for(20);
    };
    wait();
    auto files = look_at("B");
    wait();
    measure("one after the other", *panel, files, looked_at);
    files = look_at("C");
    wait();
    measure("as fast as a held key", *panel, files, held);
    return 0;
}
