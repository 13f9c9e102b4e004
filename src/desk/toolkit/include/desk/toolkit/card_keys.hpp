#pragma once

#include <cstddef>

class QKeyEvent;

namespace poquito::desk {

/// What a key does on a row of cards: left and right, up and down mark the next, round and round; Enter and space take
/// the marked.
enum class CardKey { none, marked, taken };
CardKey cardKey(const QKeyEvent& event, std::size_t& marked, std::size_t count);

}  // namespace poquito::desk
