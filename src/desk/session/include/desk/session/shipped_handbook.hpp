#pragma once

#include "handbook/handbook.hpp"

#include <QString>

namespace poquito::desk {

/// The pages and words that ship with the application.
const handbook::Handbook& shippedHandbook();

/// Those words with what they mean, one below the other, as rich text; at most that many.
QString explained(const std::vector<const handbook::Word*>& words, std::size_t most);

}  // namespace poquito::desk
