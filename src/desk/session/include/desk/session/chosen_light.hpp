#pragma once

#include "shoot/shoot.hpp"

#include <QObject>

#include <algorithm>

namespace poquito::desk {

/// Which light of the shot the bench and the sheets are about.
class ChosenLight : public QObject {
    Q_OBJECT
  public:
    using QObject::QObject;

    /// Kept within what the shot has; 0 where it has none.
    std::size_t index(const shoot::Shot& shot) const {
        return shot.lights.empty() ? 0 : std::min(index_, shot.lights.size() - 1);
    }
    void choose(std::size_t index) {
        if (index == index_) return;
        index_ = index;
        Q_EMIT chosen(index);
    }

  Q_SIGNALS:
    void chosen(std::size_t index);

  private:
    std::size_t index_ = 0;
};

}  // namespace poquito::desk
