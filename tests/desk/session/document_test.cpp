#include "support/person.hpp"

#include "shoot/change/edit.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using desk::Document;

namespace {

shoot::Shoot three_shots() {
    auto shoot = test::plain_shoot();
    for (const char* id : {"two", "three"}) {
        shoot.shots.push_back(shoot.shots.front());
        shoot.shots.back().id = id;
    }
    return shoot;
}

void rename(Document& document, const char* name, const QString& key = {}) {
    document.editShot({QStringLiteral("rename"), key}, [&](shoot::Shot& shot) { shot.name = name; });
}

}  // namespace

TEST_CASE("an edit that changes nothing leaves no step", "[desk][document]") {
    Document document;
    document.open(three_shots(), {});
    document.editShot({QStringLiteral("nothing")}, [](shoot::Shot&) {});
    CHECK_FALSE(document.undoStack().canUndo());
    CHECK_FALSE(document.isUnsaved());
}

TEST_CASE("steps with one key melt, and vanish where they end where they began", "[desk][document]") {
    Document document;
    document.open(three_shots(), {});
    rename(document, "a", QStringLiteral("name"));
    rename(document, "ab", QStringLiteral("name"));
    CHECK(document.undoStack().count() == 1);
    rename(document, "One", QStringLiteral("name"));  // as it was
    CHECK_FALSE(document.undoStack().canUndo());
    rename(document, "b");
    rename(document, "c");
    CHECK(document.undoStack().count() == 2);
}

TEST_CASE("undo goes back to the shot that was edited", "[desk][document]") {
    Document document;
    document.open(three_shots(), {});
    document.select(2);
    rename(document, "edited");
    document.select(0);
    document.undoStack().undo();
    CHECK(document.current() == 2);
    CHECK(document.shot()->name == "One");
    document.undoStack().redo();
    CHECK(document.current() == 2);
    CHECK(document.shot()->name == "edited");
}

TEST_CASE("the selection stays inside the shoot", "[desk][document]") {
    Document document;
    document.open(three_shots(), {});
    document.select(2);
    document.select(7);
    document.select(-1);
    CHECK(document.current() == 2);
    document.edit({QStringLiteral("cut")}, [](shoot::Shoot& shoot) { shoot.shots.erase(1, shoot.shots.size()); });
    CHECK(document.current() == 0);
    document.edit({QStringLiteral("cut")}, [](shoot::Shoot& shoot) { shoot.shots.clear(); });
    CHECK(document.current() == -1);
    CHECK(document.shot() == nullptr);
    CHECK(document.report() == nullptr);
    rename(document, "nobody");  // there is no shot to edit
    CHECK(document.count() == 0);
    document.undoStack().undo();
    CHECK(document.count() == 1);
    CHECK(document.shot() != nullptr);
}

TEST_CASE("unsaved is what differs from the file, recovered work always", "[desk][document]") {
    Document document;
    QSignalSpy changes(&document, &Document::unsavedChanged);
    document.open(three_shots(), QStringLiteral("/a.poquito"));
    CHECK_FALSE(document.isUnsaved());
    rename(document, "x");
    CHECK(document.isUnsaved());
    document.setSaved(QStringLiteral("/b.poquito"));
    CHECK_FALSE(document.isUnsaved());
    CHECK(document.path() == QStringLiteral("/b.poquito"));
    document.undoStack().undo();
    CHECK(document.isUnsaved());
    document.undoStack().redo();
    CHECK_FALSE(document.isUnsaved());
    document.recover(three_shots(), QStringLiteral("/a.poquito"));
    CHECK(document.isUnsaved());
    CHECK_FALSE(document.undoStack().canUndo());
    CHECK(changes.count() >= 4);
}

TEST_CASE("a snapshot does not change under whoever holds it", "[desk][document]") {
    Document document;
    document.open(three_shots(), {});
    const auto before = document.snapshot();
    const auto assessment = document.sharedAssessment(0);
    const auto ring = assessment->report.optics.ring;
    rename(document, "x");
    document.editShot({QStringLiteral("tube")}, [](shoot::Shot& shot) { shot.rig.tubes = {"t20"}; });
    CHECK(before->shots[0].name == "One");
    CHECK(before->shots[0].rig.tubes.empty());
    CHECK(assessment->report.optics.ring == ring);
    CHECK(document.report()->optics.ring < ring);  // the tube does part of the work
}

TEST_CASE("the history is bounded, and undo gives back every shoot on the way as it was", "[desk][document][undo]") {
    Document document;
    document.open(three_shots(), {});
    test::Random random(3);
    std::vector<shoot::Shoot> seen = {document.shoot()};
    for (int i = 0; i < 60; ++i) {
        const int kind = random.whole(0, 4);
        document.edit({QStringLiteral("x"), kind == 4 ? QStringLiteral("same") : QString()}, [&](shoot::Shoot& shoot) {
            if (kind == 0) shoot.title += "x";
            if (kind == 1) shoot.kit.lenses[0].name += "y";
            if (kind == 2) shoot.shots.insert(0, shoot.shots.front());
            if (kind == 2) shoot.shots.front().id += "z" + std::to_string(i);
            if (kind == 3 && shoot.shots.size() > 2) shoot.shots.erase(shoot.shots.size() - 1);
            if (kind == 4) shoot.shots[0].exposure.iso += 1, shoot.shots.back().name += "w";
        });
        const auto steps = static_cast<std::size_t>(document.undoStack().count());
        seen.resize(steps);  // melted into the step before
        seen.push_back(document.shoot());
    }
    REQUIRE(seen.size() > 40);
    for (std::size_t i = seen.size(); i-- > 1;) {
        CHECK(document.shoot() == seen[i]);
        document.undoStack().undo();
    }
    CHECK(document.shoot() == seen[0]);
    for (std::size_t i = 1; i < seen.size(); ++i) {
        document.undoStack().redo();
        CHECK(document.shoot() == seen[i]);
    }
    for (int i = 0; i < Document::most_steps + 50; ++i) rename(document, std::to_string(i).c_str());
    CHECK(document.undoStack().count() == Document::most_steps);
}

TEST_CASE("an edit copies no record of a run", "[desk][document]") {
    Document document;
    auto shoot = three_shots();
    shoot.runs[shoot.shots[0].id] = {
        shoot::RunRecord{.id = "one-1", .frames = std::vector<shoot::ExposedFrame>(10000)}};
    document.open(shoot, {});
    const auto* before = &*document.shoot().runs.begin()->second[0];
    rename(document, "a");
    rename(document, "b");
    CHECK(&*document.shoot().runs.begin()->second[0] == before);
    document.undoStack().undo();
    CHECK(&*document.shoot().runs.begin()->second[0] == before);
}

TEST_CASE("the runs of a shot go with it and come back with it, and a copy of it has none", "[desk][document]") {
    Document document;
    auto shoot = three_shots();
    const auto id = std::as_const(shoot.shots)[1].id;
    shoot.runs[id] = {shoot::RunRecord{.id = "two-1"}};
    document.open(shoot, {});
    document.edit({QStringLiteral("copy")}, [](shoot::Shoot& changed) { shoot::duplicate_shot(changed, 1); });
    CHECK(shoot::runs_of(document.shoot().runs, document.shoot().shots[2].id).empty());
    document.edit({QStringLiteral("cut")}, [](shoot::Shoot& changed) { shoot::remove_shot(changed, 1); });
    CHECK(document.shoot().runs.empty());
    document.undoStack().undo();
    CHECK(shoot::runs_of(document.shoot().runs, id).size() == 1);
}

TEST_CASE("an edit of one shot leaves the others the very same objects, in the history too", "[desk][document]") {
    Document document;
    document.open(three_shots(), {});
    const auto before = document.snapshot();
    document.select(1);
    document.editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.exposure.iso = 800; });
    CHECK(document.shoot().shots.shares(0, before->shots, 0));
    CHECK_FALSE(document.shoot().shots.shares(1, before->shots, 1));
    CHECK(document.shoot().shots.shares(2, before->shots, 2));
    document.undoStack().undo();
    for (std::size_t i = 0; i < 3; ++i) CHECK(document.shoot().shots.shares(i, before->shots, i));
}
