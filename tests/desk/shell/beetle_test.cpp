// A new user's first plan: from an empty shoot to a taken plan of a live beetle, without a quarrel.
#include "desk/day/day_sheet.hpp"
#include "desk/shell/status_bar.hpp"
#include "desk/subject/proposals_view.hpp"
#include "desk/subject/specimen_board.hpp"
#include "support/pdf.hpp"
#include "support/person.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <set>

using namespace poquito;
using test::Person;

namespace {

/// Notes that ask for something.
std::set<std::string> asked(Person& person) {
    std::set<std::string> codes;
    for (const auto& note : person.document().notes())
        if (note.level != advice::Level::info && note.concern != advice::Concern::safety) codes.insert(note.code);
    return codes;
}

desk::ProposalsView* plans_of(Person& person) {
    auto* view = person.find<desk::ProposalsView>(QStringLiteral("plansView"));
    REQUIRE(QTest::qWaitFor([&] { return view->isSettled() && !view->plans().empty(); }, test::patience));
    return view;
}

}  // namespace

TEST_CASE("a live beetle outdoors: from an empty shoot to a taken plan that nothing speaks against", "[desk][story]") {
    Person person;
    // The first page asks; every answer is one click.
    person.window().newShoot();
    person.settle();
    int clicks = 0;
    const auto click = [&](const char* name) {
        person.click(QLatin1String(name));
        ++clicks;
    };
    auto* board = person.window().findChild<desk::SpecimenBoard*>(QStringLiteral("specimenBoard"));
    REQUIRE(board);
    REQUIRE(board->isVisible());
    const auto beetle = std::ranges::find(board->subjects(), "beetle-calm", &shoot::LibrarySubject::id);
    REQUIRE(beetle != board->subjects().end());
    const auto place = static_cast<std::size_t>(beetle - board->subjects().begin());
    QTest::mouseClick(board, Qt::LeftButton, {}, board->cellRect(place).center().toPoint());
    ++clicks;
    person.settle();
    REQUIRE(person.document().count() == 1);
    CHECK(person.shot().name == "Beetle, calm");
    CHECK(person.shot().sharpness.rule == shoot::BlurRule::diagonal);  // not the pixels: nobody said so
    click("startFieldButton");
    click("startHandButton");
    click("startPrintButton");
    CHECK(person.margin().isVisible());
    CHECK(person.shot().ambient->kind == shoot::AmbientKind::sky);
    CHECK(person.document().shoot().purpose->kind == shoot::OutputKind::print);
    // The newcomer's bag: three choices.
    for (const char* name : {"startCameraChoice", "startLensChoice", "startLightChoice"}) {
        auto* box = person.find<QComboBox>(QLatin1String(name));
        const int index = QLatin1String(name) == QLatin1String("startLightChoice") ? 1 : 0;
        box->setCurrentIndex(index);
        Q_EMIT box->activated(index);
        ++clicks;
    }
    CHECK(person.shot().lights.size() == 1);
    // Another sensor shows the beetle as large in the frame: the magnification follows.
    const auto fill = person.report().optics.fill.value();
    auto* cameras = person.find<QComboBox>(QStringLiteral("startCameraChoice"));
    const double own_scale = person.shot().rig.focus.value;
    Q_EMIT cameras->activated(1);
    CHECK(person.shot().rig.focus.value > own_scale);
    person.document().undoStack().undo();
    CHECK(person.report().optics.fill.value() == fill);
    click("startPlansButton");
    INFO(clicks);
    CHECK(clicks <= 8);
    CHECK(person.find(QStringLiteral("plansView"))->isVisible());
    person.window().findChild<QToolButton*>(QStringLiteral("subjectTab"))->click();
    CHECK(person.shot().subject.width == 14);
    CHECK(person.shot().subject.depth == 7);
    CHECK(has_trait(person.shot().subject, "living"));
    CHECK(person.find<desk::Sentence>(QStringLiteral("assumed"))->text().contains(QStringLiteral("14")));
    CHECK_THAT(person.report().optics.fill.value(), Catch::Matchers::WithinAbs(0.6, 0.01));
    person.document().editShot({QStringLiteral("outdoors")}, [](shoot::Shot& shot) {
        shot.ambient = shoot::Ambient{.ev100 = 12, .kind = shoot::AmbientKind::sky};
        shot.rig.support = shoot::Support::hand;
    });
    CHECK(asked(person).count("magnification-out-of-reach") == 0);  // within a hundredth is reached

    person.click(QStringLiteral("plansTab"));
    auto* view = plans_of(person);
    const auto best = view->plans().front();
    // One frame, for something alive; a stack of it is there to be looked at, and is not the one.
    CHECK((best.school == advice::School::single_flash || best.school == advice::School::single_ambient));
    CHECK(best.keeps_limits);
    CHECK_FALSE(best.stopped);
    CHECK(person.find<desk::Sentence>(QStringLiteral("plansReason"))->text().size() > 20);
    const auto before = person.shot();
    QTest::mouseClick(view, Qt::LeftButton, {}, view->cardRect(0).center().toPoint());
    CHECK(person.shot().exposure == best.shot.exposure);
    CHECK(view->taken() == std::size_t(0));
    // No two voices: no advice to stack it, none to change what the plan just set.
    const auto left = asked(person);
    for (const char* quarrel :
         {"motion-blur", "hand-shake", "exposure-off", "iso-over-limit", "shutter-over-limit",
          "stack-of-moving-subject", "diffraction-coarse", "past-sync", "power-above-full", "power-below-least"}) {
        INFO(quarrel);
        CHECK(left.count(quarrel) == 0);
    }
    for (const auto& note : person.document().notes())
        if (note.remedy) CHECK(note.remedy->shot.capture.mode == shoot::CaptureMode::single);
    CHECK_FALSE(person.find<desk::StatusBar>(QStringLiteral("footLine"))->shotText().isEmpty());
    person.document().undoStack().undo();
    CHECK(person.shot() == before);
    person.document().undoStack().redo();

    // And on paper: the plan that was taken, as the photographer writes it.
    person.click(QStringLiteral("daySheetButton"));
    auto* day = person.window().findChild<desk::DaySheet*>();
    REQUIRE(day);
    QTemporaryDir folder;
    const QString pdf = folder.filePath(QStringLiteral("beetle.pdf"));
    REQUIRE(day->exportPaper(pdf));
    const QString text = test::pdfText(pdf);
    INFO(text.toStdString());
    CHECK(text.contains(QStringLiteral("Beetle, calm")));
    CHECK(text.contains(QStringLiteral("To pack")));
    for (const auto& setting :
         {text::shutter_text(person.shot().exposure.shutter), text::f_number_text(person.shot().exposure.f_number),
          text::number_text(person.shot().exposure.iso)}) {
        INFO(setting);
        CHECK(text.contains(QString::fromStdString(setting)));
    }
}

TEST_CASE("another shot has its own plans, and takes none of the one before", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.document().select(7);
    person.goTo(1);
    person.click(QStringLiteral("plansTab"));
    auto* view = plans_of(person);
    CHECK(view->plans().front().shot.id == person.shot().id);
    person.document().select(4);
    REQUIRE(QTest::qWaitFor([&] { return view->isSettled() && view->plans().front().shot.id == person.shot().id; },
                            test::patience));
    QTest::mouseClick(view, Qt::LeftButton, {}, view->cardRect(0).center().toPoint());
    CHECK(person.document().shoot().shots[6].id == "toffee-tin");
}

TEST_CASE("limits and order are set on the sheet, and the plans follow", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.document().select(7);  // lichen in the field
    person.goTo(1);
    person.click(QStringLiteral("mattersTab"));
    person.click(QStringLiteral("isoLimitCheck"));
    CHECK(person.document().shoot().terms.limits.iso == 1600);
    person.type(QStringLiteral("isoLimitField"), QStringLiteral("400"));
    CHECK(person.document().shoot().terms.limits.iso == 400);
    person.click(QStringLiteral("ownLimitsCheck"));
    REQUIRE(person.shot().limits);
    person.type(QStringLiteral("isoLimitField"), QStringLiteral("800"));
    CHECK(person.shot().limits->iso == 800);
    CHECK(person.document().shoot().terms.limits.iso == 400);
    person.click(QStringLiteral("plansTab"));
    auto* list = person.find<QListWidget>(QStringLiteral("giveUpList"));
    list->setCurrentRow(3);
    person.click(QStringLiteral("goesEarlierButton"));
    CHECK(person.shot().limits->give_up == std::vector{shoot::Loss::background, shoot::Loss::time, shoot::Loss::depth,
                                                       shoot::Loss::iso, shoot::Loss::motion});
    for (const auto& plan : plans_of(person)->plans())
        if (plan.keeps_limits) CHECK(plan.shot.exposure.iso <= 800);
}

TEST_CASE("all that may go first is seen, in the smallest window too", "[desk][pages]") {
    for (const QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
        INFO(size.width());
        Person person(size);
        person.window().openDemo();
        person.document().select(7);
        person.goTo(1);
        person.click(QStringLiteral("plansTab"));
        auto* list = person.find<QListWidget>(QStringLiteral("giveUpList"));
        auto* later = person.find<QWidget>(QStringLiteral("goesLaterButton"));
        REQUIRE(list->count() == 5);
        for (int row = 0; row < list->count(); ++row)
            CHECK(list->viewport()->rect().contains(list->visualItemRect(list->item(row))));
        const auto* tab = later->parentWidget();
        CHECK(tab->rect().contains(later->geometry()));
        CHECK(tab->rect().contains(list->geometry()));
        CHECK(tab->window()->rect().contains(QRect(tab->mapTo(tab->window(), QPoint()), tab->size())));
    }
}

TEST_CASE("what goes first, or a wish, ranks the plans anew before one's eyes", "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.document().select(7);
    person.goTo(1);
    person.click(QStringLiteral("plansTab"));
    const auto ways = [&] {
        std::vector<std::pair<std::string, double>> all;
        for (const auto& plan : plans_of(person)->plans()) all.emplace_back(advice::plan_name(plan), plan.worth.worth);
        return all;
    };
    const auto usual = ways();
    REQUIRE(usual.size() > 1);
    auto* list = person.find<QListWidget>(QStringLiteral("giveUpList"));
    // Stillness first in place of last.
    for (int row = list->count() - 1; row > 0; --row) {
        list->setCurrentRow(row);
        person.click(QStringLiteral("goesEarlierButton"));
    }
    CHECK(shoot::giving_up(person.document().shoot().terms.limits).front() == shoot::Loss::motion);
    const auto by_order = ways();
    CHECK(by_order != usual);
    person.document().undoStack().setIndex(0);
    person.settle();
    CHECK(ways() == usual);
    // Flash alone: what takes the light that is there falls behind.
    person.document().editShot({QStringLiteral("flash alone")},
                               [](shoot::Shot& shot) { shot.wishes.lit_by = shoot::WantedLight::flash; });
    person.settle();
    const auto by_wish = ways();
    CHECK(by_wish != usual);
    CHECK(plans_of(person)->plans().front().lit != advice::Lit::ambient);
    person.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(ways() == usual);
}

TEST_CASE("a zone is marked in a single frame, and what the pictures are for says what counts as sharp",
          "[desk][pages]") {
    Person person;
    person.window().openDemo();
    person.document().select(6);
    person.goTo(1);
    person.click(QStringLiteral("mattersTab"));
    REQUIRE(person.shot().capture.mode == shoot::CaptureMode::single);
    person.click(QStringLiteral("zoneCheck"));
    REQUIRE(person.shot().capture.slice);
    person.type(QStringLiteral("zoneToField"), QStringLiteral("12 mm"));
    CHECK(person.shot().capture.slice->to == 12);
    CHECK(person.report().sharpness.zone == 12.0);
    // Focus lies in its middle.
    CHECK_THAT(person.report().sharpness.focus, Catch::Matchers::WithinAbs(6 - person.report().extent.depth / 2, 1e-9));
    const auto limit = person.report().sharpness.blur_limit;
    auto* purpose = person.find<QComboBox>(QStringLiteral("purposeChoice"));
    purpose->setCurrentIndex(1);
    Q_EMIT purpose->activated(1);
    REQUIRE(person.document().shoot().purpose);
    person.type(QStringLiteral("purposeSizeField"), QStringLiteral("600"));
    CHECK(person.document().shoot().purpose->print.width == 600);
    CHECK(person.shot().sharpness.output.print.width == 600);
    CHECK(person.report().sharpness.blur_limit != limit);
    // "Put it right" takes what one click can, and one step back brings all of it back.
    const auto before = person.shot();
    person.document().editShot({QStringLiteral("wrong")}, [](shoot::Shot& shot) {
        shot.exposure.iso = 12800;
        shot.exposure.f_number = 90;
    });
    const auto wrong = person.shot();
    person.settle();
    person.clickLine(person.numbers().indexOf("put-right"));
    CHECK(QTest::qWaitFor([&] { return person.shot() != wrong; }, test::patience));
    person.settle();
    for (const auto& note : person.document().notes()) CHECK(note.remedy == nullptr);
    person.document().undoStack().undo();
    CHECK(person.shot() == wrong);
}
