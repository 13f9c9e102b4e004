#include "desk/day/view_set_library.hpp"

#include "desk/base/to_qt.hpp"
#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>

#include <algorithm>
#include <utility>

namespace poquito::desk {
namespace {

std::vector<shoot::ViewSet> sets_in(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return {};
    auto loaded = storage::read_view_sets(file.readAll().toStdString());
    auto* sets = std::get_if<std::vector<shoot::ViewSet>>(&loaded);
    return sets ? std::move(*sets) : std::vector<shoot::ViewSet>();
}

}  // namespace

ViewSetLibrary::ViewSetLibrary(const QString& path, QObject* parent) : QObject(parent), path_(path) {
    if (path_.isEmpty())
        path_ = QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation))
                    .filePath(QStringLiteral("view-sets.json"));
}

const std::vector<shoot::ViewSet>& ViewSetLibrary::sets() {
    load();
    return sets_;
}

void ViewSetLibrary::load() {
    if (std::exchange(loaded_, true)) return;
    sets_ = sets_in(path_);
    own_ = sets_.size();
    for (auto& set : sets_in(QStringLiteral(":/data/view-sets.json"))) sets_.push_back(std::move(set));
}

QString ViewSetLibrary::keep(shoot::ViewSet set) {
    load();
    auto own = std::vector(sets_.begin(), sets_.begin() + static_cast<std::ptrdiff_t>(own_));
    std::erase_if(own, [&](const auto& one) { return one.id == set.id; });
    own.push_back(std::move(set));
    QDir().mkpath(QFileInfo(path_).path());
    if (const auto error = storage::replace_file(path_.toStdString(), storage::write_view_sets(own)))
        return toQt(storage::message(*error));
    sets_.erase(sets_.begin(), sets_.begin() + static_cast<std::ptrdiff_t>(own_));
    own_ = own.size();
    sets_.insert(sets_.begin(), own.begin(), own.end());
    Q_EMIT changed();
    return {};
}

}  // namespace poquito::desk

#include "day/moc_view_set_library.moc"
