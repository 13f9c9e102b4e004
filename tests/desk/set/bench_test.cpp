#include "support/person.hpp"

#include "desk/set/bench_view.hpp"
#include "support/matchers.hpp"

using namespace poquito;
using test::Person;
using test::WithinAbs;
using test::WithinRel;

namespace {

void drag(QWidget* widget, QPoint from, QPoint to) {
    QTest::mousePress(widget, Qt::LeftButton, {}, from);
    // A synthesised move carries its buttons only as an event of its own.
    QMouseEvent move(QEvent::MouseMove, QPointF(to), widget->mapToGlobal(QPointF(to)), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QApplication::sendEvent(widget, &move);
    QTest::mouseRelease(widget, Qt::LeftButton, {}, to);
}

}  // namespace

TEST_CASE("the bench is to scale in both elevations", "[desk][bench]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Tide brooch"));
    person.goTo(4);
    auto* bench = person.find<desk::BenchView>(QStringLiteral("benchView"));
    for (const auto elevation : {desk::Elevation::side, desk::Elevation::top}) {
        bench->setElevation(elevation);
        CHECK_THAT(bench->drawnWorkingDistance() / bench->scale(),
                   WithinRel(*person.report().optics.working_distance, 1e-9));
        // 180 mm away at -35 and 45 degrees: along the axis 180 cos 45 cos 35, up 180 sin 45, left 180 cos 45 sin 35.
        const auto at = bench->lightPlace(0);
        REQUIRE(at);
        const auto background = bench->backgroundPlace();
        REQUIRE(background);
        const double degree = M_PI / 180, out = 180 * std::cos(45 * degree);
        CHECK_THAT((background->x() - at->x()) / bench->scale(), WithinRel(300 + out * std::cos(35 * degree), 1e-9));
        const double across =
            elevation == desk::Elevation::side ? 180 * std::sin(45 * degree) : out * std::sin(35 * degree);
        CHECK_THAT((background->y() - at->y()) / bench->scale(), WithinRel(across, 1e-9));
    }
}

TEST_CASE("a light is dragged along the bench, and the exposure follows", "[desk][bench]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Tide brooch"));
    person.goTo(4);
    auto* bench = person.find<desk::BenchView>(QStringLiteral("benchView"));
    const auto before = person.shot().lights[0].position;
    const double power = person.report().light.sources[0].power;
    const QPoint from = bench->lightPlace(0)->toPoint();
    drag(bench, from, from + QPoint(-30, 0));
    const auto after = person.shot().lights[0].position;
    CHECK(after.distance > before.distance + 5);
    CHECK(after.elevation < before.elevation);
    CHECK(person.report().light.sources[0].power > power);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().lights[0].position == before);
    // From the top it is the azimuth that changes; the height stays.
    bench->setElevation(desk::Elevation::top);
    const QPoint top = bench->lightPlace(0)->toPoint();
    drag(bench, top, top + QPoint(0, 20));
    const auto turned = person.shot().lights[0].position;
    CHECK(turned.azimuth > before.azimuth);
    const double degree = M_PI / 180;
    CHECK_THAT(turned.distance * std::sin(turned.elevation * degree),
               WithinAbs(before.distance * std::sin(before.elevation * degree), 3));
}

TEST_CASE("the background is dragged", "[desk][bench]") {
    Person person;
    person.window().openDemo();
    person.selectShot(QStringLiteral("Tide brooch"));
    person.goTo(4);
    auto* bench = person.find<desk::BenchView>(QStringLiteral("benchView"));
    const double scale = bench->scale();
    const QPoint from(qRound(bench->backgroundPlace()->x()) + 3, 60);
    drag(bench, from, from - QPoint(40, 0));
    CHECK_THAT(person.shot().background->distance, WithinAbs(300 - 40 / scale, 5));
}

TEST_CASE("a lens focused at infinity and odd plans are drawn without trouble", "[desk][bench]") {
    Person person;
    person.window().openDemo();
    auto* bench = person.find<desk::BenchView>(QStringLiteral("benchView"));
    const auto draws = [&](auto change) {
        person.document().editShot({QStringLiteral("x")}, change);
        CHECK_FALSE(bench->grab().isNull());
        for (int station = 1; station <= 6; ++station) {
            person.goTo(station);
            CHECK_FALSE(person.window().grab().isNull());
        }
    };
    draws([](shoot::Shot& shot) { shot.rig.focus = {.by = shoot::FocusBy::ring, .value = 0}; });
    draws([](shoot::Shot& shot) { shot.rig.focus = {.by = shoot::FocusBy::magnification, .value = 40}; });
    draws([](shoot::Shot& shot) { shot.subject.depth = 0; });
    draws([](shoot::Shot& shot) { shot.background->distance = 1e6; });
    draws([](shoot::Shot& shot) { shot.lights[0].position.distance = 0.5; });
    draws([](shoot::Shot& shot) { shot.subject.width = shot.subject.height = 1e6; });
    draws([](shoot::Shot& shot) { shot.exposure.f_number = 1000; });
    draws([](shoot::Shot& shot) { shot.rig.closeup_lenses = {"closeup-8", "closeup-4"}; });
}

namespace {

/// The set from both sides: what its lettering covers, and how far each stands from what it names.
void checkLettering(Person& person, const std::string& what) {
    auto* bench = person.find<desk::BenchView>(QStringLiteral("benchView"));
    for (const auto elevation : {desk::Elevation::side, desk::Elevation::top}) {
        bench->setElevation(elevation);
        bench->grab();
        const auto& labels = bench->labels();
        INFO(what << (elevation == desk::Elevation::side ? ", side, " : ", top, ") << bench->width() << " x "
                  << bench->height());
        REQUIRE_FALSE(labels.empty());
        for (std::size_t i = 0; i < labels.size(); ++i) {
            const auto& one = labels[i];
            INFO(one.label.lines.front().text.toStdString());
            CHECK(QRectF(bench->rect()).contains(one.box));
            CHECK((one.leader || desk::gapBetween(one.box, one.label.names) <= 60));
            for (std::size_t j = i + 1; j < labels.size(); ++j) {
                INFO("over " << labels[j].label.lines.front().text.toStdString());
                CHECK_FALSE(one.box.intersects(labels[j].box));
            }
        }
    }
}

}  // namespace

TEST_CASE("no lettering on the bench covers another, and each is near what it names or has a leader",
          "[desk][bench][look]") {
    Person person;
    person.window().openDemo();
    for (const QSize size : {QSize(1024, 700), QSize(1280, 800)}) {
        person.window().resize(size);
        person.goTo(4);
        for (int shot = 0; shot < person.document().count(); ++shot) {
            person.document().select(shot);
            person.settle();
            checkLettering(person, person.shot().name);
        }
    }
}

TEST_CASE("every light of a crowded set is lettered", "[desk][bench][look]") {
    Person person;
    person.window().openDemo();
    person.window().resize(1024, 700);
    person.selectShot(QStringLiteral("Tide brooch"));
    person.goTo(4);
    person.document().editShot({QStringLiteral("crowd")}, [](shoot::Shot& shot) {
        const auto first = shot.lights[0];
        shot.lights.clear();
        for (int i = 0; i < 8; ++i) {
            shot.lights.push_back(first);
            shot.lights.back().group.reset();
            shot.lights.back().position = {
                .distance = 180.0 + 9 * i, .azimuth = -40.0 + 4 * i, .elevation = 30.0 + 2 * i};
        }
    });
    person.settle();
    checkLettering(person, "eight lights beside one another");
    const auto& labels = person.find<desk::BenchView>(QStringLiteral("benchView"))->labels();
    for (const auto& source : person.report().light.sources) {
        const auto name = QString::fromStdString(source.label) + QStringLiteral("  ");
        INFO(source.label);
        CHECK(std::ranges::any_of(labels,
                                  [&](const auto& one) { return one.label.lines.front().text.startsWith(name); }));
    }
}

TEST_CASE("a light of another colour than white says so on the bench, and a gel as its reason", "[desk][bench]") {
    Person person;
    person.window().openDemo();
    person.goTo(4);
    const auto says = [&](const QString& words) {
        person.settle();
        person.window().grab();
        const auto& labels = person.find<desk::BenchView>(QStringLiteral("benchView"))->labels();
        return std::ranges::any_of(labels, [&](const auto& one) {
            return std::ranges::any_of(one.label.lines, [&](const auto& line) { return line.text.contains(words); });
        });
    };
    CHECK_FALSE(says(QStringLiteral(" K")));  // flash by flash's white
    person.document().editShot({QStringLiteral("x")}, [](shoot::Shot& shot) {
        shot.exposure.kelvin = 5600;
        shot.lights[0].gel = 130;
    });
    CHECK(says(QStringLiteral("3250 K by its gel")));
}
