#include "desk/session/log_writer.hpp"

#include "desk/session/document.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "log/field_notes.hpp"
#include "log/record.hpp"
#include "storage/atomic_file.hpp"
#include "text/text.hpp"

#include <QDateTime>
#include <QFileInfo>

#include <algorithm>
#include <utility>
#include <variant>

namespace poquito::desk {
namespace {

std::string now() { return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString(); }

}  // namespace

LogWriter::LogWriter(Document& document, LogController& book, log::ClassOf classOf, QObject* parent)
    : QObject(parent),
      document_(document),
      book_(book),
      classOf_(std::move(classOf)),
      known_(document.snapshot()),
      latest_(known_) {
    settle_.setSingleShot(true);
    constexpr int patience = 2500;  // ms: what is taken back by then was a slip
    settle_.setInterval(patience);
    connect(&settle_, &QTimer::timeout, this, &LogWriter::settled);
    connect(&document, &Document::shootChanged, this, [this] {
        if (document_.snapshot() == known_) return;
        latest_ = document_.snapshot();
        if (const auto* shot = document_.shot()) workedOn_ = shot->id;
        settle_.start();
    });
    // Another shoot has a past of its own: it is in the book already, or was never ours.
    connect(&document, &Document::opened, this, [this] {
        if (settle_.isActive()) settled();  // of the one that was there
        known_ = latest_ = document_.snapshot();
        book_.endMadeUp();
    });
}

void LogWriter::finish() {
    if (settle_.isActive()) settled();
    disconnect(&document_, nullptr, this, nullptr);
}

bool LogWriter::isBusy() const { return settle_.isActive() || book_.isBusy(); }

void LogWriter::settled() {
    settle_.stop();
    const auto before = std::exchange(known_, latest_);
    if (!before || !known_ || before == known_) return;
    auto entries = log::entries_between(*before, *known_, workedOn_, now(), classOf_);
    if (!entries.empty()) book_.write(std::move(entries));
}

void LogWriter::enterPractice(const std::string& id, const std::string& name, bool well, const std::string& said) {
    log::Entry entry;
    entry.kind = log::Kind::note;
    entry.what = "practice";
    entry.shoot = document_.shoot().title;
    entry.name = name;
    entry.subject_class = id;
    entry.words = "practice";
    entry.verdict = well ? "keep" : "redo";
    entry.remark = said;
    entry.time = now();
    entry.uid = "practice:" + id + ":" + entry.time;
    book_.write({std::move(entry)});
}

void LogWriter::enterChange(const std::string& what, const std::string& shot, double seconds) {
    const auto& shots = document_.shoot().shots;
    const auto found = std::ranges::find(shots, shot, &shoot::Shot::id);
    constexpr double least = 10, most = 3600;  // s: a click past it, and a lunch, are no change
    if (found == shots.end() || seconds < least || seconds > most) return;
    auto entry = log::entry_for(document_.shoot(), *found, classOf_(*found));
    entry.kind = log::Kind::change;
    entry.what = what == "thing" ? "subject" : what;
    entry.minutes = seconds / 60;
    entry.time = now();
    entry.uid = "change:" + what + ":" + entry.shoot + ":" + shot + ":" + entry.time;
    entry.plan.clear();
    book_.write({std::move(entry)});
}

void LogWriter::enterLooks(ProofController& proof) {
    connect(&proof, &ProofController::changed, this, [this, &proof](const QString& id) {
        const auto* look = proof.look(id.toStdString());
        if (!look || look->running || !look->inspection || look->frames.unsure) return;
        const auto& shots = document_.shoot().shots;
        const auto shot = std::ranges::find(shots, id.toStdString(), &shoot::Shot::id);
        if (shot == shots.end() || !look->inspection->any_readable()) return;
        if (std::exchange(entered_[shot->id], look->inspection) == look->inspection) return;
        book_.write({log::inspection_entry(document_.shoot(), *shot, classOf_(*shot), *look->inspection, now())});
    });
    connect(&proof, &ProofController::sortedThrough, this, [this](std::size_t frames, double seconds) {
        const auto* shot = document_.shot();
        constexpr double most = 4 * 3600;  // s: beyond it was left lying
        if (!shot || frames == 0 || seconds > most) return;
        auto entry = log::entry_for(document_.shoot(), *shot, classOf_(*shot));
        entry.kind = log::Kind::change;
        entry.what = "sorting";
        entry.frames = static_cast<int>(frames);
        entry.minutes = seconds / 60;
        entry.time = now();
        entry.uid = "sorting:" + entry.shoot + ":" + entry.time;
        entry.plan.clear();
        book_.write({std::move(entry)});
    });
}

void LogWriter::overlookEdit() { known_ = latest_ = document_.snapshot(); }

void LogWriter::writeDown(const QString& line) {
    const auto now = QDateTime::currentDateTime();
    enterNotes((now.time().toString(QStringLiteral("hh:mm ")) + line).toStdString(),
               now.date().toString(Qt::ISODate).toStdString());
}

void LogWriter::readNotes(const QString& file) {
    const auto text = storage::read_file(file.toStdString());
    if (!text) return Q_EMIT said(toQt(text::message(text.error())));
    const auto day = QFileInfo(file).lastModified().date().toString(Qt::ISODate).toStdString();
    enterNotes(*text, day);
}

void LogWriter::enterNotes(const std::string& text, const std::string& day) {
    auto notes = log::read_field_notes(text, document_.shoot(), day, classOf_);
    QStringList words;
    words << tr("%1 read").arg(toQt(text::count_text(static_cast<double>(notes.entries.size()), "line", "lines")));
    for (const auto& one : notes.unplaced) words << tr("no place for %1").arg(toQt(text::message(one)));
    if (!notes.entries.empty()) book_.write(std::move(notes.entries));
    Q_EMIT said(words.join(QStringLiteral(". ")));
}

}  // namespace poquito::desk

#include "desk/session/moc_log_writer.moc"
