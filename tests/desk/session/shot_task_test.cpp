// What is looked for aside is of the shot as it is, or says that it is not.
#include "desk/session/shot_task.hpp"
#include "support/person.hpp"
#include "support/shoots.hpp"

#include <semaphore>

using namespace poquito;
using desk::Document;

namespace {

shoot::Shoot two_shots() {
    auto shoot = test::plain_shoot();
    shoot.shots.push_back(std::as_const(shoot.shots)[0]);
    shoot.shots.back().id = "two";
    return shoot;
}

}  // namespace

TEST_CASE("what is found aside is shown for its own shot alone, and an edit is looked for anew", "[desk][document]") {
    Document document;
    document.open(two_shots(), {});
    const std::string first = document.shot()->id;
    int told = 0;
    desk::ShotTask<std::string> task(
        document,
        [](const advice::Assessment& now) {
            return now.report.id + " f/" + std::to_string(now.plan.shot.exposure.f_number);
        },
        [&] { ++told; });
    CHECK(task.found() == nullptr);
    task.refresh();
    REQUIRE(QTest::qWaitFor([&] { return task.isCurrent(); }, test::patience));
    CHECK(told == 1);
    CHECK(task.found()->starts_with(first + " f/8"));
    task.refresh();  // the same shot is not looked at twice
    QCoreApplication::processEvents();
    CHECK(told == 1);
    document.editShot({QStringLiteral("stop")}, [](shoot::Shot& shot) { shot.exposure.f_number = 11; });
    CHECK_FALSE(task.isCurrent());
    REQUIRE(task.found());  // of before, until then
    CHECK(task.found()->starts_with(first + " f/8"));
    task.refresh();
    REQUIRE(QTest::qWaitFor([&] { return task.isCurrent(); }, test::patience));
    CHECK(task.found()->starts_with(first + " f/11"));
    document.select(1);
    CHECK(task.found() == nullptr);
    task.refresh();
    REQUIRE(QTest::qWaitFor([&] { return task.isCurrent(); }, test::patience));
    CHECK(task.found()->starts_with("two f/8"));
}

TEST_CASE("what was found while another shot was selected is there when one comes back", "[desk][document]") {
    Document document;
    document.open(two_shots(), {});
    std::binary_semaphore go_on(0);
    int told = 0;
    desk::ShotTask<int> task(
        document,
        [&](const advice::Assessment&) {
            go_on.acquire();
            return 7;
        },
        [&] { ++told; });
    task.refresh();
    document.select(1);  // by who does not ask of it
    go_on.release();
    QTest::qWait(50);  // the more, the likelier it is handed over; what follows holds either way
    document.select(0);
    task.refresh();
    REQUIRE(QTest::qWaitFor([&] { return task.isCurrent(); }, test::patience));
    CHECK(*task.found() == 7);
}
