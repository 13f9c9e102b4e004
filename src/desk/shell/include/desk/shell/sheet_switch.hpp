#pragma once

#include <QWidget>

#include <array>

class QToolButton;

namespace poquito::desk {

/// Where everything has its place: one picture with its six stations, the shoot as a whole, and what outlives it.
enum class Sheet { day, shot, book };
inline constexpr std::array sheets = {Sheet::day, Sheet::shot, Sheet::book};

/// Says on which sheet one is, and takes one to the others.
class SheetSwitch : public QWidget {
    Q_OBJECT
  public:
    explicit SheetSwitch(QWidget* parent = nullptr);

    void setCurrent(Sheet sheet);
    void setReachable(Sheet sheet, bool reachable);

  Q_SIGNALS:
    void chosen(Sheet sheet);

  private:
    QToolButton* button(Sheet sheet) const { return buttons_[static_cast<std::size_t>(sheet)]; }

    std::array<QToolButton*, 3> buttons_ = {};
};

}  // namespace poquito::desk
