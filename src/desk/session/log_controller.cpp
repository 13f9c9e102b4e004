#include "desk/session/log_controller.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "log/demo_year.hpp"
#include "log/exchange.hpp"
#include "log/record.hpp"
#include "plan/assess.hpp"
#include "render/finder.hpp"
#include "render/scene.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_file.hpp"
#include "storage/shoot_file.hpp"
#include "text/text.hpp"

#include <QDateTime>
#include <QDir>
#include <QPointer>
#include <QStandardPaths>

#include <algorithm>
#include <atomic>
#include <map>
#include <utility>

namespace poquito::desk {
namespace {

constexpr const char* demo_file = "made-up-year-3.db";  // another number for another year

QString usualPath() {
    return QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation))
        .filePath(QStringLiteral("logbook.db"));
}

/// The finder's picture of a shot, small; empty: it has none.
std::string picture_of(const shoot::Shoot& shoot, const shoot::Shot& shot) {
    const auto plan = plan::plan_of(shoot.kit, shot, shoot::terms_of(shoot, shot));
    const auto scene = render::scene_of(plan, plan::assess(plan));
    if (!scene) return {};
    constexpr int across = 240;
    const bool upright = scene->frame_height > scene->frame_width;
    const double shape = scene->frame_height / scene->frame_width;
    const int width = upright ? qRound(across / shape) : across, height = upright ? across : qRound(across * shape);
    const auto frame = render::Finder().render(*scene, {.width = width, .height = height});
    if (!frame) return {};
    auto developed = render::develop(frame->light, render::Clipping::as_is);
    const auto bytes = storage::picture_file({.width = width, .height = height, .rgb = std::move(developed.rgb)});
    return bytes.value_or(std::string());
}

/// Of the plan that was logged.
std::string picture_of(const log::Entry& entry) {
    const auto read = storage::read_shoot(entry.plan);
    return read && !read->shots.empty() ? picture_of(*read, read->shots[0]) : std::string();
}

/// Those that are not made by the time the window closes are left out.
void add_pictures(std::vector<log::Entry>& entries, const std::atomic<bool>& closing) {
    std::map<std::string, std::string> made;  // by plan: a stack and its proof have the same
    for (auto& entry : entries) {
        if (closing) return;
        if (!entry.picture.empty() || entry.plan.empty()) continue;
        const auto [known, fresh] = made.try_emplace(entry.plan);
        if (fresh) known->second = picture_of(entry);
        entry.picture = known->second;
    }
}

}  // namespace

/// The book, as the thread of its worker has it.
struct LogController::Open {
    std::optional<log::Book> book;
    std::string path;
    bool failed = false;  // told once
};

LogController::LogController(Document& document, QObject* parent)
    : QObject(parent), document_(document), path_(usualPath()), open_(std::make_shared<Open>()) {}

LogController::~LogController() { worker_.wait(); }

void LogController::finish() {
    closing_ = true;
    worker_.wait();
}

void LogController::endMadeUp() {
    if (madeUp_) setPath({});
}

void LogController::setPath(const QString& path) {
    worker_.wait();
    path_ = path.isEmpty() ? usualPath() : path;
    madeUp_ = path_.endsWith(QLatin1String(demo_file));
    madeUpOf_ = nullptr;
    open_ = std::make_shared<Open>();
}

void LogController::add(Job job) {
    ++jobs_;
    worker_.add([this, open = open_, path = path_.toStdString(), job = std::move(job)] {
        if (!open->book && !open->failed) {
            auto opened = log::Book::open(path);
            if (opened) {
                open->book = std::move(opened->book);
                if (!opened->word.empty()) say(toQt(opened->word));
            } else {
                open->failed = true;
                say(tr("The logbook cannot be used: %1").arg(toQt(text::message(opened.error()))));
            }
        }
        if (open->book) job(*open->book);
        QMetaObject::invokeMethod(
            this, [this] { --jobs_; }, Qt::QueuedConnection);
    });
}

void LogController::say(const QString& words) {
    QMetaObject::invokeMethod(
        this, [this, words] { Q_EMIT said(words); }, Qt::QueuedConnection);
}

/// Whether it is still there is known on the interface thread alone.
template <typename Value, typename Answer>
void LogController::answer(const QPointer<QObject>& asker, Value value, Answer answer) {
    QMetaObject::invokeMethod(
        this,
        [asker, value = std::move(value), answer = std::move(answer)]() mutable {
            if (asker) answer(std::move(value));
        },
        Qt::QueuedConnection);
}

void LogController::write(std::vector<log::Entry> entries) {
    add([this, entries = std::move(entries)](log::Book& book) mutable {
        add_pictures(entries, closing_);
        for (auto& entry : entries)
            if (!closing_) log::add_thumbnails(entry);
        if (const auto done = book.add(entries); !done)
            say(tr("Not entered in the log: %1").arg(toQt(text::message(done.error()))));
        QMetaObject::invokeMethod(
            this, [this] { Q_EMIT changed(); }, Qt::QueuedConnection);
    });
}

void LogController::showMadeUp() {
    setPath(QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation)).filePath(QLatin1String(demo_file)));
    madeUpOf_ = document_.snapshot();
}

/// When the book is opened first, not whenever the demo is.
void LogController::makeUp() {
    const auto shoot = std::exchange(madeUpOf_, nullptr);
    if (!shoot) return;
    add([this, shoot](log::Book& book) {
        const auto count = book.count({.words = "made up"});
        if (!count || *count > 0) return;
        constexpr int year = 2026;
        auto entries = log::demo_year(*shoot, year);
        add_pictures(entries, closing_);
        if (!closing_) (void)book.add(entries);
    });
}

void LogController::search(const log::Query& query, QObject* asker, std::function<void(Found)> then) {
    makeUp();
    add([this, query, asker = QPointer<QObject>(asker), then = std::move(then)](log::Book& book) {
        Found found;
        auto entries = book.search(query);
        auto count = book.count(query);
        auto classes = book.classes();
        if (entries) found.entries = std::move(*entries);
        if (count) found.all = *count;
        if (classes) found.classes = std::move(*classes);
        if (!entries) say(toQt(text::message(entries.error())));
        answer(asker, std::move(found), then);
    });
}

void LogController::look(std::int64_t entry, QObject* asker, std::function<void(std::optional<log::Entry>)> then) {
    add([this, entry, asker = QPointer<QObject>(asker), then = std::move(then)](log::Book& book) {
        auto found = book.entry(entry);
        std::optional<log::Entry> one;
        if (found) one = std::move(*found);
        answer(asker, std::move(one), then);
    });
}

void LogController::learn(QObject* asker, std::function<void(std::vector<log::Lesson>)> then) {
    makeUp();
    add([this, asker = QPointer<QObject>(asker), then = std::move(then)](log::Book& book) {
        auto all = book.search({.most = 1'000'000'000});
        std::vector<log::Lesson> lessons;
        if (all) lessons = log::lessons_of(*all);
        answer(asker, std::move(lessons), then);
    });
}

void LogController::review(const std::string& day, QObject* asker,
                           std::function<void(log::Review, std::vector<std::string>)> then) {
    makeUp();
    add([this, day, shoot = document_.snapshot(), asker = QPointer<QObject>(asker),
         then = std::move(then)](log::Book& book) {
        auto found = book.search({.shoot = shoot->title, .most = 1'000'000'000});
        std::vector<log::Entry> entries;
        if (found) entries = std::move(*found);
        std::vector<std::string> days;
        constexpr std::size_t date = 10;
        for (const auto& entry : entries)
            if (const auto one = entry.time.substr(0, date); days.empty() || days.back() != one) days.push_back(one);
        const bool there = std::ranges::count(days, day) > 0;
        const auto wanted = there ? day : days.empty() ? std::string() : days.front();
        std::erase_if(entries, [&](const log::Entry& entry) { return entry.time.substr(0, date) != wanted; });
        std::vector<log::PlannedShot> planned;
        planned.reserve(shoot->shots.size());
        for (const auto& shot : shoot->shots) {
            const auto report = plan::assess(shoot->kit, shot, shoot::terms_of(*shoot, shot));
            const bool stack = shot.capture.mode == shoot::CaptureMode::stack;
            planned.push_back({.shot = shot.id,
                               .name = shot.name,
                               .frames = stack ? static_cast<int>(report.capture.frames) : 1,
                               .minutes = stack ? report.capture.paced_duration / 60 : 0});
        }
        const auto& prices = shoot->workday.prices;
        auto made = log::review_of(entries, planned,
                                   {{"camera", prices.camera / 60},
                                    {"lens", prices.lens / 60},
                                    {"tubes", prices.tubes / 60},
                                    {"light", prices.light / 60},
                                    {"background", prices.background / 60},
                                    {"subject", prices.subject / 60},
                                    {"turn", prices.turn / 60}});
        if (made.shoot.empty()) made.shoot = shoot->title;
        answer(asker, std::pair(std::move(made), std::move(days)),
               [then](auto both) { then(std::move(both.first), std::move(both.second)); });
    });
}

void LogController::protocols(QObject* asker, std::function<void(std::vector<log::Protocol>)> then) {
    makeUp();
    add([this, shoot = document_.snapshot(), asker = QPointer<QObject>(asker),
         then = std::move(then)](log::Book& book) {
        std::vector<log::Protocol> made;
        for (std::size_t i = 0; i < shoot->shots.size() && !closing_; ++i) {
            const auto& shot = shoot->shots[i];
            auto found = book.search({.name = shot.name, .most = 1000});
            if (!found) continue;
            std::erase_if(*found, [](const log::Entry& entry) {
                return entry.kind != log::Kind::run && entry.kind != log::Kind::inspection;
            });
            for (auto& entry : *found) {
                auto whole = book.entry(entry.id);
                if (whole && *whole) entry = std::move(**whole);
            }
            auto protocol = log::protocol_of(*shoot, i, *found);
            if (protocol.sessions.size() > 1) made.push_back(std::move(protocol));
        }
        // Series first, then what drifts.
        std::ranges::stable_sort(
            made, {}, [](const log::Protocol& one) { return std::pair(one.locks.empty(), one.drifts.empty()); });
        answer(asker, std::move(made), then);
    });
}

void LogController::drawShots(std::vector<shoot::Shot> shots, QObject* asker,
                              std::function<void(std::vector<std::string>)> then) {
    worker_.add([this, shots = std::move(shots), shoot = document_.snapshot(), asker = QPointer<QObject>(asker),
                 then = std::move(then)] {
        std::vector<std::string> pictures;
        for (const auto& shot : shots)
            if (!closing_) pictures.push_back(picture_of(*shoot, shot));
        answer(asker, std::move(pictures), then);
    });
}

void LogController::forget(std::int64_t entry) {
    add([this, entry](log::Book& book) {
        if (const auto done = book.forget(entry); !done) say(toQt(text::message(done.error())));
        QMetaObject::invokeMethod(
            this, [this] { Q_EMIT changed(); }, Qt::QueuedConnection);
    });
}

void LogController::exportTo(const QString& file) {
    add([this, file](log::Book& book) {
        auto rows = book.search({.most = 1'000'000'000});
        if (!rows) return say(toQt(text::message(rows.error())));
        const bool csv = file.endsWith(QLatin1String(".csv"), Qt::CaseInsensitive);
        if (!csv)
            for (auto& entry : *rows) {
                auto whole = book.entry(entry.id);
                if (whole && *whole) entry = std::move(**whole);
            }
        const auto text = csv ? log::write_csv(*rows) : log::write_json(*rows);
        const auto written = storage::replace_file(file.toStdString(), text);
        const auto count = toQt(text::count_text(static_cast<double>(rows->size()), "entry", "entries"));
        say(written ? tr("%1 written to %2").arg(count, file) : toQt(text::message(written.error())));
    });
}

void LogController::importFrom(const QString& file) {
    add([this, file](log::Book& book) {
        const auto text = storage::read_file(file.toStdString());
        if (!text) return say(toQt(text::message(text.error())));
        const bool csv = file.endsWith(QLatin1String(".csv"), Qt::CaseInsensitive);
        auto read = csv ? log::read_csv(*text) : log::read_json(*text);
        if (!read) return say(tr("%1 is no log. %2").arg(file, toQt(text::message(read.error()))));
        std::size_t added = 0;
        const auto& entries = *read;
        if (const auto done = book.add(entries, &added); !done) return say(toQt(text::message(done.error())));
        say(tr("%1 of %2 are new").arg(added).arg(entries.size()));
        QMetaObject::invokeMethod(
            this, [this] { Q_EMIT changed(); }, Qt::QueuedConnection);
    });
}

}  // namespace poquito::desk

#include "desk/session/moc_log_controller.moc"
