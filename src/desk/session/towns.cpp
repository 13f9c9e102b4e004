#include "desk/session/towns.hpp"

#include "desk/text/to_qt.hpp"

#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>

#include <algorithm>

namespace poquito::desk {

const std::vector<Town>& towns() {
    static const std::vector<Town> all = [] {
        std::vector<Town> made;
        QFile file(QStringLiteral(":/data/towns.json"));
        if (!file.open(QIODevice::ReadOnly)) return made;
        const auto rows = QJsonDocument::fromJson(file.readAll()).object().value(QLatin1String("towns")).toArray();
        for (const auto& row : rows) {
            const auto one = row.toObject();
            made.push_back({.name = one.value(QLatin1String("name")).toString().toStdString(),
                            .latitude = one.value(QLatin1String("latitude_deg")).toDouble(),
                            .longitude = one.value(QLatin1String("longitude_deg")).toDouble(),
                            .zone = one.value(QLatin1String("zone")).toString().toStdString()});
        }
        return made;
    }();
    return all;
}

const Town* findTown(const std::string& name) {
    const auto& all = towns();
    const auto wanted = toQt(name).trimmed();
    const auto found = std::ranges::find_if(
        all, [&](const Town& town) { return toQt(town.name).compare(wanted, Qt::CaseInsensitive) == 0; });
    return found == all.end() ? nullptr : &*found;
}

}  // namespace poquito::desk
