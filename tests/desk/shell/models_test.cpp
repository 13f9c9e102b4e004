#include "support/person.hpp"

#include "desk/proof/proof_model.hpp"
#include "desk/run/checklist_model.hpp"
#include "desk/shell/shot_list_model.hpp"

using namespace poquito;
using test::Person;

TEST_CASE("models keep their contract while the shoot changes under them", "[desk][models]") {
    desk::Document document;
    desk::ShotListModel shots(document);
    desk::LedgerModel ledger(document);
    desk::ProofModel proof(document);
    desk::ChecklistModel checklist(document);
    // Fails the test at the first breach: a change that was not announced, a parent that is none, a row out of range.
    QAbstractItemModelTester a(&shots, QAbstractItemModelTester::FailureReportingMode::Fatal);
    QAbstractItemModelTester b(&ledger, QAbstractItemModelTester::FailureReportingMode::Fatal);
    QAbstractItemModelTester c(&proof, QAbstractItemModelTester::FailureReportingMode::Fatal);
    QAbstractItemModelTester d(&checklist, QAbstractItemModelTester::FailureReportingMode::Fatal);
    desk::MainWindow source;
    source.openDemo();
    document.open(source.document().shoot(), {});
    const auto refresh = [&] {
        proof.refresh();
        checklist.refresh();
    };
    refresh();
    for (int i = 0; i < document.count(); ++i) {
        document.select(i);
        refresh();
        ledger.toggle(ledger.show("magnification"));
        for (const auto station : advice::stations) ledger.toggle(ledger.indexOf(station));
        document.editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.proof.push_back({}); });
        document.editShot({QStringLiteral("x")},
                          [](shoot::Shot& shot) { shot.capture.mode = shoot::CaptureMode::stack; });
        refresh();
    }
    document.edit({QStringLiteral("x")}, [](shoot::Shoot& shoot) { shoot.shots.erase(0, 3); });
    refresh();
    CHECK(shots.rowCount() == document.count());
    document.edit({QStringLiteral("x")}, [](shoot::Shoot& shoot) { shoot.shots.clear(); });
    refresh();
    CHECK(shots.rowCount() == 0);
    CHECK(ledger.rowCount() == 0);
    while (document.undoStack().canUndo()) document.undoStack().undo();
    CHECK(shots.rowCount() == document.count());
}

TEST_CASE("a dropped card moves its shot", "[desk][models]") {
    Person person;
    person.window().openDemo();
    auto* model = person.find<QListView>(QStringLiteral("shotCards"))->model();
    const auto name = [&](int row) { return model->index(row, 0).data().toString(); };
    const QString first = name(0), third = name(2);
    const std::unique_ptr<QMimeData> data(model->mimeData({model->index(0, 0)}));
    model->dropMimeData(data.get(), Qt::MoveAction, 3, 0, {});
    CHECK(name(2) == first);
    CHECK(name(1) == third);
    CHECK(person.document().current() == 2);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(name(0) == first);
}

TEST_CASE("a click on a number opens its working, a second one closes it", "[desk][ledger]") {
    Person person;
    person.window().openDemo();
    auto* view = &person.margin();
    auto* model = &person.numbers();
    CHECK_FALSE(model->indexOf("working_f_number").isValid());  // of a station that is closed
    person.clickLine(model->indexOf(advice::Station::reach));
    auto index = model->indexOf("working_f_number");
    REQUIRE(index.isValid());
    const int closed = view->visualRect(index).height();
    person.clickLine(index);
    index = model->indexOf("working_f_number");
    CHECK(index.data(desk::LedgerModel::openRole).toBool());
    CHECK(index.data(desk::LedgerModel::formulaRole).toString().startsWith(QStringLiteral("N_w = ")));
    CHECK(index.data(desk::LedgerModel::sourceRole).toString().contains(QStringLiteral("Ray")));
    CHECK(view->visualRect(index).height() > closed + 40);
    const QString before_value = index.data(desk::LedgerModel::valueRole).toString();
    // Stays open while the plan changes, and shows the new numbers.
    const QString before = index.data(desk::LedgerModel::substitutionRole).toString();
    person.document().editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.exposure.f_number = 11; });
    CHECK(model->indexOf("working_f_number").data(desk::LedgerModel::substitutionRole).toString() != before);
    view->setFocus();
    view->setCurrentIndex(model->indexOf("working_f_number"));
    person.key(Qt::Key_Return);
    CHECK_FALSE(model->indexOf("working_f_number").data(desk::LedgerModel::openRole).toBool());
    // What the edit changed says from what, and goes on doing so until the next change.
    CHECK(model->indexOf("working_f_number").data(desk::LedgerModel::wasRole).toString() == before_value);
    person.goTo(3);
    CHECK_FALSE(model->indexOf("working_f_number").isValid());
    CHECK(model->indexOf(advice::Station::depth).row() < model->indexOf(advice::Station::reach).row());
}

TEST_CASE("at the right the station one works at comes first, then what is doubtful with its notes", "[desk][ledger]") {
    Person person;
    person.window().openDemo();
    person.goTo(2);
    auto& model = person.numbers();
    const auto row_of = [&](advice::Station station) { return model.indexOf(station).row(); };
    person.document().editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.exposure.shutter = 0.0005; });
    person.settle();
    REQUIRE(person.hasNote("past-sync"));
    CHECK(row_of(advice::Station::reach) < row_of(advice::Station::light));
    for (const auto station : {advice::Station::subject, advice::Station::depth, advice::Station::run})
        CHECK(row_of(advice::Station::light) < row_of(station));
    CHECK(model.indexOf("past-sync").row() > row_of(advice::Station::light));
    // All headlines stand, open or not, and say how their station stands.
    for (const auto station : advice::stations) {
        REQUIRE(model.indexOf(station).isValid());
        CHECK_FALSE(model.indexOf(station).data(desk::LedgerModel::headlineRole).toString().isEmpty());
        CHECK(model.indexOf(station).data(desk::LedgerModel::statusRole).toInt() ==
              static_cast<int>(advice::status_of(*person.document().assessment(), station)));
    }
    // Enter on the note takes its remedy.
    person.margin().setFocus();
    person.margin().setCurrentIndex(model.indexOf("past-sync"));
    REQUIRE_FALSE(person.remedy("past-sync").isEmpty());
    person.key(Qt::Key_Return);
    CHECK_FALSE(person.hasNote("past-sync"));
}

TEST_CASE("reports of untouched shots are kept, not computed again", "[desk][document]") {
    desk::MainWindow window;
    window.openDemo();
    auto& document = window.document();
    const auto* untouched = &document.report(3);
    document.editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.exposure.f_number = 11; });
    CHECK(&document.report(3) == untouched);
    CHECK(document.report(0).optics.working_f_number > 11);
    document.edit({QStringLiteral("x")}, [](shoot::Shoot& shoot) { shoot.kit.cameras[0].sync = 0.1; });
    CHECK(&document.report(3) != untouched);
    document.open(desk::genericShoot(), {});
}

TEST_CASE("each row at the right is as high as what it paints", "[desk][ledger]") {
    Person person;
    person.window().openDemo();
    auto& view = person.margin();
    auto& model = person.numbers();
    for (const int width : {1280, 1024}) {
        person.window().resize(width, 800);
        person.goTo(4);
        for (int shot = 0; shot < person.document().count(); ++shot) {
            person.document().select(shot);
            person.settle();
            for (int row = 0; row < model.rowCount(); ++row) {
                const auto index = model.index(row);
                INFO(width << ' ' << shot << ' ' << index.data().toString().toStdString());
                const QRect at = view.visualRect(index);
                CHECK(at.width() == view.viewport()->width());
                CHECK(at.height() == view.sizeHintForIndex(index).height());
                if (row > 0) CHECK(at.top() == view.visualRect(model.index(row - 1)).bottom() + 1);
            }
        }
    }
}
