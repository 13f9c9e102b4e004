#pragma once

#include "devices/sim/world.hpp"

#include <QStringList>
#include <QWidget>

class QLabel;
class QSlider;

namespace poquito::desk {

/// Frames of a run to be flipped through by hand, and what one says happened at the one that is shown. The picture
/// stands still while one flips: what jumps or dims is seen so.
class FindError : public QWidget {
    Q_OBJECT
  public:
    explicit FindError(QWidget* parent = nullptr);

    void setFrames(const QStringList& files);
    int frame() const;  // from 0

  Q_SIGNALS:
    void answered(devices::MishapKind kind, int frame);

  private:
    void showFrame(int frame);

    QStringList files_;
    QLabel* picture_;
    QLabel* count_;
    QSlider* slider_;
    QList<QPixmap> pictures_;  // as large as they are shown, each once it is
};

}  // namespace poquito::desk
