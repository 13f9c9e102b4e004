// The window answers: whatever is done to it, no event holds it up for much longer than making the window takes.
#include "support/person.hpp"

#include "support/random.hpp"
#include "support/watched_application.hpp"

using namespace poquito;
using test::Person;

namespace {

test::WatchedApplication& watched() { return *static_cast<test::WatchedApplication*>(qApp); }

/// What making the first window of this program costs here is what all else is measured by: a ratio, whatever the
/// machine.
double makingAWindow() {
    static const double made = [] {
        (void)watched().takeLongest();
        Person person;
        person.window().openDemo();
        person.settle();
        return watched().takeLongest().seconds;
    }();
    return made;
}

/// Everything once: all stations, sheets and leaves are made.
void visitAll(Person& person) {
    for (int station = 1; station <= 6; ++station) {
        person.goTo(station);
        for (auto* tab : person.window().findChildren<QToolButton*>())
            if (tab->objectName().endsWith(QLatin1String("Tab")) && tab->isVisible() && tab->isEnabled())
                person.click(tab);
    }
    for (const auto sheet : {desk::Sheet::day, desk::Sheet::book}) {
        person.window().goTo(sheet);
        for (auto* tab : person.window().findChildren<QToolButton*>())
            if (tab->objectName().endsWith(QLatin1String("Tab")) && tab->isVisible() && tab->isEnabled())
                person.click(tab);
    }
    person.window().goTo(desk::Sheet::shot);
}

}  // namespace

TEST_CASE("dimming a window in which all was visited holds it up for a moment only", "[desk][answers]") {
    const double making = makingAWindow();
    Person person;
    person.window().openDemo();
    visitAll(person);
    (void)watched().takeLongest();
    for (int i = 0; i < 2; ++i) {
        QTest::keyClick(&person.window(), Qt::Key_T, Qt::ControlModifier);
        for (int turn = 0; turn < 200; ++turn) QCoreApplication::processEvents();
        const auto held = watched().takeLongest();
        INFO("making " << making << " s; " << held.seconds << " s by " << held.by);
        CHECK(held.seconds < 3 * making);
    }
}

TEST_CASE("keys and clicks at random are all answered", "[desk][answers]") {
    const double making = makingAWindow();
    Person person;
    person.window().openDemo();
    test::Random random(20);
    (void)watched().takeLongest();
    // Questions are waved off, dialogs too: what is asked is another test's.
    QTimer waving;
    QObject::connect(&waving, &QTimer::timeout, [] {
        if (auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget())) dialog->reject();
        if (auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget())) menu->close();
    });
    waving.start(1);
    constexpr Qt::Key keys[] = {Qt::Key_1,        Qt::Key_2,    Qt::Key_3,      Qt::Key_4,      Qt::Key_5,
                                Qt::Key_6,        Qt::Key_0,    Qt::Key_B,      Qt::Key_Tab,    Qt::Key_Up,
                                Qt::Key_Down,     Qt::Key_Left, Qt::Key_Right,  Qt::Key_Return, Qt::Key_Space,
                                Qt::Key_PageDown, Qt::Key_F1,   Qt::Key_Escape, Qt::Key_Delete, Qt::Key_9};
    const int inputs =
        qEnvironmentVariableIntValue("POQUITO_INPUTS") > 0 ? qEnvironmentVariableIntValue("POQUITO_INPUTS") : 250;
    for (int i = 0; i < inputs; ++i) {
        const auto widgets = person.window().findChildren<QWidget*>();
        auto* widget = widgets[random.whole(0, static_cast<int>(widgets.size()) - 1)];
        QString what;
        if (random.whole(0, 2) == 0 || !widget->isVisible() || !widget->isEnabled()) {
            const auto key = keys[random.whole(0, static_cast<int>(std::size(keys)) - 1)];
            auto* focus = QApplication::focusWidget();
            what = QStringLiteral("key %1").arg(key, 0, 16);
            QTest::keyClick(focus ? focus : &person.window(), key);
        } else {
            const QPoint at(random.whole(0, std::max(0, widget->width() - 1)),
                            random.whole(0, std::max(0, widget->height() - 1)));
            what = QStringLiteral("click on %1 %2")
                       .arg(QLatin1String(widget->metaObject()->className()), widget->objectName());
            QTest::mouseClick(widget, Qt::LeftButton, {}, at);
        }
        QCoreApplication::processEvents();
        const auto held = watched().takeLongest();
        INFO("input " << i << ", " << what.toStdString() << ": " << held.seconds << " s by " << held.by << "; making "
                      << making << " s");
        CHECK(held.seconds < 4 * making);
    }
}
