#pragma once

#include "log/entry.hpp"

#include <optional>
#include <string>

/// The members of an entry that are a text, a number or a kind, each once: files, tables and the database have them by
/// these names, in this order.
namespace poquito::log {

/// Calls visit(name, member) for each.
template <typename AnyEntry, typename Visit>
void each_member(AnyEntry& e, const Visit& visit) {
    visit("uid", e.uid);
    visit("kind", e.kind);
    visit("time", e.time);
    visit("shoot", e.shoot);
    visit("shot", e.shot);
    visit("name", e.name);
    visit("subject_class", e.subject_class);
    visit("words", e.words);
    visit("place", e.place);
    visit("wind", e.wind);
    visit("light", e.light);
    visit("support", e.support);
    visit("camera", e.camera);
    visit("lens", e.lens);
    visit("unit", e.unit);
    visit("modifier", e.modifier);
    visit("approach", e.approach);
    visit("verdict", e.verdict);
    visit("what", e.what);
    visit("causes", e.causes);
    visit("frames", e.frames);
    visit("kept", e.kept);
    visit("tried", e.tried);
    visit("f_number", e.f_number);
    visit("planned_f_number", e.planned_f_number);
    visit("magnification", e.magnification);
    visit("stops", e.stops);
    visit("minutes", e.minutes);
    visit("value", e.value);
    visit("planned", e.planned);
    visit("scale", e.scale);
    visit("off", e.off);
    visit("power", e.power);
    visit("cadence", e.cadence);
    visit("held", e.held);
    visit("remark", e.remark);
}

/// Whoever writes no id gives what happened one: the same for the same.
void give_uid(Entry& entry);

}  // namespace poquito::log
