#include "desk/session/autosave.hpp"
#include "desk/text/to_qt.hpp"

#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"

#include <QFile>
#include <QFileInfo>
#include <QLockFile>
#include <QStandardPaths>
#include <QUuid>

#include <utility>

namespace poquito::desk {
namespace {

const auto ending = QStringLiteral(".poquito");

QString origin_file(const QString& copy) { return copy + QStringLiteral(".origin"); }
QString lock_file(const QString& copy) { return copy + QStringLiteral(".lock"); }

void remove_copy(const QString& copy) {
    QFile::remove(copy);
    QFile::remove(origin_file(copy));
}

}  // namespace

Autosave::Autosave(Document& document, const QDir& folder, QObject* parent)
    : QObject(parent),
      document_(document),
      folder_(folder),
      name_(QUuid::createUuid().toString(QUuid::WithoutBraces) + ending) {
    folder_.mkpath(QStringLiteral("."));
    lock_ = std::make_unique<QLockFile>(lock_file(copyPath()));
    lock_->setStaleLockTime(0);  // a lock dies with its process, not with the clock
    lock_->tryLock(0);
    timer_.setSingleShot(true);
    timer_.setInterval(1500);
    retry_.setSingleShot(true);
    retry_.setInterval(10000);
    connect(&retry_, &QTimer::timeout, this, &Autosave::write);
    connect(&timer_, &QTimer::timeout, this, &Autosave::write);
    connect(&document, &Document::shootChanged, this, &Autosave::schedule);
    connect(&document, &Document::unsavedChanged, this, &Autosave::schedule);
}

/// An orderly end leaves nothing: the window has asked about unsaved work before.
Autosave::~Autosave() {
    writer_.wait();
    remove_copy(copyPath());
}

void Autosave::schedule() {
    if (document_.isUnsaved()) return timer_.start();
    timer_.stop();
    retry_.stop();
    failed_ = false;  // what is unsaved next is told of anew
    writer_.add([copy = copyPath()] { remove_copy(copy); });
}

void Autosave::write() {
    if (!document_.isUnsaved()) return;
    writer_.add([this, shoot = document_.snapshot(), folder = folder_, copy = copyPath(), original = document_.path()] {
        (void)folder.mkpath(QStringLiteral("."));
        // A full disk must not stop the work: it is told, and tried again.
        auto written = storage::replace_file(origin_file(copy).toStdString(), original.toStdString());
        if (written) written = storage::save_shoot(*shoot, copy.toStdString());
        const auto problem = written ? QString() : toQt(text::message(written.error()));
        QMetaObject::invokeMethod(
            this, [this, problem] { wrote(problem); }, Qt::QueuedConnection);
    });
}

void Autosave::wrote(const QString& problem) {
    const bool failed = !problem.isEmpty();
    if (failed) retry_.start();
    if (std::exchange(failed_, failed) == failed) return;
    Q_EMIT told(
        failed ? tr("Unsaved changes are not safe from a crash: no copy of them can be kept. %1. It is tried again "
                    "every few seconds; save the shoot where there is room.")
                     .arg(problem)
               : QString());
}

void Autosave::flush() {
    timer_.stop();
    write();
    writer_.wait();
}

std::vector<Leftover> Autosave::leftovers(const QDir& folder) {
    // A lock without a copy is left by a program that was ended with nothing unsaved; taking it removes it.
    for (const auto& info : folder.entryInfoList({QStringLiteral("*.lock")}, QDir::Files)) {
        if (QFile::exists(info.filePath().chopped(5))) continue;
        QLockFile lock(info.filePath());
        lock.setStaleLockTime(0);
        if (lock.tryLock(0)) lock.unlock();
    }
    std::vector<Leftover> found;
    for (const auto& info : folder.entryInfoList({QStringLiteral("*") + ending}, QDir::Files, QDir::Time)) {
        const QString copy = info.filePath();
        QLockFile lock(lock_file(copy));
        lock.setStaleLockTime(0);
        if (!lock.tryLock(0)) continue;
        lock.unlock();
        const auto origin = storage::read_file(origin_file(copy).toStdString());
        found.push_back({.copy = copy, .original = origin ? toQt(*origin) : QString()});
    }
    return found;
}

void Autosave::discard(const Leftover& leftover) {
    remove_copy(leftover.copy);
    QFile::remove(lock_file(leftover.copy));
}

QDir Autosave::defaultFolder() {
    return QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/recovery"));
}

}  // namespace poquito::desk

#include "desk/session/moc_autosave.moc"
