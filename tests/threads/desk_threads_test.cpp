// What the desk hands from one thread to another, without a window: the worker, pictures, copies of unsaved work, runs.
#include "desk/session/autosave.hpp"
#include "desk/session/picture_queue.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/session/search.hpp"
#include "desk/session/worker.hpp"

#include "imaging/parallel.hpp"
#include "proof/inspection.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/benches.hpp"
#include "support/folder.hpp"
#include "support/patience.hpp"
#include "support/runner.hpp"

#include <sys/resource.h>
#include <unistd.h>

#include <QtTest>

#include <catch2/catch.hpp>

#include <algorithm>
#include <atomic>

using namespace poquito;

int main(int argc, char** argv) {
    QTemporaryDir home;
    qputenv("XDG_CONFIG_HOME", home.path().toUtf8());
    qputenv("XDG_DATA_HOME", home.path().toUtf8());
    QCoreApplication application(argc, argv);
    return test::run_tests(argc, argv);
}

TEST_CASE("a worker does its jobs in their order, and drops what is left at the end", "[threads]") {
    std::vector<int> done;
    {
        desk::Worker worker;
        for (int i = 0; i < 200; ++i) worker.add([&done, i] { done.push_back(i); });
        worker.wait();
        REQUIRE(done.size() == 200);
        CHECK(std::is_sorted(done.begin(), done.end()));
        worker.wait();  // nothing to wait for
    }
    std::atomic<int> begun = 0;
    {
        std::atomic<bool> dropped = false;  // every job that waited has gone, which only the end does
        auto waiting = std::shared_ptr<void>(nullptr, [&](void*) { dropped = true; });
        desk::Worker worker;
        worker.add([&] {
            ++begun;
            const auto patience = std::chrono::steady_clock::now() + std::chrono::milliseconds(test::patience);
            while (!dropped && std::chrono::steady_clock::now() < patience) std::this_thread::yield();
        });
        for (int i = 0; i < 50; ++i) worker.add([&begun, waiting] { ++begun; });
        waiting.reset();
        while (begun == 0) std::this_thread::yield();
    }
    CHECK(begun == 1);
}

TEST_CASE("hands share the jobs, and the urgent one goes first", "[threads]") {
    desk::Worker alone;
    std::vector<int> done;
    std::atomic<bool> held = true;
    alone.add([&] {
        while (held) std::this_thread::yield();
    });
    for (int i = 0; i < 6; ++i) alone.add([&done, i] { done.push_back(i); }, i % 3);
    held = false;
    alone.wait();
    CHECK(done == std::vector<int>{2, 5, 1, 4, 0, 3});
    // Two hands: each waits for what the other does.
    desk::Worker two(2);
    std::atomic<int> here = 0;
    for (int i = 0; i < 2; ++i)
        two.add([&here] {
            ++here;
            while (here < 2) std::this_thread::yield();
        });
    two.wait();
    CHECK(here == 2);
}

TEST_CASE("what keeps a pace is as urgent as the interface, and the rest gives way", "[threads]") {
    const auto rank = [] { return getpriority(PRIO_PROCESS, static_cast<id_t>(gettid())); };
    const int here = rank();
    int beside = -1, behind = -1;
    desk::Worker pace(1, desk::Worker::Rank::beside), other;
    pace.add([&] { beside = rank(); });
    other.add([&] { behind = rank(); });
    pace.wait(), other.wait();
    CHECK(beside == here);
    CHECK(behind == std::max(here, 10));
}

TEST_CASE("a search tells how far it is and what it found, stops when asked, and may go meanwhile", "[threads]") {
    int found = -1;
    double share = 0;
    desk::Search<int> search([&](int all) { found = all; }, [&](double now) { share = now; });
    search.begin([](const auto& go_on) {
        int i = 0;
        for (; i < 1000 && go_on(i / 1000.0); ++i) {
        }
        return i;
    });
    CHECK(search.isRunning());
    REQUIRE(QTest::qWaitFor([&] { return !search.isRunning(); }, test::patience));
    CHECK(found == 1000);
    CHECK(share > 0.98);
    CHECK_FALSE(search.wasStopped());
    search.begin([](const auto& go_on) {
        int i = 0;
        while (go_on(0.5)) ++i;
        return -2;
    });
    search.stop();
    REQUIRE(QTest::qWaitFor([&] { return !search.isRunning(); }, test::patience));
    CHECK(found == -2);
    CHECK(search.wasStopped());
    for (int i = 0; i < 20; ++i) {
        desk::Search<int> left([&](int) { FAIL("told to one who has gone"); }, [](double) {});
        left.begin([](const auto& go_on) {
            while (go_on(0.3)) std::this_thread::yield();
            return 0;
        });
    }
    QCoreApplication::processEvents();
}

TEST_CASE("pictures come back on the asking thread, drafts always, the newest last", "[threads]") {
    desk::PictureQueue queue;
    std::vector<int> shown;
    const auto picture = [&](int number) {
        return [&shown, number](const std::function<bool()>& go_on) -> desk::PictureQueue::Show {
            auto made = std::make_shared<std::vector<int>>(1000, number);
            for (int i = 0; i < 20 && go_on(); ++i) std::this_thread::sleep_for(std::chrono::microseconds(50));
            return [&shown, made] { shown.push_back(made->back()); };
        };
    };
    for (int i = 0; i < 30; ++i) {
        queue.render(picture(i), picture(1000 + i));
        QTest::qWait(3);
    }
    REQUIRE(QTest::qWaitFor([&] { return queue.isIdle(); }, test::patience));
    REQUIRE(shown.size() >= 2);
    CHECK(shown.back() == 1029);
    CHECK(shown[shown.size() - 2] == 29);
}

TEST_CASE("a queue may go while it is at a picture", "[threads]") {
    for (int i = 0; i < 10; ++i) {
        desk::PictureQueue queue;
        queue.render({[](const auto&) -> desk::PictureQueue::Show {
                         std::this_thread::sleep_for(std::chrono::milliseconds(2));
                         return [] {};
                     }},
                     {});
        QTest::qWait(i % 3);
    }
}

TEST_CASE("copies of unsaved work are written while editing goes on", "[threads]") {
    QTemporaryDir folder;
    desk::Document document;
    document.open(test::plain_shoot(), {});
    desk::Autosave autosave(document, QDir(folder.path()));
    autosave.setDelay(0);
    for (int i = 0; i < 40; ++i) {
        document.editShot({QStringLiteral("x")}, [i](shoot::Shot& shot) { shot.name = std::to_string(i); });
        QCoreApplication::processEvents();
    }
    autosave.flush();
    const auto copy = storage::load_shoot(autosave.copyPath().toStdString());
    REQUIRE(copy.has_value());
    CHECK(copy.value() == document.shoot());
}

TEST_CASE("runs are watched, held, ended and begun again from the interface's thread", "[threads]") {
    QTemporaryDir folder;
    desk::Document document;
    document.open(test::twelve_frames(), {});
    desk::RunController runs(document);
    runs.setFolder(QDir(folder.path()));
    auto settings = runs.settings();
    settings.speed = 500;
    settings.pictureWidth = 32;
    runs.setSettings(settings);
    const auto ended = [&] { return !runs.isRunning(); };
    runs.start({"one"}, false);
    REQUIRE(QTest::qWaitFor([&] { return runs.status()->frame >= 2; }, test::patience));
    runs.pause();
    REQUIRE(QTest::qWaitFor([&] { return runs.status()->phase == run::Phase::paused; }, test::patience));
    // The document changes meanwhile.
    document.editShot({QStringLiteral("x")}, [](shoot::Shot& shot) { shot.exposure.iso = 400; });
    runs.redoFrom(1);
    runs.resume();
    REQUIRE(QTest::qWaitFor(ended, test::patience));
    REQUIRE(shoot::runs_of(document.shoot().runs, document.shot()->id).size() == 1);
    CHECK(shoot::runs_of(document.shoot().runs, document.shot()->id)[0]->frames.size() == 12);
    for (int i = 0; i < 3; ++i) {
        runs.start({"one"}, true);
        QTest::qWait(20 * i);
        if (i == 2) runs.stop();
        if (i == 2) REQUIRE(QTest::qWaitFor(ended, test::patience));
        runs.shutDown();
        CHECK_FALSE(runs.isRunning());
    }
}

TEST_CASE("frames are looked at by several threads, and told of by the one that asked", "[threads]") {
    const test::Folder folder;
    std::vector<std::filesystem::path> files;
    for (int i = 0; i < 12; ++i) {
        storage::FramePicture picture{.width = 64, .height = 48, .rgb = {}};
        for (int k = 0; k < 64 * 48 * 3; ++k) picture.rgb.push_back(static_cast<unsigned char>((k * (7 + i)) & 0xFF));
        files.push_back(folder.path() / (std::to_string(i) + ".jpg"));
        REQUIRE(storage::replace_file(files.back(), storage::frame_file(picture, {}).value()));
    }
    std::vector<std::size_t> told;  // without a lock: by one thread
    const auto inspection = proof::inspect({.files = files, .singles = true}, [&](std::size_t done, std::size_t) {
        told.push_back(done);
        return true;
    });
    REQUIRE(inspection);
    CHECK(std::ranges::is_sorted(told));
    CHECK(inspection->any_readable());
}

TEST_CASE("loops over rows are shared out, each row once", "[threads]") {
    std::vector<int> rows(1000, 0);  // without a lock: each row is one thread's
    for (const int grain : {1, 16, 700}) {
        std::ranges::fill(rows, 0);
        imaging::for_rows(
            1000, [&](int row) { ++rows[static_cast<std::size_t>(row)]; }, grain);
        CHECK(std::ranges::all_of(rows, [](int times) { return times == 1; }));
    }
    int one = 0, other = 0;
    imaging::at_once([&] { one = 1; }, [&] { other = 2; });
    CHECK(one + other == 3);
}
