#include "desk/session/first_shoots.hpp"

#include "storage/shoot_file.hpp"

#include <QFile>
#include <QString>

namespace poquito::desk {

shoot::Shoot demoShoot() {
    QFile file(QStringLiteral(":/data/winter-catalogue.poquito"));
    if (!file.open(QIODevice::ReadOnly)) return {};
    return *storage::read_shoot(file.readAll().toStdString());
}

shoot::Shoot genericShoot() {
    shoot::Shoot shoot = demoShoot();
    shoot.shots.clear();
    shoot.title = "Untitled shoot";
    return shoot;
}

}  // namespace poquito::desk
