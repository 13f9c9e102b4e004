#pragma once

#include "log/lessons.hpp"
#include "shoot/shoot.hpp"

#include <cstddef>
#include <optional>
#include <string>

/// What a lesson is good for now: offered, and taken only when its owner says so.
namespace poquito::log {

/// What it would do to that shot, or to the shoot's kit or day; empty: it changes nothing there. `subject_class`: of
/// the shot, as entries have it.
std::optional<std::string> offer_of(const Lesson& lesson, const shoot::Shoot& shoot, std::size_t shot,
                                    const std::string& subject_class);

/// Does it. `time`: now, local, ISO 8601. Nothing where there is no such offer.
void take_over(const Lesson& lesson, shoot::Shoot& shoot, std::size_t shot, const std::string& time);

}  // namespace poquito::log
