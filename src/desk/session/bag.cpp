#include "desk/session/bag.hpp"

#include "desk/session/first_shoots.hpp"
#include "desk/session/user_file.hpp"
#include "desk/text/to_qt.hpp"
#include "storage/kit_file.hpp"
#include "storage/shoot_file.hpp"

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>

namespace poquito::desk {

Bag::Bag(const QString& path, QObject* parent) : QObject(parent), path_(userFile(path, "bag.json")) {
    load();
    connect(&document_, &Document::shootChanged, this, &Bag::save);
}

void Bag::load() {
    shoot::Shoot shoot{.title = "Bag", .kit = starterKit()};
    if (QFileInfo::exists(path_)) {
        auto loaded = storage::load_kit(path_.toStdString());
        if (!loaded)
            problem_ = setAside(path_, tr("The bag"), loaded.error());
        else
            shoot.kit = std::move(*loaded);
    }
    shoot.terms.limits = shoot::usual_limits();
    if (QFileInfo::exists(limitsPath())) {
        auto loaded = storage::load_limits(limitsPath().toStdString());
        if (!loaded)
            problem_ = QStringList{problem_, setAside(limitsPath(), tr("Your limits"), loaded.error())}
                           .join(QLatin1Char(' '))
                           .trimmed();
        else
            shoot.terms.limits = std::move(*loaded);
    }
    document_.open(std::move(shoot), path_);
    marks_ = marks();
}

std::pair<std::optional<storage::FileMark>, std::optional<storage::FileMark>> Bag::marks() const {
    return {storage::mark_of(path_.toStdString()), storage::mark_of(limitsPath().toStdString())};
}

QString Bag::limitsPath() const { return QFileInfo(path_).dir().filePath(QStringLiteral("limits.json")); }

void Bag::save() {
    if (marks() == marks_) return write();
    problem_ = tr("The bag was changed in another window as well: not saved yet.");
    Q_EMIT problemChanged();
    Q_EMIT changedElsewhere();
}

void Bag::takeTheirs() {
    marks_ = marks();
    const auto kit = storage::load_kit(path_.toStdString());
    const auto limits = storage::load_limits(limitsPath().toStdString());
    document_.edit({tr("Take the other window's bag")}, [&](shoot::Shoot& bag) {
        if (kit) bag.kit = *kit;
        if (limits) bag.terms.limits = *limits;
    });
}

void Bag::keepOurs() {
    for (const auto& path : {path_, limitsPath()})
        QFile::copy(path, path + QDateTime::currentDateTime().toString(QStringLiteral("'.other-'yyyyMMdd-hhmmss")));
    marks_ = marks();
    write();
}

void Bag::write() {
    QDir().mkpath(QFileInfo(path_).path());
    auto saved = storage::save_kit(document_.kit(), path_.toStdString());
    if (saved) saved = storage::save_limits(document_.shoot().terms.limits, limitsPath().toStdString());
    marks_ = marks();
    problem_ = saved ? QString() : tr("The bag was not saved. %1").arg(toQt(text::message(saved.error())));
    Q_EMIT problemChanged();
}

gear::Kit catalogue() {
    QFile file(QStringLiteral(":/data/catalogue.json"));
    if (!file.open(QIODevice::ReadOnly)) return {};
    return *storage::read_kit_json(file.readAll().toStdString());
}

gear::Kit starterKit() { return genericShoot().kit; }

}  // namespace poquito::desk

#include "desk/session/moc_bag.moc"
