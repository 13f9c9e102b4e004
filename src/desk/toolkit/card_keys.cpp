#include "desk/toolkit/card_keys.hpp"

#include <QKeyEvent>

namespace poquito::desk {

CardKey cardKey(const QKeyEvent& event, std::size_t& marked, std::size_t count) {
    if (count == 0) return CardKey::none;
    switch (event.key()) {
        case Qt::Key_Left:
        case Qt::Key_Up:
            marked = (marked + count - 1) % count;
            return CardKey::marked;
        case Qt::Key_Right:
        case Qt::Key_Down:
            marked = (marked + 1) % count;
            return CardKey::marked;
        case Qt::Key_Return:
        case Qt::Key_Enter:
        case Qt::Key_Space:
            return CardKey::taken;
        default:
            return CardKey::none;
    }
}

}  // namespace poquito::desk
