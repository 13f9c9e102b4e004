#include "desk/toolkit/label_placer.hpp"

#include "desk/toolkit/theme.hpp"

#include <catch2/catch.hpp>

using namespace poquito::desk;

namespace {

Label named(const QString& text, const QRectF& names) {
    return {.lines = {{text, textFont(11), theme().ink}, {QStringLiteral("second line"), textFont(11), theme().quiet}},
            .names = names};
}

}  // namespace

TEST_CASE("a label stands beside what it names, on the side that is asked for", "[desk][labels]") {
    LabelPlacer placer(QRectF(0, 0, 600, 200));
    placer.add(named(QStringLiteral("lamp"), QRectF(300, 90, 20, 20)));
    const auto placed = placer.place();
    REQUIRE(placed.size() == 1);
    CHECK(placed[0].box.left() >= 320);
    CHECK(gapBetween(placed[0].box, QRectF(300, 90, 20, 20)) < 5);
    CHECK_FALSE(placed[0].leader);
}

TEST_CASE("what a label would hide sends it to another side", "[desk][labels]") {
    LabelPlacer placer(QRectF(0, 0, 600, 200));
    placer.keepClear(QRectF(321, 0, 279, 200));
    placer.add(named(QStringLiteral("lamp"), QRectF(300, 90, 20, 20)));
    CHECK(placer.place()[0].box.right() <= 321);
}

TEST_CASE("of labels about one place none covers another, and the far ones have leaders", "[desk][labels]") {
    LabelPlacer placer(QRectF(0, 0, 600, 200));
    for (int i = 0; i < 12; ++i) placer.add(named(QString::number(i), QRectF(300, 90, 4, 4)));
    const auto placed = placer.place();
    REQUIRE(placed.size() == 12);
    for (std::size_t i = 0; i < placed.size(); ++i) {
        CHECK(QRectF(0, 0, 600, 200).contains(placed[i].box));
        const double gap = gapBetween(placed[i].box, placed[i].label.names);
        CHECK(placed[i].leader.has_value() == (gap > leader_from));
        for (std::size_t j = i + 1; j < placed.size(); ++j) CHECK_FALSE(placed[i].box.intersects(placed[j].box));
    }
}

TEST_CASE("where all does not fit, first lines alone are written, what may go goes first", "[desk][labels]") {
    const QRectF room(0, 0, 100, 48);  // three lines high
    LabelPlacer placer(room);
    auto loose = named(QStringLiteral("ring"), QRectF(50, 20, 2, 2));
    for (int i = 0; i < 3; ++i) placer.add(named(QString::number(i), QRectF(50, 20, 2, 2)));
    loose.may_go = true;
    placer.add(loose);
    const auto placed = placer.place();
    REQUIRE(placed.size() == 3);
    CHECK(placed.back().label.lines.size() == 1);
    for (const auto& one : placed) CHECK_FALSE(one.label.may_go);
    // Nothing to see in a room of no size, and nothing goes wrong.
    LabelPlacer none(QRectF(0, 0, 2, 2));
    none.add(named(QStringLiteral("x"), QRectF(0, 0, 1, 1)));
    CHECK(none.place().empty());
}
