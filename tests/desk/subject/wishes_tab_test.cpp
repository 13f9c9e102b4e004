// What the picture is to look like is said on the sheet by what it means, for one shot or for all; notes show what each
// way out gains.
#include "advice/worth/worth.hpp"
#include "desk/subject/proposals_view.hpp"
#include "desk/subject/wish_strip.hpp"
#include "support/person.hpp"

#include <set>

using namespace poquito;
using desk::LedgerModel;
using desk::LedgerView;
using desk::WishStrip;
using shoot::WantedGround;
using test::Person;

namespace {

/// The demo's salt at one of Subject's pages.
struct AtSubject : Person {
    explicit AtSubject(const QString& tab) {
        window().openDemo();
        document().select(7);
        goTo(1);
        click(tab);
    }
};

/// The first note of the demo's shots that `wanted` holds for, once its remedies are found. All that come before it are
/// seen, so that a property is held for each.
QModelIndex first_note(Person& person, const std::function<bool(int shot, const QModelIndex&)>& wanted) {
    const auto* model = person.find<LedgerView>(QStringLiteral("ledger"))->model();
    for (int shot = 0; shot < person.document().count(); ++shot) {
        person.document().select(shot);
        REQUIRE(QTest::qWaitFor([&] { return person.document().isAnswered(); }, test::patience));
        person.settle();
        QModelIndex found;
        for (int row = 0; row < model->rowCount(); ++row)
            if (const auto index = model->index(row, 0);
                index.data(LedgerModel::kindRole).toInt() == static_cast<int>(LedgerModel::Kind::note) &&
                wanted(shot, index) && !found.isValid())
                found = index;
        if (found.isValid()) return found;
    }
    FAIL("no shot of the demo has such a note");
    return {};
}

void take(Person& person, const char* strip, std::size_t cell) {
    auto* widget = person.find<WishStrip>(QLatin1String(strip));
    QTest::mouseClick(widget, Qt::LeftButton, {}, widget->cellRect(cell).center().toPoint());
    person.settle();
}

void press_chip(Person& person, const QString& text) {
    for (auto* chip : person.find<QWidget>(QStringLiteral("lookChips"))->findChildren<QToolButton*>())
        if (chip->text() == text) return person.click(chip);
    FAIL("no chip " << text.toStdString());
}

shoot::Wishes all_wishes(Person& person) { return person.document().assessment()->plan.terms.wishes; }

}  // namespace

TEST_CASE("a ground and its softness are wished with a click each, taken back with another", "[desk][wishes]") {
    AtSubject person(QStringLiteral("mattersTab"));
    take(person, "groundStrip", 0);
    CHECK(person.shot().wishes.ground == WantedGround::black);
    CHECK(person.document().shoot().terms.wishes == shoot::Wishes{});
    CHECK(person.find<WishStrip>(QStringLiteral("groundStrip"))->taken() == 0);
    take(person, "softnessStrip", 2);
    CHECK(person.shot().wishes.softness == 0.08);
    take(person, "groundStrip", 0);
    CHECK(person.shot().wishes.ground == WantedGround::unsaid);
    CHECK(person.shot().wishes.softness == 0.08);
    person.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(person.shot().wishes.ground == WantedGround::black);

    // By keys alone.
    auto* strip = person.find<WishStrip>(QStringLiteral("groundStrip"));
    strip->setFocus();
    person.key(Qt::Key_Right);
    person.key(Qt::Key_Return);
    CHECK(person.shot().wishes.ground == WantedGround::dark);
}

TEST_CASE("of two looks that rule each other out the last one stays", "[desk][wishes]") {
    AtSubject person(QStringLiteral("mattersTab"));
    press_chip(person, QStringLiteral("flash alone"));
    CHECK(person.shot().wishes.lit_by == shoot::WantedLight::flash);
    press_chip(person, QStringLiteral("movement drawn"));
    press_chip(person, QStringLiteral("both"));
    CHECK(person.shot().wishes.lit_by == shoot::WantedLight::both);
    CHECK(person.shot().wishes.movement == shoot::WantedMovement::drawn);
    press_chip(person, QStringLiteral("movement drawn"));
    CHECK(person.shot().wishes.movement == shoot::WantedMovement::unsaid);
    press_chip(person, QStringLiteral("past the edges"));
    CHECK(person.shot().wishes.passes_frame);
    person.type(QStringLiteral("brighterField"), QStringLiteral("0.7"));
    CHECK(person.shot().wishes.brighter == 0.7);
}

TEST_CASE("what is wished for the whole shoot holds for every shot that says nothing else", "[desk][wishes]") {
    AtSubject person(QStringLiteral("mattersTab"));
    take(person, "groundStrip", 1);
    person.click(QStringLiteral("wishesForAllButton"));
    CHECK(person.document().shoot().terms.wishes.ground == WantedGround::dark);
    CHECK(person.shot().wishes == shoot::Wishes{});
    CHECK_FALSE(person.find<QWidget>(QStringLiteral("wishesForAllButton"))->isEnabled());
    person.document().select(2);
    person.settle();
    CHECK(all_wishes(person).ground == WantedGround::dark);
    CHECK(person.find<WishStrip>(QStringLiteral("groundStrip"))->taken() == 1);
    take(person, "groundStrip", 4);
    CHECK(person.shot().wishes.ground == WantedGround::white);
    CHECK(person.document().shoot().terms.wishes.ground == WantedGround::dark);
    // Back to the shoot's by choosing the same as it says: the shot says nothing any more.
    take(person, "groundStrip", 1);
    CHECK(person.shot().wishes.ground == WantedGround::unsaid);
    CHECK(all_wishes(person).ground == WantedGround::dark);
}

TEST_CASE("a note says what its ways out gain, and unfolds the next best", "[desk][ledger]") {
    Person person;
    person.window().openDemo();
    auto* ledger = person.find<LedgerView>(QStringLiteral("ledger"));
    const auto* model = qobject_cast<const LedgerModel*>(ledger->model());
    const auto with_others =
        first_note(person, [](int, const QModelIndex& note) { return note.data(LedgerModel::othersRole).toInt() > 0; });
    const auto code = with_others.data(LedgerModel::keyRole).toString();
    const int others = with_others.data(LedgerModel::othersRole).toInt(), rows = model->rowCount();
    ledger->scrollTo(with_others);
    person.settle();
    QTest::mouseClick(ledger->viewport(), Qt::LeftButton, {}, ledger->othersRect(with_others).center());
    person.settle();
    REQUIRE(model->rowCount() == rows + others);
    const auto note = model->indexOf(code.toStdString());
    const auto way = model->index(note.row() + 1);
    REQUIRE(way.data(LedgerModel::kindRole).toInt() == static_cast<int>(LedgerModel::Kind::way));
    const auto label = way.data().toString();
    const auto remedies = person.document().notes();
    const auto found = std::ranges::find(remedies, code.toStdString(), &advice::Note::code);
    REQUIRE(found != remedies.end());
    CHECK(found->remedy->worth >= found->others.front()->worth - 0.2);
    CHECK(label.toStdString() == found->others.front()->label);
    const auto wanted = found->others.front()->shot;
    person.clickRow(ledger, way);
    CHECK(person.shot() == wanted);
}

TEST_CASE("the judgement explains itself like any number", "[desk][ledger]") {
    Person person;
    person.window().openDemo();
    person.document().select(7);
    person.goTo(1);
    auto* ledger = person.find<LedgerView>(QStringLiteral("ledger"));
    auto* model = qobject_cast<LedgerModel*>(ledger->model());
    const auto worth = model->show("worth");
    REQUIRE(worth.isValid());
    CHECK_FALSE(worth.data(LedgerModel::formulaRole).toString().isEmpty());
    const auto shown = advice::worth_of(person.document().assessment()->plan, person.report()).worth;
    CHECK(worth.data(LedgerModel::valueRole).toInt() == qRound(shown * 100));
}

TEST_CASE("a wish that is chosen over the plans ranks them anew beneath it", "[desk][wishes][plans]") {
    AtSubject person(QStringLiteral("plansTab"));
    auto* view = person.find<desk::ProposalsView>(QStringLiteral("plansView"));
    const auto ready = [&] { return !view->plans().empty() && view->isSettled(); };
    REQUIRE(QTest::qWaitFor(ready, test::patience));
    CHECK(view->hasFocus());
    auto* button = person.find<QPushButton>(QStringLiteral("wishesButton"));
    CHECK(button->text() == QStringLiteral("Nothing wished"));
    const auto first = view->plans().front().worth.worth;
    person.click(button);
    auto* sheet = QApplication::activePopupWidget();
    REQUIRE(sheet != nullptr);
    CHECK(sheet->objectName() == QStringLiteral("wishesSheet"));
    auto* strip = sheet->findChild<WishStrip*>(QStringLiteral("groundStrip"));
    REQUIRE(strip != nullptr);
    const auto* chips = sheet->findChild<QWidget*>(QStringLiteral("lookChips"));
    CHECK(chips->height() >= chips->heightForWidth(chips->width()));
    QTest::mouseClick(strip, Qt::LeftButton, {}, strip->cellRect(4).center().toPoint());
    person.settle();
    CHECK(person.shot().wishes.ground == WantedGround::white);
    CHECK(strip->taken() == 4);
    CHECK(button->text().contains(QStringLiteral("white")));
    REQUIRE(QTest::qWaitFor(ready, test::patience));
    CHECK(view->plans().front().worth.worth != first);
    CHECK(sheet->isVisible());
    // Its place ends with the click outside of it; the wish stays.
    sheet->close();
    person.settle();
    CHECK(person.window().findChild<QWidget*>(QStringLiteral("wishesSheet")) == nullptr);
    person.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(person.shot().wishes == shoot::Wishes{});
}

TEST_CASE("one way out of several notes is told once, and taken from any of them", "[desk][ledger]") {
    Person person;
    person.window().openDemo();
    auto* ledger = person.find<LedgerView>(QStringLiteral("ledger"));
    int at_shot = -1;
    std::set<QString> told;
    const auto repeated = first_note(person, [&](int shot, const QModelIndex& note) {
        if (std::exchange(at_shot, shot) != shot) told.clear();
        const auto remedy = note.data(LedgerModel::remedyRole).toString();
        if (remedy.isEmpty()) return false;
        INFO(shot << " " << remedy.toStdString());
        const bool known = !told.insert(remedy).second;
        CHECK((note.data(LedgerModel::linkRole).toString() == remedy) != known);
        return known;
    });
    const auto code = repeated.data(LedgerModel::keyRole).toString().toStdString();
    const auto notes = person.document().notes();
    const auto wanted = std::ranges::find(notes, code, &advice::Note::code)->remedy->shot;
    ledger->scrollTo(repeated);
    person.settle();
    QTest::mouseClick(ledger->viewport(), Qt::LeftButton, {}, ledger->linkRect(repeated).center());
    person.settle();
    CHECK(person.shot() == wanted);
}
