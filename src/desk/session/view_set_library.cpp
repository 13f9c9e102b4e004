#include "desk/session/view_set_library.hpp"

#include "storage/shoot_file.hpp"

#include <utility>

namespace poquito::desk {

ViewSetLibrary::ViewSetLibrary(const QString& path, QObject* parent)
    : QObject(parent),
      kept_({.file = "view-sets.json",
             .whose = tr("Your sets of views"),
             .read = storage::read_view_sets,
             .write = storage::write_view_sets,
             .shipped = [this] { return kept_.in(QStringLiteral(":/data/view-sets.json")); }},
            path) {}

QString ViewSetLibrary::keep(shoot::ViewSet set) {
    auto problem = kept_.keep(std::move(set));
    if (problem.isEmpty()) Q_EMIT changed();
    return problem;
}

}  // namespace poquito::desk

#include "desk/session/moc_view_set_library.moc"
