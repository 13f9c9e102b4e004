#include "desk/session/subject_library.hpp"

#include "desk/session/user_file.hpp"
#include "desk/text/to_qt.hpp"
#include "storage/shoot_file.hpp"

#include <QDir>
#include <QFileInfo>

#include <algorithm>
#include <utility>

namespace poquito::desk {
namespace {

constexpr const char* own_class = "My own";

}  // namespace

SubjectLibrary::SubjectLibrary(const QString& path, QObject* parent)
    : QObject(parent),
      kept_({.file = "subjects.json",
             .whose = tr("Your library of subjects"),
             .read = storage::read_subjects,
             .write = storage::write_subjects,
             .shipped = [this] { return kept_.in(QStringLiteral(":/data/subjects.json")); }},
            path) {}

QString SubjectLibrary::keep(const shoot::Shot& shot) {
    const std::string id = "own-" + shot.name;
    shoot::LibrarySubject made{
        .id = id, .kind = own_class, .name = shot.name, .subject = shot.subject, .zone = shot.capture.slice};
    made.subject.library = id;
    auto problem = kept_.keep(std::move(made));
    if (problem.isEmpty()) Q_EMIT changed();
    return problem;
}

QString SubjectLibrary::takeProblem() {
    loadChecks();
    return QStringList{kept_.takeProblem(), std::exchange(checksProblem_, {})}.join(QLatin1Char(' ')).trimmed();
}

QString SubjectLibrary::kindOf(const shoot::Shot& shot) {
    if (!shot.subject.library) return {};
    const auto found = std::ranges::find(subjects(), *shot.subject.library, &shoot::LibrarySubject::id);
    return found == subjects().end() ? QString() : toQt(found->kind);
}

const std::vector<shoot::KindCheck>& SubjectLibrary::checks() {
    loadChecks();
    return checks_;
}

void SubjectLibrary::loadChecks() {
    if (std::exchange(checksLoaded_, true) || !QFileInfo::exists(checksPath())) return;
    auto loaded = storage::load_checks(checksPath().toStdString());
    if (!loaded)
        checksProblem_ = setAside(checksPath(), tr("Your own checks"), loaded.error());
    else
        checks_ = std::move(*loaded);
}

QString SubjectLibrary::checksPath() const {
    return QFileInfo(kept_.path()).dir().filePath(QStringLiteral("checks.json"));
}

QString SubjectLibrary::saveChecks() {
    QDir().mkpath(QFileInfo(checksPath()).path());
    const auto saved = storage::save_checks(checks_, checksPath().toStdString());
    return saved ? QString() : toQt(text::message(saved.error()));
}

QString SubjectLibrary::keepCheck(const QString& kind, const QString& text) {
    loadChecks();
    const shoot::KindCheck made{.kind = kind.toStdString(), .text = text.toStdString(), .unknown = {}};
    if (std::ranges::count(checks_, made) > 0) return {};
    checks_.push_back(made);
    return saveChecks();
}

QString SubjectLibrary::forgetCheck(const QString& text) {
    loadChecks();
    if (std::erase_if(checks_, [&](const auto& one) { return one.text == text.toStdString(); }) == 0) return {};
    return saveChecks();
}

}  // namespace poquito::desk

#include "desk/session/moc_subject_library.moc"
