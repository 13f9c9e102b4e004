#include "desk/toolkit/chart.hpp"

#include "support/matchers.hpp"
#include "support/person.hpp"

using namespace poquito;
using desk::Axis;
using test::Person;
using test::WithinAbs;
using test::WithinRel;

namespace {

QImage picture(QWidget* widget) { return widget->grab().toImage(); }

void hover(QWidget* widget, QPointF at) {
    QMouseEvent move(QEvent::MouseMove, at, widget->mapToGlobal(at), Qt::NoButton, Qt::NoButton, Qt::NoModifier);
    QApplication::sendEvent(widget, &move);
}

/// Height over length, and where its arrow keys went.
class Hill : public desk::Chart {
  public:
    Hill() { resize(300, 200); }
    mutable QString words;
    int right = 0, up = 0;

  protected:
    bool prepare() override {
        setAxes(Axis::ratios(1, 100), Axis::even(-2, 2));
        return true;
    }
    void draw(QPainter& painter) override {
        drawTitle(painter, QStringLiteral("Hill"));
        drawColumns(painter, {{1, QStringLiteral("1")}, {10, QStringLiteral("10")}, {100, QStringLiteral("100")}},
                    Lines::ticks);
        drawCurve(painter, QPen(Qt::black), [](double x) { return x > 10 ? 5 : 0; });
    }
    QString reading(double x, double y) const override {
        return words = QStringLiteral("%1 %2").arg(x, 0, 'f', 2).arg(y, 0, 'f', 2);
    }
    bool step(int x, int y) override { return right += x, up += y, x != 0; }
};

}  // namespace

TEST_CASE("an axis goes from value to place and back, evenly or by ratios", "[desk][chart]") {
    const Axis even = Axis::even(-4, 4), ratios = Axis::ratios(2, 32), down = Axis::even(6, 0);
    CHECK(even.share(0) == 0.5);
    CHECK_THAT(ratios.share(8), WithinRel(0.5, 1e-12));
    CHECK_THAT(ratios.at(0.25), WithinRel(4.0, 1e-12));
    CHECK(down.share(6) == 0);
    CHECK(down.clamped(7) == 6);
    CHECK(down.clamped(-1) == 0);
    for (const Axis& axis : {even, ratios, down})
        for (const double share : {0.0, 0.3, 1.0}) CHECK_THAT(axis.share(axis.at(share)), WithinAbs(share, 1e-12));
    const auto places = ratios.places(4);
    REQUIRE(places.size() == 5);
    CHECK_THAT(places[2], WithinRel(8.0, 1e-12));
}

TEST_CASE("a chart reads itself under the mouse, and nowhere else", "[desk][chart]") {
    Person person;
    Hill hill;
    hill.refresh();
    const QImage plain = picture(&hill);
    hover(&hill, hill.placeOf(10, 1));
    const QImage read = picture(&hill);
    CHECK(read != plain);
    CHECK(hill.words == QStringLiteral("10.00 1.00"));
    hover(&hill, {2, 2});  // beside the area
    CHECK(picture(&hill) == plain);
    hover(&hill, hill.placeOf(50, 0));
    CHECK(picture(&hill) != plain);
    QEvent leave(QEvent::Leave);
    QApplication::sendEvent(&hill, &leave);
    CHECK(picture(&hill) == plain);
    QTest::keyClick(&hill, Qt::Key_Left);
    QTest::keyClick(&hill, Qt::Key_Right);
    QTest::keyClick(&hill, Qt::Key_Right);
    QTest::keyClick(&hill, Qt::Key_Up);
    CHECK(hill.right == 1);
    CHECK(hill.up == 1);
}

TEST_CASE("arrow keys on the depth chart step the stop by thirds, as one step to take back", "[desk][chart]") {
    Person person;
    person.window().openDemo();
    person.goTo(3);
    auto* chart = person.find(QStringLiteral("depthChart"));
    const double before = person.shot().exposure.f_number;
    chart->setFocus();
    QTest::keyClick(chart, Qt::Key_Right);
    QTest::keyClick(chart, Qt::Key_Right);
    QTest::keyClick(chart, Qt::Key_Right);
    CHECK_THAT(person.shot().exposure.f_number, WithinRel(before * std::sqrt(2.0), 0.03));
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().exposure.f_number == before);
}
