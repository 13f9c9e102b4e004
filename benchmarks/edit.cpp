// Time from an edit to all views painted, for a shoot of 50 shots: one shot changed, and the kit changed (all shots are
// evaluated anew). Run on the station that draws most.
#include "desk/shell/main_window.hpp"
#include "desk/toolkit/theme.hpp"

#include <QApplication>
#include <QElapsedTimer>
#include <QToolButton>

#include <unistd.h>

#include <algorithm>
#include <cstdio>
#include <fstream>
#include <vector>

using namespace poquito;

namespace {

shoot::Shoot fifty(const shoot::Shoot& demo) {
    shoot::Shoot shoot = demo;
    while (shoot.shots.size() < 50) {
        auto shot = demo.shots[shoot.shots.size() % demo.shots.size()];
        shot.id += std::to_string(shoot.shots.size());
        shoot.shots.push_back(std::move(shot));
    }
    return shoot;
}

template <typename Edit>
void measure(const char* name, desk::MainWindow& window, Edit edit) {
    std::vector<double> times;
    for (int i = 0; i < 200; ++i) {
        QElapsedTimer timer;
        timer.start();
        edit(i);
        QCoreApplication::processEvents(QEventLoop::ExcludeUserInputEvents);
        times.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    std::ranges::sort(times);
    std::printf("%s: median %.1f ms, 95th of 100 %.1f ms, slowest %.1f ms; median is %.2f of a 16 ms frame\n", name,
                times[100], times[190], times.back(), times[100] / 16);
    (void)window;
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    desk::applyTheme(application, desk::ThemeKind::light);
    desk::MainWindow window;
    window.openDemo();
    window.document().open(fifty(window.document().shoot()), {});
    window.show();
    QCoreApplication::processEvents();
    for (const auto station : advice::stations) {
        window.goTo(station);
        QCoreApplication::processEvents();
        const auto name = std::string("edit of one shot, ") + advice::station_name(station);
        measure(name.c_str(), window, [&](int i) {
            window.document().editShot({QStringLiteral("edit")},
                                       [&](shoot::Shot& shot) { shot.exposure.f_number = 4 + i % 20; });
        });
    }
    window.goTo(advice::Station::light);
    for (const char* tab : {"exposureTab", "lightsTab", "backdropTab", "freezeTab", "shineTab", "testFrameTab"})
        for (const int shot : {1, 7, 10}) {  // polished; falling; before a lit card
            window.document().select(shot);
            window.findChild<QToolButton*>(QLatin1String(tab))->click();
            QCoreApplication::processEvents();
            measure(("a lamp dragged, " + std::string(tab) + ", " + window.document().shot()->name).c_str(), window,
                    [&](int i) {
                        window.document().editShot(
                            {QStringLiteral("drag"), QStringLiteral("bench")},
                            [&](shoot::Shot& one) { one.lights[0].position.distance = 150 + i; });
                    });
        }
    window.goTo(advice::Station::run);
    for (const char* tab : {"checklistTab", "stackTab", "chanceTab", "costTab", "stepsTab", "sheetTab"})
        for (const int shot : {0, 1, 4}) {  // by ring and bracket; by rail; by rail, more than a hundred frames
            window.document().select(shot);
            window.findChild<QToolButton*>(QLatin1String(tab))->click();
            QCoreApplication::processEvents();
            measure(("a slice dragged, " + std::string(tab) + ", " + window.document().shot()->name).c_str(), window,
                    [&](int i) {
                        const double depth = window.document().report()->extent.depth;
                        window.document().editShot(
                            {QStringLiteral("drag"), QStringLiteral("slice")}, [&](shoot::Shot& one) {
                                one.capture.slice = shoot::Slice{.from = 0, .to = depth * (0.5 + 0.002 * i)};
                            });
                    });
        }
    window.findChild<QToolButton*>(QStringLiteral("chanceTab"))->click();
    for (const int shot : {7, 9, 18}) {  // thrown; in the wind; by hand: all ways out are tried with each edit
        window.document().select(shot);
        QCoreApplication::processEvents();
        measure(("an edit of what is left to chance, " + window.document().shot()->name).c_str(), window, [&](int i) {
            window.document().editShot({QStringLiteral("edit")}, [&](shoot::Shot& one) {
                one.subject.sway_amplitude = 1 + 0.01 * i;
                if (one.freeze) one.freeze->scatter = 3 + 0.01 * i;
            });
        });
    }
    window.goTo(desk::Sheet::day);
    for (const char* tab : {"hoursTab", "setsTab", "outletsTab", "packingTab"}) {
        window.document().select(10);  // a view
        window.findChild<QToolButton*>(QLatin1String(tab))->click();
        QCoreApplication::processEvents();
        measure(("an edit on the day, " + std::string(tab)).c_str(), window, [&](int i) {
            window.document().editShot({QStringLiteral("edit")},
                                       [&](shoot::Shot& shot) { shot.exposure.f_number = 4 + i % 20; });
        });
    }
    window.document().select(0);
    window.goTo(advice::Station::depth);
    measure("an edit until its remedies are found beside it", window, [&](int i) {
        window.document().editShot({QStringLiteral("edit")},
                                   [&](shoot::Shot& shot) { shot.exposure.f_number = 4 + i % 20; });
        while (!window.document().isAnswered()) QCoreApplication::processEvents(QEventLoop::ExcludeUserInputEvents);
    });
    measure("edit of the kit, all 50 shots", window, [&](int i) {
        window.document().edit({QStringLiteral("edit")},
                               [&](shoot::Shoot& shoot) { shoot.kit.cameras[0].frame_mb = 30 + i; });
    });

    // A long day: fifty shots, one of them with a run of ten thousand frames in its log, a thousand edits to take back.
    desk::Document document;
    auto day = fifty(desk::demoShoot());
    day.runs[day.shots[0].id] = {shoot::RunRecord{.id = "long", .frames = std::vector<shoot::ExposedFrame>(10000)}};
    document.open(std::move(day), {});
    const auto memory = [] {
        std::ifstream file("/proc/self/statm");
        double whole = 0, resident = 0;
        file >> whole >> resident;
        return resident * static_cast<double>(sysconf(_SC_PAGESIZE)) / 1e6;
    };
    const double before = memory();
    constexpr int edits = 1000;
    for (int i = 0; i < edits; ++i)
        document.editShot({QStringLiteral("edit")}, [&](shoot::Shot& shot) { shot.exposure.iso = 100 + i; });
    std::printf("%d edits in the history of fifty shots: %.1f MB, %.1f kB each\n", edits, memory() - before,
                (memory() - before) * 1e3 / edits);
}
