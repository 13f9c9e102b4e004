#include "desk/kit/bag.hpp"

#include "desk/base/to_qt.hpp"
#include "desk/base/user_file.hpp"
#include "desk/shell/main_window.hpp"
#include "storage/kit_file.hpp"
#include "storage/shoot_file.hpp"

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
        if (const auto* error = std::get_if<storage::ReadError>(&loaded))
            problem_ = setAside(path_, tr("The bag"), *error);
        else
            shoot.kit = std::move(std::get<gear::Kit>(loaded));
    }
    shoot.limits = shoot::usual_limits();
    if (QFileInfo::exists(limitsPath())) {
        auto loaded = storage::load_limits(limitsPath().toStdString());
        if (const auto* error = std::get_if<storage::ReadError>(&loaded))
            problem_ = QStringList{problem_, setAside(limitsPath(), tr("Your limits"), *error)}
                           .join(QLatin1Char(' '))
                           .trimmed();
        else
            shoot.limits = std::move(std::get<shoot::Limits>(loaded));
    }
    document_.open(std::move(shoot), path_);
}

QString Bag::limitsPath() const { return QFileInfo(path_).dir().filePath(QStringLiteral("limits.json")); }

void Bag::save() {
    QDir().mkpath(QFileInfo(path_).path());
    auto error = storage::save_kit(document_.kit(), path_.toStdString());
    if (!error) error = storage::save_limits(document_.shoot().limits, limitsPath().toStdString());
    problem_ = error ? tr("The bag was not saved. %1").arg(toQt(storage::message(*error))) : QString();
    Q_EMIT problemChanged();
}

gear::Kit catalogue() {
    QFile file(QStringLiteral(":/data/catalogue.json"));
    if (!file.open(QIODevice::ReadOnly)) return {};
    return std::get<gear::Kit>(storage::read_kit_json(file.readAll().toStdString()));
}

gear::Kit starterKit() { return genericShoot().kit; }

}  // namespace poquito::desk

#include "kit/moc_bag.moc"
