#include "desk/shell/shot_commands.hpp"

#include "advice/proposals/proposals.hpp"
#include "advice/worth/trouble.hpp"
#include "desk/text/to_qt.hpp"
#include "shoot/change/edit.hpp"
#include "text/text.hpp"

#include <algorithm>
#include <utility>

namespace poquito::desk {

ShotCommands::ShotCommands(Document& document, QObject* parent)
    : QObject(parent),
      document_(document),
      righting_([this](const shoot::Shot& righted) {
          if (isAsAsked())
              document_.editShot({tr("Put it right")}, [&](shoot::Shot& shot) { shot = righted; });
          else
              Q_EMIT told(tr("Not put right: the shot was changed meanwhile"));
      }),
      preparing_([this](const std::optional<shoot::OtherLight>& other) {
          if (isAsAsked())
              switchTo(other);
          else
              Q_EMIT told(tr("Not switched: the shot was changed meanwhile"));
      }) {
    connect(&document, &Document::answered, this, [this] {
        if (!wanted_.empty()) mend(std::exchange(wanted_, {}), 0);
    });
    connect(&document, &Document::selected, this, [this] { wanted_.clear(); });
}

void ShotCommands::mend(const std::string& code, int way) {
    // What is clicked while remedies are looked for is the first one of what is found.
    if (!document_.isAnswered()) {
        wanted_ = code;
        return;
    }
    const auto note = std::ranges::find(document_.notes(), code, &advice::Note::code);
    if (note == document_.notes().end() || !note->remedy) return;
    const auto other = static_cast<std::size_t>(way) - 1;
    if (way > 0 && other >= note->others.size()) return;
    const auto remedy = way > 0 ? note->others[other] : note->remedy;
    const auto at = static_cast<std::size_t>(document_.current());
    document_.edit({toQt(remedy->label)}, [&](shoot::Shoot& shoot) {
        if (remedy->kit) shoot.kit = *remedy->kit;
        shoot.shots[at] = remedy->shot;
    });
}

void ShotCommands::putRight() {
    if (!document_.shot()) return;
    ask(righting_, [](const shoot::Shoot& shoot, const shoot::Shot& shot, const std::function<bool()>& go_on) {
        return advice::put_right(shoot.kit, shot, shoot::terms_of(shoot, shot), go_on);
    });
}

template <class Found, class Find>
void ShotCommands::ask(Search<Found>& search, const Find& find) {
    if (search.isRunning()) return;
    asked_ = *document_.shot();
    search.begin([find, shoot = document_.snapshot(), shot = *asked_](const typename Search<Found>::GoOn& go_on) {
        return find(*shoot, shot, [&go_on] { return go_on(0); });
    });
}

bool ShotCommands::isAsAsked() const { return document_.shot() && asked_ == *document_.shot(); }

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
    const auto name = toQt(document_.shot()->name);
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

void ShotCommands::switchLight() {
    const auto* shot = document_.shot();
    if (!shot) return;
    if (shot->other_light) return switchTo(shot->other_light);
    ask(preparing_, [](const shoot::Shoot& shoot, const shoot::Shot& one, const std::function<bool()>&) {
        return advice::prepare_other_light(shoot.kit, one, shoot::terms_of(shoot, one));
    });
}

void ShotCommands::switchTo(const std::optional<shoot::OtherLight>& other) {
    if (!other) {
        Q_EMIT told(document_.shot()->ambient ? tr("No settings of this kind take the other light")
                                              : tr("This shot has no light that changes with the sky"));
        return;
    }
    document_.editShot({tr("Switch the light")}, [&](shoot::Shot& one) {
        one.other_light = other;
        shoot::switch_light(one);
    });
    const auto& now = *document_.shot();
    Q_EMIT told(tr("%1: %2. W goes back")
                    .arg(now.ambient->ev100 > now.other_light->ev100 ? tr("Sun") : tr("Cloud"),
                         toQt(text::exposure_text(now.exposure.f_number, now.exposure.shutter, now.exposure.iso))));
}

}  // namespace poquito::desk

#include "desk/shell/moc_shot_commands.moc"
