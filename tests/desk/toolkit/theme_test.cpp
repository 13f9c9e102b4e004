#include "support/lettering.hpp"
#include "support/person.hpp"

#include "desk/session/log_controller.hpp"
#include "desk/session/log_writer.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QAbstractItemView>
#include <QPointer>

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>
#include <string>
#include <vector>

using namespace poquito;
using test::Person;

namespace {

/// WCAG 2.1: relative luminance and contrast ratio.
double luminance(const QColor& colour) {
    const auto linear = [](double c) { return c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4); };
    return 0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF()) + 0.0722 * linear(colour.blueF());
}
double contrast(const QColor& a, const QColor& b) {
    const double la = luminance(a), lb = luminance(b);
    return (std::max(la, lb) + 0.05) / (std::min(la, lb) + 0.05);
}

}  // namespace

TEST_CASE("all lettering has a contrast of 4.5 or more in both themes", "[desk][theme]") {
    for (const auto kind : {desk::ThemeKind::dim, desk::ThemeKind::light}) {
        desk::applyTheme(*qApp, kind);
        const auto& t = desk::theme();
        for (const auto& ground : {t.paper, t.panel})
            for (const auto& lettering : {t.ink, t.quiet, t.focus, t.lightText, t.caution, t.stop, t.link}) {
                INFO(lettering.name().toStdString() << " on " << ground.name().toStdString());
                CHECK(contrast(lettering, ground) >= 4.5);
            }
        for (const auto& wash : {t.focusWash, t.cautionWash, t.stopWash, t.linkWash}) {
            INFO("ink on " << wash.name().toStdString());
            CHECK(contrast(t.ink, wash) >= 4.5);
            CHECK(contrast(t.link, wash) >= 4.5);  // remedies stand on washes
        }
        CHECK(contrast(t.footText, t.foot) >= 4.5);
    }
}

TEST_CASE("lettering and icons ship with the program", "[desk][theme]") {
    for (const auto weight : {QFont::Normal, QFont::Medium, QFont::DemiBold}) {
        const QFontInfo info(desk::textFont(12, weight));
        CHECK(info.family() == QStringLiteral("Poquito Sans"));
        CHECK(info.weight() == weight);
        // Tabular figures: every digit as wide as the others.
        const QFontMetricsF metrics(desk::textFont(12, weight));
        for (const QChar digit : QStringLiteral("0123456789"))
            CHECK(std::abs(metrics.horizontalAdvance(digit) - metrics.horizontalAdvance(QLatin1Char('0'))) <
                  0.05);  // hinting
        for (const QChar sign : QStringLiteral("\u2212\u00d7\u00b0\u00b5\u00b2\u03bb\u03c0\u221e\u2026\u00b7\u00b1"))
            CHECK(QFontMetrics(desk::textFont(12, weight)).inFont(sign));
    }
    for (const char* icon : {"poquito", "check", "chevron", "dot"}) {
        INFO(icon);
        CHECK_FALSE(QIcon(QStringLiteral(":/data/%1.svg").arg(QLatin1String(icon))).pixmap(16, 16).isNull());
    }
}

TEST_CASE("the theme is turned by a key and remembered", "[desk][theme]") {
    Person person;
    person.window().openDemo();
    const auto paper = desk::theme().paper;
    person.trigger(QStringLiteral("themeAction"));
    CHECK(desk::theme().paper != paper);
    CHECK(QSettings().value(QStringLiteral("dim")).toBool());
    CHECK(person.window().palette().color(QPalette::Window) == desk::theme().paper);
    person.trigger(QStringLiteral("themeAction"));
    CHECK(desk::theme().paper == paper);
}

namespace {

void nothingCutOff(Person& person, int station) {
    for (auto* area : person.window().findChildren<QScrollArea*>())
        if (area->isVisible() && !area->inherits("QAbstractItemView"))
            CHECK(area->horizontalScrollBar()->maximum() == 0);
    for (auto* label : person.window().findChildren<QLabel*>()) {
        if (!label->isVisible() || label->wordWrap()) continue;
        INFO("station " << station << ": " << label->text().toStdString());
        CHECK(label->width() >= label->sizeHint().width());
    }
    for (auto* field : person.window().findChildren<QAbstractSpinBox*>()) {
        if (!field->isVisible()) continue;
        INFO("station " << station << ": " << field->objectName().toStdString() << " " << field->text().toStdString());
        CHECK(field->width() >= field->fontMetrics().horizontalAdvance(field->text()) + 14);
    }
    for (auto* button : person.window().findChildren<QAbstractButton*>()) {
        if (!button->isVisible() || button->text().isEmpty()) continue;
        INFO("station " << station << ": " << button->text().toStdString());
        CHECK(button->width() >= button->fontMetrics().horizontalAdvance(button->text()));
    }
}

}  // namespace

TEST_CASE("the size of everything is chosen and kept for the next start", "[desk][theme]") {
    Person person;
    CHECK(person.find<QAction>(QStringLiteral("size100Action"))->isChecked());
    person.trigger(QStringLiteral("size150Action"));
    CHECK(QSettings().value(desk::size_key).toInt() == 150);
    CHECK(person.find<QAction>(QStringLiteral("size150Action"))->isChecked());
    CHECK_FALSE(person.find<QAction>(QStringLiteral("size100Action"))->isChecked());
    person.trigger(QStringLiteral("size100Action"));
}

namespace {

constexpr const char* book_leaves[] = {"logTab", "lessonsTab", "protocolsTab", "reviewTab", "practiceTab", "kitTab"};
/// With all that the demo's book has.
void openBook(Person& person, const char* tab) {
    person.window().goTo(desk::Sheet::book);
    person.click(QLatin1String(tab));
    for (int i = 0; i < 3; ++i) {
        REQUIRE(QTest::qWaitFor([&] { return !person.window().logWriter().isBusy(); }, test::patience));
        person.settle();
    }
}
constexpr const char* day_leaves[] = {"hoursTab", "sunTab", "setsTab", "outletsTab", "packingTab", "seasonsTab"};

}  // namespace

TEST_CASE("no text is cut off in any station at 1024 by 700", "[desk][look][long]") {
    Person person({1024, 700});
    person.window().openDemo();
    CHECK(person.window().size() == QSize(1024, 700));
    for (int shot = 0; shot < person.document().count(); ++shot) {
        person.document().select(shot);
        for (int station = 1; station <= 6; ++station) {
            person.goTo(station);
            nothingCutOff(person, station);
        }
        person.goTo(1);
        for (const char* tab : {"mattersTab", "plansTab", "stagingTab", "subjectTab"}) {
            if (shot > 2) break;
            INFO(tab);
            person.click(QLatin1String(tab));
            nothingCutOff(person, 1);
        }
        person.goTo(2);
        for (const char* tab : {"standTab", "trainTab"}) {
            INFO(tab);
            person.click(QLatin1String(tab));
            nothingCutOff(person, 2);
        }
        person.goTo(5);
        for (const char* tab : {"stackTab", "chanceTab", "costTab", "stepsTab", "checklistTab"}) {
            if (shot > 2) break;
            INFO(tab);
            person.click(QLatin1String(tab));
            nothingCutOff(person, 5);
        }
        for (const char* sheet : {"daySheetButton", "bookSheetButton"}) {
            if (shot > 1) break;
            INFO(sheet);
            person.click(QLatin1String(sheet));
            nothingCutOff(person, 0);
        }
        for (const char* tab : book_leaves) {
            if (shot > 0) break;
            INFO(tab);
            openBook(person, tab);
            nothingCutOff(person, 0);
        }
        person.click(QStringLiteral("daySheetButton"));
        for (const char* tab : day_leaves) {
            if (shot > 1 && !person.shot().view) break;
            INFO(tab);
            person.click(QLatin1String(tab));
            nothingCutOff(person, 0);
        }
        person.click(QStringLiteral("shotSheetButton"));
    }
}

namespace {

/// Of the stations, in their order.
const std::vector<std::vector<const char*>> tabs = {
    {"subjectTab", "mattersTab", "plansTab", "stagingTab"},
    {"trainTab", "standTab"},
    {"chartTab", "ladderTab", "planeTab", "backgroundTab", "settingsTab"},
    {"exposureTab", "lightsTab", "backdropTab", "freezeTab", "shineTab", "testFrameTab"},
    {"checklistTab", "stackTab", "chanceTab", "costTab", "stepsTab"},
    {nullptr}};

/// No lettering of one drawing lies over another's, and all of it lies inside.
void nothingOverlaps(Person& person, const std::string& where) {
    std::size_t seen = 0;
    for (auto* widget : person.window().findChildren<QWidget*>()) {
        auto* view = qobject_cast<QAbstractItemView*>(widget->parentWidget());
        const bool drawn = QLatin1String(widget->metaObject()->className()).startsWith(QLatin1String("poquito::"));
        if (!widget->isVisible() || (!drawn && !(view && view->viewport() == widget))) continue;
        const auto letters = test::lettering(*widget);
        seen += letters.size();
        const QRectF room = QRectF(widget->rect()).adjusted(-2, -2, 2, 2);  // hinted glyphs swell
        const std::string who = where + ", " + widget->metaObject()->className() + ": ";
        for (std::size_t i = 0; i < letters.size(); ++i) {
            const auto& [ink, text] = letters[i];
            if (!view && !room.contains(ink)) FAIL_CHECK(who << text.toStdString() << " is cut");
            for (std::size_t k = 0; k < i; ++k)
                if (ink.adjusted(0.5, 0.5, -0.5, -0.5).intersects(letters[k].ink))
                    FAIL_CHECK(who << text.toStdString() << " covers " << letters[k].text.toStdString());
        }
    }
    CHECK(seen > 5);
}

}  // namespace

TEST_CASE("on a screen that is too small for the window all of it is reached by scrolling", "[desk][look]") {
    Person person({640, 480});
    person.window().openDemo();
    CHECK(person.window().size() == QSize(640, 480));
    auto* scroll = person.find<QScrollArea>(QStringLiteral("windowScroll"));
    CHECK(person.margin().visibleRegion().isEmpty());
    CHECK(scroll->horizontalScrollBar()->isVisible());
    scroll->ensureWidgetVisible(&person.margin());
    person.settle();
    CHECK_FALSE(person.margin().visibleRegion().isEmpty());
    scroll->verticalScrollBar()->setValue(scroll->verticalScrollBar()->maximum());
    person.settle();
    CHECK_FALSE(person.find(QStringLiteral("footLine"))->visibleRegion().isEmpty());
    // With room enough there is nothing to scroll.
    person.window().resize(1024, 700);
    person.settle();
    CHECK_FALSE(scroll->horizontalScrollBar()->isVisible());
    CHECK_FALSE(scroll->verticalScrollBar()->isVisible());
}

TEST_CASE("no lettering of a drawing covers another or is cut at 1024 by 700", "[desk][look][long]") {
    Person person({1024, 700});
    person.window().openDemo();
    for (int shot = 0; shot < person.document().count(); ++shot) {
        person.document().select(shot);
        for (int station = 1; station <= 6; ++station) {
            person.goTo(station);
            for (const char* tab : tabs[static_cast<std::size_t>(station - 1)]) {
                if (tab && person.window().findChild<QWidget*>(QLatin1String(tab))) person.click(QLatin1String(tab));
                nothingOverlaps(person,
                                person.shot().name + ", station " + std::to_string(station) + " " + (tab ? tab : ""));
            }
        }
    }
    for (const char* sheet : {"daySheetButton", "bookSheetButton"}) {
        person.click(QLatin1String(sheet));
        nothingOverlaps(person, sheet);
    }
    for (const char* tab : book_leaves) {
        openBook(person, tab);
        nothingOverlaps(person, tab);
    }
    person.click(QStringLiteral("daySheetButton"));
    for (const char* tab : day_leaves) {
        person.click(QLatin1String(tab));
        nothingOverlaps(person, tab);
    }
}

namespace {

bool takesTab(const QWidget& widget) {
    return widget.isVisible() && widget.isEnabled() && (widget.focusPolicy() & Qt::TabFocus) &&
           !widget.inherits("QScrollArea") && !widget.objectName().startsWith(QLatin1String("qt_"));
}

/// Tab alone comes to everything that takes keys, says what it is, and shows that it is there.
void walkByKeys(Person& person, const std::string& where) {
    std::vector<QPointer<QWidget>> wanted;
    for (auto* widget : person.window().findChildren<QWidget*>())
        if (takesTab(*widget) && !widget->focusProxy()) wanted.emplace_back(widget);
    std::set<QWidget*> seen;
    const auto missing = [&](const QPointer<QWidget>& one) { return one && takesTab(*one) && !seen.contains(one); };
    constexpr int most = 300;
    for (int i = 0; i < most && std::ranges::any_of(wanted, missing); ++i) {
        auto* before = QApplication::focusWidget();
        QTest::keyClick(before ? before : &person.window(), Qt::Key_Tab);
        auto* now = QApplication::focusWidget();
        if (!now || !seen.insert(now).second) continue;
        const std::string who =
            where + ", " + now->metaObject()->className() + " " + now->objectName().toStdString() + ": ";
        auto* button = qobject_cast<QAbstractButton*>(now);
        if (now->accessibleName().isEmpty() && (!button || button->text().isEmpty())) FAIL_CHECK(who << "has no name");
        const QImage with = now->grab().toImage();
        now->clearFocus();
        const QImage without = now->grab().toImage();
        now->setFocus(Qt::TabFocusReason);
        if (with == without) FAIL_CHECK(who << "does not show that it has the keys");
    }
    for (const auto& widget : wanted)
        if (missing(widget))
            FAIL_CHECK(where << ": Tab never comes to " << widget->metaObject()->className() << " "
                             << widget->objectName().toStdString());
}

}  // namespace

TEST_CASE("every sheet, station and leaf is walked through by keys alone", "[desk][accessibility][long]") {
    Person person({1024, 700});
    person.window().openDemo();
    for (int station = 1; station <= 6; ++station) {
        person.goTo(station);
        for (const char* tab : tabs[static_cast<std::size_t>(station - 1)]) {
            if (tab) person.click(QLatin1String(tab));
            walkByKeys(person, "station " + std::to_string(station) + " " + (tab ? tab : ""));
        }
    }
    for (const char* sheet : {"daySheetButton", "bookSheetButton"}) {
        person.click(QLatin1String(sheet));
        walkByKeys(person, sheet);
    }
    for (const char* tab : book_leaves) {
        openBook(person, tab);
        walkByKeys(person, tab);
    }
    person.click(QStringLiteral("daySheetButton"));
    for (const char* tab : day_leaves) {
        person.click(QLatin1String(tab));
        walkByKeys(person, tab);
    }
    person.window().newShoot();
    person.settle();
    walkByKeys(person, "the first page");
}

TEST_CASE("marks of scales are few, round and none where there is no scale", "[desk][theme]") {
    using desk::decadeMarks;
    using desk::rulerMarks;
    CHECK(rulerMarks(-3, 11, 7) == std::vector<double>{-2, 0, 2, 4, 6, 8, 10});
    const double infinite = std::numeric_limits<double>::infinity();
    CHECK(rulerMarks(0, infinite, 8).empty());
    CHECK(rulerMarks(0, std::nan(""), 8).empty());
    CHECK(rulerMarks(5, 5, 8).size() <= 10);
    CHECK(rulerMarks(1e6, 1e6 + 1e-12, 8).size() <= 10);
    CHECK(decadeMarks(0.5, 30) == std::vector<double>{0.5, 1, 2, 5, 10, 20});
    CHECK(decadeMarks(0, 30).empty());
    CHECK(decadeMarks(1, infinite).empty());
    CHECK(desk::rulerStep(0, 5) > 0);
    CHECK(desk::rulerStep(infinite, 5) > 0);
}
