// The second half of the work, in the real window: frames are looked at, mended on the bench, kept, set aside.
#include "desk/proof/proof_page.hpp"
#include "desk/proof/coverage_map.hpp"
#include "desk/proof/frame_strip.hpp"
#include "desk/proof/frame_view.hpp"
#include "desk/proof/frames_panel.hpp"
#include "desk/proof/held_frame.hpp"
#include "desk/proof/proof_notes.hpp"
#include "desk/session/frame_pictures.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/shell/shot_cards.hpp"
#include "storage/atomic_file.hpp"
#include "support/person.hpp"
#include "support/photographs.hpp"

#include <QImageReader>

#include <filesystem>

using namespace poquito;
using namespace poquito::desk;
using test::Person;
using test::Photographs;

namespace {

/// A person at Proof.
class Prover : public Person {
  public:
    Prover() {
        window().openDemo();
        document().select(1);  // the brooch, a stack by rail
        window().runs().setFolder(QDir(folder_.path()));
        auto settings = window().runs().settings();
        settings.speed = 1000;
        settings.pictureWidth = 480;
        window().runs().setSettings(settings);
    }

    const std::string& shotId() { return document().shot()->id; }
    void waitForRun() {
        REQUIRE(QTest::qWaitFor([&] { return !window().runs().isRunning(); }, test::patience));
    }
    void waitForLook() {
        REQUIRE(QTest::qWaitFor([&] { return !window().proof().isBusy(); }, test::patience));
        settle();
    }
    const ProofLook& look() {
        const auto* found = window().proof().look(shotId());
        REQUIRE(found);
        return *found;
    }
    FramesPanel& frames() { return *find<ProofPage>(QStringLiteral("ProofPage"))->frames(); }
    void waitForPictures() {
        REQUIRE(QTest::qWaitFor([&] { return frames().isSettled(); }, test::patience));
    }
    const proof::Note* note(proof::Code code) {
        for (const auto& one : look().notes)
            if (one.code == code) return &one;
        return nullptr;
    }
    int rowOf(proof::Code code) {
        const auto& notes = find<ProofNotes>(QStringLiteral("proofNotes"))->notes();
        for (std::size_t i = 0; i < notes.size(); ++i)
            if (notes[i].code == code) return static_cast<int>(i);
        return -1;
    }
    void drop(const QStringList& paths) {
        QMimeData data;
        QList<QUrl> urls;
        for (const auto& path : paths) urls << QUrl::fromLocalFile(path);
        data.setUrls(urls);
        QDragEnterEvent enter(QPoint(600, 400), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window(), &enter);
        CHECK(enter.isAccepted());
        QDropEvent event(QPointF(600, 400), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window(), &event);
        settle();
    }
    QString path() const { return folder_.path(); }

  private:
    QTemporaryDir folder_;
};

const Photographs& scene() {
    static const Photographs made({.width = 360, .height = 240});
    return made;
}

std::string bytesOf(double focus, int number) {
    return storage::frame_file(scene().picture({.focus = focus}, number),
                               {.f_number = 5.6, .shutter = 1.0 / 160, .iso = 100, .focal_length = 90, .flash = true})
        .value();
}

/// Frames of a stack as a camera numbers them.
std::vector<std::filesystem::path> putStack(const QString& folder, const std::vector<double>& focuses) {
    std::vector<std::filesystem::path> files;
    for (std::size_t i = 0; i < focuses.size(); ++i) {
        const auto path = std::filesystem::path(folder.toStdString()) /
                          QStringLiteral("IMG_%1.jpg").arg(i + 1, 4, 10, QLatin1Char('0')).toStdString();
        REQUIRE(storage::replace_file(path, bytesOf(focuses[i], static_cast<int>(i))));
        files.push_back(path);
    }
    return files;
}

}  // namespace

TEST_CASE("frames of a camera that was turned stand the right way up, and so do the places in them", "[desk][proof]") {
    QTemporaryDir folder;
    const auto path = std::filesystem::path(folder.path().toStdString()) / "turned.jpg";
    constexpr QSize size(6, 4);
    QImage marked(size, QImage::Format_RGB32);
    for (int y = 0; y < size.height(); ++y)
        for (int x = 0; x < size.width(); ++x) marked.setPixel(x, y, qRgb(10 * x, 10 * y, 100));
    for (int orientation = 0; orientation <= 9; ++orientation) {
        INFO(orientation);
        // Against the reader of the library, which turns by the same tag.
        const auto bytes = storage::frame_file(scene().picture({.focus = 0}, 0), {.orientation = orientation});
        REQUIRE(storage::replace_file(path, bytes.value()));
        QImageReader lying(QString::fromStdString(path.string())), upright(QString::fromStdString(path.string()));
        lying.setAutoTransform(false);
        upright.setAutoTransform(true);
        const auto file = lying.read(), wanted = upright.read();
        REQUIRE_FALSE(wanted.isNull());
        CHECK(turnedUp(file, orientation) == wanted);
        CHECK(turnedUp(file.size(), orientation) == wanted.size());
        const auto frame = FramePictures::read(path, FramePictures::Kind::pixels);
        CHECK(frame.convertToFormat(wanted.format()) == wanted);
        // Each pixel is found where its place is said to lie.
        const auto turned = turnedUp(marked, orientation);
        for (int y = 0; y < size.height(); ++y)
            for (int x = 0; x < size.width(); ++x) {
                const auto there = turnedUp(QRectF(x, y, 1, 1), size, orientation);
                CHECK(there.size() == QSizeF(1, 1));
                CHECK(turned.pixel(there.topLeft().toPoint()) == marked.pixel(x, y));
            }
    }
}

TEST_CASE("a flash that misses and a knock are found, what is missing is run, and the stack is whole",
          "[desk][proof][story][long]") {
    Prover person;
    auto settings = person.window().runs().settings();
    // The seventh frame dark, and dark again when the run takes it once more; the subject slips before the thirteenth.
    settings.rehearsed.emplace();
    for (const char* trouble : {"flash-not-ready@6", "subject-moves@12:1", "flash-not-ready@20"})
        settings.rehearsed->exactly.push_back(*devices::parse_mishap(trouble));
    settings.pictureWidth = 960;  // so wide that noise hides more in the dark frame than in those beside it
    person.window().runs().setSettings(settings);
    person.goTo(5);
    person.click(QStringLiteral("startRunButton"));
    person.waitForRun();
    person.waitForLook();  // begins by itself
    person.click(QStringLiteral("leaveRunButton"));
    person.goTo(6);
    CHECK_FALSE(
        person.window().findChild<QWidget*>(QStringLiteral("ledger"))->isVisible());  // the picture has the room
    REQUIRE(person.look().inspection);
    CHECK(person.look().frames.files.size() == 20);

    const auto* dark = person.note(proof::Code::uneven);
    REQUIRE(dark);
    CHECK(dark->frames == std::vector<std::size_t>{6});
    CHECK(dark->action == "Take frame 7 again");
    const auto* moved = person.note(proof::Code::moved);
    REQUIRE(moved);
    CHECK(moved->frames == std::vector<std::size_t>{6, 12, 13, 14, 15, 16, 17, 18, 19});
    CHECK_FALSE(person.note(proof::Code::gap));
    CHECK_FALSE(person.note(proof::Code::blurred));
    CHECK_FALSE(person.note(proof::Code::end_open));
    CHECK(person.text(QStringLiteral("proofVerdict"))
              .startsWith(QStringLiteral("Mend it while the set stands: 9 frames")));

    // A click on a note goes to its frame.
    auto* notes = person.find<ProofNotes>(QStringLiteral("proofNotes"));
    const int row = person.rowOf(proof::Code::uneven);
    person.clickRow(notes, notes->model()->index(row, 0));
    CHECK(person.frames().current() == 6);
    CHECK(person.text(QStringLiteral("frameTitle")) == QStringLiteral("Frame 7 of 20"));

    person.click(QStringLiteral("takeAgainButton"));
    person.waitForRun();
    person.waitForLook();
    person.click(QStringLiteral("leaveRunButton"));
    CHECK(shoot::runs_of(person.document().shoot().runs, person.shotId()).back()->id.ends_with("-retake"));
    CHECK(person.look().frames.files.size() == 20);  // in the place of those that were wrong
    CHECK_FALSE(person.note(proof::Code::uneven));
    CHECK_FALSE(person.note(proof::Code::moved));
    CHECK(person.look().summary.to_take == 0);
    CHECK(person.look().summary.outcome == proof::Outcome::whole);
    CHECK_FALSE(person.find<QWidget>(QStringLiteral("takeAgainButton"))->isVisible());

    person.frames().view()->setFocus();
    person.key(Qt::Key_K);
    REQUIRE(person.shot().proof.size() == 1);
    CHECK(person.shot().proof.front().verdict == shoot::Verdict::keep);
    CHECK(person.shot().proof.front().frames == 20);
    person.trigger(QStringLiteral("undoAction"));
    CHECK(person.shot().proof.empty());
}

TEST_CASE("frames that no shot was planned like are asked for, once", "[desk][proof]") {
    Prover person;
    QTemporaryDir card;
    // Two seconds at f/22: nothing in the demo is planned so.
    for (int i = 0; i < 14; ++i)
        REQUIRE(storage::replace_file(
            std::filesystem::path(card.path().toStdString()) / ("A" + std::to_string(100 + i) + ".jpg"),

            storage::frame_file(scene().picture({.focus = static_cast<double>(i)}, i),
                                {.f_number = 22, .shutter = 2, .iso = 100, .focal_length = 90, .flash = false})
                .value()));
    const auto before = person.shotId();
    person.drop({card.path()});
    person.waitForLook();
    const auto asked = [&] { return person.find<QWidget>(QStringLiteral("whoseFrames"))->isVisible(); };
    REQUIRE(asked());
    auto* whose = person.find<QComboBox>(QStringLiteral("whoseFramesChoice"));
    CHECK(whose->currentText().toStdString() == person.shot().name);
    const auto other = person.document().shoot().shots[2];
    REQUIRE(other.id != before);
    person.choose(QStringLiteral("whoseFramesChoice"), QString::fromStdString(other.name));
    person.click(QStringLiteral("whoseFramesButton"));
    CHECK(person.shotId() == other.id);
    CHECK_FALSE(person.window().proof().look(before));
    CHECK_FALSE(asked());
    person.waitForLook();
    CHECK(person.look().facts.size() == 14);
    CHECK_FALSE(asked());
    // Of the one that was taken for theirs: not asked again, and they stay.
    person.drop({card.path()});
    person.waitForLook();
    REQUIRE(asked());
    // Asked of two shots at once, each says its own.
    person.document().select(0);
    person.drop({card.path()});
    person.waitForLook();
    REQUIRE(asked());
    CHECK(whose->currentText().toStdString() == person.shot().name);
    person.document().select(2);
    person.settle();
    REQUIRE(asked());
    CHECK(whose->currentText().toStdString() == other.name);
    person.click(QStringLiteral("whoseFramesButton"));
    CHECK_FALSE(asked());
    CHECK(person.shotId() == other.id);
    CHECK(person.look().facts.size() == 14);
}

TEST_CASE("frames that are dropped are looked at, and keys go through them", "[desk][proof]") {
    Prover person;
    QTemporaryDir card;
    // Two frames of the stack were never taken, and one file is cut off.
    auto files = putStack(card.path(), {0, 1, 2, 3, 4, 5, 8, 9, 10, 11, 12, 13});
    std::filesystem::resize_file(files.back(), 2000);
    person.drop({card.path()});
    CHECK(person.find<QWidget>(QStringLiteral("ProofPage"))->isVisible());
    person.waitForLook();
    person.waitForPictures();
    REQUIRE(person.look().facts.size() == 12);
    const auto* gap = person.note(proof::Code::gap);
    REQUIRE(gap);
    CHECK(gap->frames == std::vector<std::size_t>{5, 6});
    const auto* cut = person.note(proof::Code::unreadable);
    REQUIRE(cut);
    CHECK(cut->frames == std::vector<std::size_t>{11});

    auto& frames = person.frames();
    frames.view()->setFocus();
    CHECK(frames.current() == 0);
    person.key(Qt::Key_Right);
    person.key(Qt::Key_Right);
    CHECK(frames.current() == 2);
    person.key(Qt::Key_Left);
    CHECK(frames.current() == 1);
    person.key(Qt::Key_End);
    CHECK(frames.current() == 11);  // the one that cannot be read: words in its place, no crash
    person.key(Qt::Key_Right);
    CHECK(frames.current() == 11);
    person.key(Qt::Key_Home);
    person.key(Qt::Key_Space);
    CHECK(frames.shows() == FramesPanel::Show::plan);
    person.key(Qt::Key_Space);
    CHECK(frames.shows() == FramesPanel::Show::frame);
    const double whole = frames.view()->scale();
    person.key(Qt::Key_Plus);
    CHECK(frames.view()->scale() > whole);
    person.key(Qt::Key_Right);
    CHECK(frames.view()->scale() > whole);  // the next at the same place: that is how one compares
    person.key(Qt::Key_C);
    CHECK(frames.shows() == FramesPanel::Show::composite);
    person.waitForPictures();
    person.key(Qt::Key_D);
    CHECK(frames.shows() == FramesPanel::Show::depth);
    person.key(Qt::Key_S);
    CHECK(frames.shows() == FramesPanel::Show::sharp);

    // A place of the map is gone to in the frame that has it sharp.
    auto* map = person.find<CoverageMap>(QStringLiteral("coverageMap"));
    QTest::mouseClick(map, Qt::LeftButton, {}, QPoint(map->width() / 2, map->height() / 2 - 10));
    CHECK(frames.view()->scale() >= 1);
    // The strip too.
    auto* strip = person.find<FrameStrip>(QStringLiteral("frameStrip"));
    QTest::mouseClick(strip, Qt::LeftButton, {}, strip->cellRect(4).center().toPoint());
    CHECK(frames.current() == 4);

    // Another shoot knows nothing of them, though its shots have the same ids; also when it is opened from elsewhere.
    person.window().openDemo();
    person.settle();
    person.document().select(1);
    CHECK_FALSE(person.window().proof().look(person.shotId()));
    person.drop({card.path()});
    person.goTo(1);
    person.window().openDemo();
    person.document().select(1);
    person.goTo(6);
    CHECK_FALSE(person.window().proof().isBusy());
    CHECK(person.text(QStringLiteral("frameTitle")) == QStringLiteral("The plan's picture"));
}

TEST_CASE("two frames stand side by side at the same place, and one beside the plan", "[desk][proof]") {
    Prover person;
    QTemporaryDir card;
    putStack(card.path(), {0, 1, 2});
    person.drop({card.path()});
    person.waitForLook();
    auto& frames = person.frames();
    const auto* held = person.find<HeldFrame>(QStringLiteral("heldFrame"));
    CHECK_FALSE(held->isVisible());
    frames.view()->setFocus();
    person.key(Qt::Key_Plus);
    const double near_by = frames.view()->scale();
    person.key(Qt::Key_H);
    CHECK(frames.view()->scale() == Approx(near_by));  // in half the room, from as near
    CHECK(held->isVisible());
    CHECK(held->file() == person.look().frames.files[0]);
    CHECK(frames.current() == 1);  // the next one beside it
    CHECK(held->scale() == Approx(frames.view()->scale()));
    person.key(Qt::Key_Plus);
    CHECK(held->scale() == Approx(frames.view()->scale()));
    CHECK(held->placeAt(QPointF(0, 0)).x() == Approx(frames.view()->placeAt(QPointF(0, 0)).x()).margin(1));
    person.key(Qt::Key_Right);
    CHECK(frames.current() == 2);
    CHECK(held->file() == person.look().frames.files[0]);
    person.key(Qt::Key_Space);
    CHECK(frames.shows() == FramesPanel::Show::plan);
    CHECK(held->isVisible());
    person.key(Qt::Key_H);
    CHECK_FALSE(held->isVisible());
    person.key(Qt::Key_H);
    person.document().select(2);  // another shot holds none of these
    person.settle();
    CHECK_FALSE(held->isVisible());
}

TEST_CASE("what the frames teach of a flash is offered, taken into the kit when asked for, and undone",
          "[desk][proof]") {
    Prover person;
    person.goTo(5);
    person.click(QStringLiteral("startRunButton"));
    person.waitForRun();
    person.waitForLook();
    person.click(QStringLiteral("leaveRunButton"));
    person.goTo(6);
    CHECK(person.look().offers.empty());
    // The plan now thinks the brooch lighter, at the same power: the frames look too dark for it.
    const auto id = person.shotId();
    person.document().edit({QStringLiteral("lighter")}, [&](shoot::Shoot& shoot) {
        auto& shot = shoot.shots[1];
        shot.lights.erase(shot.lights.begin() + 1, shot.lights.end());
        shot.lights[0].power = 1.0 / 32;
        shot.subject.reflectance = std::min(0.9, 1.6 * shot.subject.reflectance);
    });
    person.window().proof().judgeAgain(id);
    person.waitForLook();
    REQUIRE(person.look().offers.size() == 1);
    auto* notes = person.find<ProofNotes>(QStringLiteral("proofNotes"));
    int row = -1;
    for (std::size_t i = 0; i < notes->notes().size(); ++i)
        if (notes->notes()[i].offer) row = static_cast<int>(i);
    REQUIRE(row >= 0);
    const auto corrections = [&] {
        const auto& shoot = person.document().shoot();
        return std::ranges::find(shoot.kit.flashes, shoot.shots[1].lights[0].flash, &gear::Flash::id)->corrections;
    };
    const auto before = corrections().size();
    notes->setFocus();
    notes->setCurrentIndex(notes->model()->index(row, 0));
    QTest::keyClick(notes, Qt::Key_Return, Qt::ControlModifier);
    person.waitForLook();
    CHECK(corrections().size() == before + 1);
    CHECK(corrections().back().stops < -0.3);
    CHECK(person.look().offers.empty());  // known since
    person.trigger(QStringLiteral("undoAction"));
    CHECK(corrections().size() == before);
}

TEST_CASE("a frame is set aside beside the others, never deleted, and brought back", "[desk][proof]") {
    Prover person;
    QTemporaryDir card;
    const auto files = putStack(card.path(), {0, 1, 2, 3});
    person.drop({card.path()});
    person.waitForLook();
    person.frames().goTo(std::size_t{1});
    person.frames().view()->setFocus();
    person.key(Qt::Key_A);
    person.waitForLook();
    CHECK_FALSE(std::filesystem::exists(files[1]));
    const auto aside = files[1].parent_path() / "set aside" / files[1].filename();
    CHECK(std::filesystem::exists(aside));
    CHECK(person.look().frames.files.size() == 3);
    person.key(Qt::Key_A, Qt::ShiftModifier);
    person.waitForLook();
    CHECK(std::filesystem::exists(files[1]));
    CHECK_FALSE(std::filesystem::exists(aside));
    CHECK(person.look().frames.files == files);
    // Where it cannot be moved, it says so and nothing is lost.
    std::filesystem::remove(files[2]);
    person.frames().goTo(std::size_t{2});
    CHECK_FALSE(person.window().proof().setAside(person.shotId(), 2));
    CHECK(person.look().frames.files.size() == 4);
}

TEST_CASE("a folder of many stacks is sorted, and keys go through it", "[desk][proof]") {
    Prover person;
    QTemporaryDir card;
    const auto put = [&](const std::vector<double>& focuses, int minute, double iso) {
        static int number = 0;
        for (std::size_t i = 0; i < focuses.size(); ++i) {
            const auto path = std::filesystem::path(card.path().toStdString()) /
                              QStringLiteral("IMG_%1.jpg").arg(++number, 4, 10, QLatin1Char('0')).toStdString();
            const auto time = QStringLiteral("2026-06-01T10:%1:%2")
                                  .arg(minute, 2, 10, QLatin1Char('0'))
                                  .arg(i, 2, 10, QLatin1Char('0'));
            REQUIRE(storage::replace_file(
                path,
                storage::frame_file(
                    scene().picture({.focus = focuses[i]}, number),
                    {.time = time.toStdString(), .f_number = 5.6, .shutter = 1.0 / 160, .iso = iso, .focal_length = 90})
                    .value()));
        }
    };
    const std::vector<double> whole = {0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13};
    auto gap = whole;
    gap.erase(gap.begin() + 6, gap.begin() + 8);
    put(gap, 1, 12345);
    put(whole, 5, 12345);
    put({4}, 9, 12345);
    person.drop({card.path()});
    person.waitForLook();
    auto* list = person.find<QListView>(QStringLiteral("sortingList"));
    REQUIRE(list->isVisible());
    REQUIRE(list->model()->rowCount() == 3);
    // What came first was chosen, and stays so though better ones came in before it.
    CHECK(list->currentIndex().row() == 2);
    const auto words = [&](int row) { return list->model()->index(row, 0).data().toString(); };
    CHECK(words(0).endsWith(QStringLiteral("whole")));
    CHECK(words(2) == QStringLiteral("stack of 12, to be mended: a gap"));
    // No plan has that ISO: it is asked, once.
    auto& rows = person.window().proof().sorted();
    CHECK(rows[2].shot.empty());
    list->setFocus();
    list->setCurrentIndex(list->model()->index(2, 0));
    person.key(Qt::Key_K);  // of no shot: nothing to note it at
    CHECK(rows[2].decision == desk::ProofController::Decision::open);
    person.choose(QStringLiteral("sortingShotChoice"), QStringLiteral("Fossil urchin"));
    REQUIRE(rows[2].shot == person.document().shoot().shots[0].id);
    // What an edit does to the order of the shots meanwhile changes nothing of whose the frames are.
    const auto id = person.document().shoot().shots[0].id;
    person.document().edit({QStringLiteral("another first")}, [](shoot::Shoot& shoot) {
        auto other = std::as_const(shoot).shots[0];
        other.id = "another", other.name = "Another";
        shoot.shots.insert(0, other);
    });
    list->setFocus();
    person.key(Qt::Key_R);
    CHECK(rows[2].decision == desk::ProofController::Decision::redo);
    CHECK(person.document().shoot().shots[0].proof.empty());
    const auto& urchin = person.document().shoot().shots[1];
    REQUIRE(urchin.id == id);
    REQUIRE(urchin.proof.size() == 1);
    CHECK(urchin.proof.front().verdict == shoot::Verdict::redo);
    CHECK(urchin.proof.front().remark == "a gap");
    // Its card says so, though its frames are not opened at it.
    CHECK(desk::outcomeOf(urchin, nullptr).words == QStringLiteral("to be redone"));
    CHECK(desk::outcomeOf(urchin, nullptr).bad);
    CHECK(desk::outcomeOf(person.document().shoot().shots[2], nullptr).words == QStringLiteral("not looked at"));
    // Set aside, all of it, and brought back.
    const auto first = rows[2].sorted.sequence.files.front();
    person.key(Qt::Key_A);
    CHECK_FALSE(std::filesystem::exists(first));
    const auto aside = first.parent_path() / "set aside" / first.filename();
    CHECK(std::filesystem::exists(aside));
    // Another frame got the name of one of them meanwhile: both stay, and the rest comes back.
    REQUIRE(storage::replace_file(first, "another"));
    person.key(Qt::Key_A, Qt::ShiftModifier);
    CHECK(storage::read_file(first).value() == "another");
    CHECK(std::filesystem::exists(aside));
    CHECK(std::filesystem::exists(rows[2].sorted.sequence.files.back()));
    CHECK(person.text(QStringLiteral("problemText")).contains(QStringLiteral("both are kept")));
    std::filesystem::remove(first);
    person.key(Qt::Key_A, Qt::ShiftModifier);
    CHECK_FALSE(std::filesystem::exists(aside));
    CHECK(rows[2].decision == desk::ProofController::Decision::open);
    for (const auto& file : rows[2].sorted.sequence.files) CHECK(std::filesystem::exists(file));
    // Large, at its shot, and back to the list.
    list->setCurrentIndex(list->model()->index(2, 0));
    person.key(Qt::Key_Return);
    person.waitForLook();
    CHECK(person.document().current() == 1);
    CHECK(person.look().frames.files.size() == 12);
    CHECK(person.note(proof::Code::gap));
    person.click(QStringLiteral("toSortingButton"));
    CHECK(list->isVisible());
    person.key(Qt::Key_Escape);
    CHECK_FALSE(list->isVisible());
}

TEST_CASE("a hundred frames that are copied into a watched folder are looked at as they come", "[desk][proof]") {
    Prover person;
    person.goTo(6);
    QTemporaryDir card;
    REQUIRE(storage::replace_file(std::filesystem::path(card.path().toStdString()) / "before.jpg", bytesOf(0, 0)));
    person.window().proof().watch(card.path());
    const auto bytes = bytesOf(3, 1);
    constexpr int count = 100;
    for (int i = 0; i < count; ++i) {
        QFile file(card.filePath(QStringLiteral("C%1.jpg").arg(i, 4, 10, QLatin1Char('0'))));
        REQUIRE(file.open(QIODevice::WriteOnly));
        // Half of it now, the rest a moment later: a frame that is not whole yet is not looked at.
        const auto half = static_cast<qint64>(bytes.size() / 2);
        file.write(bytes.data(), half);
        file.flush();
        QTest::qWait(8);
        file.write(bytes.data() + half, static_cast<qint64>(bytes.size()) - half);
    }
    REQUIRE(QTest::qWaitFor(
        [&] {
            const auto* look = person.window().proof().look(person.shotId());
            return look && look->frames.files.size() == count && look->inspection;
        },
        test::patience));
    for (const auto& facts : person.look().facts) {
        REQUIRE(facts);
        CHECK(facts->scan);  // none was read while half of it was there
    }
    person.window().proof().watch({});
}

TEST_CASE("looking is ended by a click, and by closing the window", "[desk][proof]") {
    QTemporaryDir card;
    const auto files = putStack(card.path(), std::vector<double>(60, 2.0));
    {
        Prover person;
        person.drop({card.path()});
        REQUIRE(
            QTest::qWaitFor([&] { return person.window().proof().look(person.shotId()) != nullptr; }, test::patience));
        person.click(QStringLiteral("cancelProofButton"));
        CHECK_FALSE(person.window().proof().isBusy());
        CHECK(person.text(QStringLiteral("proofProgress")).startsWith(QStringLiteral("stopped: ")));
        person.click(QStringLiteral("lookAgainButton"));
        CHECK(person.window().proof().isBusy());
    }
    SUCCEED();  // the window went while it looked
}
