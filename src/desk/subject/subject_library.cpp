#include "desk/subject/subject_library.hpp"
#include "desk/base/to_qt.hpp"

#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr const char* own_class = "My own";

std::vector<shoot::LibrarySubject> read(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return {};
    auto loaded = storage::read_subjects(file.readAll().toStdString());
    auto* subjects = std::get_if<std::vector<shoot::LibrarySubject>>(&loaded);
    return subjects ? std::move(*subjects) : std::vector<shoot::LibrarySubject>();
}

}  // namespace

SubjectLibrary::SubjectLibrary(const QString& path, QObject* parent) : QObject(parent), path_(path) {
    if (path_.isEmpty())
        path_ = QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation))
                    .filePath(QStringLiteral("subjects.json"));
}

const std::vector<shoot::LibrarySubject>& SubjectLibrary::subjects() {
    load();
    return subjects_;
}

void SubjectLibrary::load() {
    if (loaded_) return;
    loaded_ = true;
    checks_ = storage::load_checks(checksPath().toStdString());
    subjects_ = read(path_);
    own_ = subjects_.size();
    for (auto& subject : read(QStringLiteral(":/data/subjects.json"))) subjects_.push_back(std::move(subject));
}

QString SubjectLibrary::keep(const shoot::Shot& shot) {
    load();
    const std::string id = "own-" + shot.name;
    shoot::LibrarySubject made{
        .id = id, .kind = own_class, .name = shot.name, .subject = shot.subject, .zone = shot.capture.slice};
    made.subject.library = id;
    auto own = std::vector(subjects_.begin(), subjects_.begin() + static_cast<std::ptrdiff_t>(own_));
    std::erase_if(own, [&](const auto& one) { return one.id == id; });
    own.push_back(std::move(made));
    QDir().mkpath(QFileInfo(path_).path());
    if (const auto error = storage::replace_file(path_.toStdString(), storage::write_subjects(own)))
        return toQt(storage::message(*error));
    subjects_.erase(subjects_.begin(), subjects_.begin() + static_cast<std::ptrdiff_t>(own_));
    own_ = own.size();
    subjects_.insert(subjects_.begin(), own.begin(), own.end());
    Q_EMIT changed();
    return {};
}

QString SubjectLibrary::kindOf(const shoot::Shot& shot) {
    if (!shot.subject.library) return {};
    const auto found = std::ranges::find(subjects(), *shot.subject.library, &shoot::LibrarySubject::id);
    return found == subjects_.end() ? QString() : toQt(found->kind);
}

const std::vector<shoot::KindCheck>& SubjectLibrary::checks() {
    load();
    return checks_;
}

QString SubjectLibrary::checksPath() const { return QFileInfo(path_).dir().filePath(QStringLiteral("checks.json")); }

QString SubjectLibrary::saveChecks() {
    QDir().mkpath(QFileInfo(path_).path());
    const auto error = storage::save_checks(checks_, checksPath().toStdString());
    return error ? toQt(storage::message(*error)) : QString();
}

QString SubjectLibrary::keepCheck(const QString& kind, const QString& text) {
    load();
    const shoot::KindCheck made{.kind = kind.toStdString(), .text = text.toStdString(), .unknown = {}};
    if (std::ranges::count(checks_, made) > 0) return {};
    checks_.push_back(made);
    return saveChecks();
}

QString SubjectLibrary::forgetCheck(const QString& text) {
    load();
    if (std::erase_if(checks_, [&](const auto& one) { return one.text == text.toStdString(); }) == 0) return {};
    return saveChecks();
}

}  // namespace poquito::desk

#include "subject/moc_subject_library.moc"
