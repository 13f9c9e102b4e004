#include "desk/shell/shot_commands.hpp"

#include "shoot/edit.hpp"

namespace poquito::desk {

void ShotCommands::add() {
    if (document_.kit().cameras.empty() || document_.kit().lenses.empty())
        return Q_EMIT problemFound(
            tr("The kit has no camera or no lens to plan with: the kit room (Ctrl+K) has a catalogue."));
    std::size_t place = 0;
    const auto after =
        document_.current() < 0 ? document_.shoot().shots.size() : static_cast<std::size_t>(document_.current());
    document_.edit({tr("Add a shot")}, [&](shoot::Shoot& shoot) { place = shoot::add_shot(shoot, after); });
    document_.select(static_cast<int>(place));
    Q_EMIT added();
}

void ShotCommands::duplicate() {
    if (!document_.shot()) return;
    std::size_t copy = 0;
    document_.edit({tr("Duplicate shot")}, [&](shoot::Shoot& shoot) {
        copy = shoot::duplicate_shot(shoot, static_cast<std::size_t>(document_.current()));
    });
    document_.select(static_cast<int>(copy));
}

void ShotCommands::remove() {
    if (!document_.shot()) return;
    const auto name = QString::fromStdString(document_.shot()->name);
    document_.edit({tr("Remove shot")}, [&](shoot::Shoot& shoot) {
        shoot::remove_shot(shoot, static_cast<std::size_t>(document_.current()));
    });
    Q_EMIT told(tr("Removed “%1”; Ctrl+Z brings it back").arg(name));
}

void ShotCommands::move(int by) {
    const int from = document_.current(), to = from + by;
    if (from < 0 || to < 0 || to >= document_.count()) return;
    document_.edit({tr("Move shot")}, [&](shoot::Shoot& shoot) {
        shoot::move_shot(shoot, static_cast<std::size_t>(from), static_cast<std::size_t>(to));
    });
    document_.select(to);
}

}  // namespace poquito::desk
