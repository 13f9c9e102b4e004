#pragma once

#include "shoot/change/mount.hpp"

#include <QWidget>

#include <optional>

namespace poquito::desk {

/// One piece to scale, with its length and diameter. Draws nothing for gear that is not mounted on the axis.
class GearPicture : public QWidget {
    Q_OBJECT
  public:
    explicit GearPicture(QWidget* parent = nullptr);
    QSize sizeHint() const override { return {260, 118}; }

    void show(const std::optional<shoot::MountedPiece>& piece);

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    std::optional<shoot::MountedPiece> piece_;
};

/// How a piece of a kit would stand in a train by itself; empty for flashes, modifiers and rails.
std::optional<shoot::MountedPiece> pieceOf(const gear::Kit& kit, std::string_view list, std::size_t index);

}  // namespace poquito::desk
