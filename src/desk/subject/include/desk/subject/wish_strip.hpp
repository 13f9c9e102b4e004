#pragma once

#include <QWidget>

#include <functional>
#include <optional>
#include <vector>

namespace poquito::desk {

/// A row of small pictures of what a wish means, one of which may be taken; the one that comes out now is marked below.
/// A click takes one, a click on the taken one takes it back.
class WishStrip : public QWidget {
    Q_OBJECT
  public:
    struct Cell {
        QString label;
        QString tip;
        std::function<void(QPainter&, const QRectF&)> paint;
    };
    WishStrip(const char* name, const QString& says, std::vector<Cell> cells, QWidget* parent = nullptr);

    /// `now`: where it comes out at present, in cells from the left edge of the first (0.5: the middle of it).
    void show(std::optional<std::size_t> taken, std::optional<double> now);
    QRectF cellRect(std::size_t index) const;
    std::optional<std::size_t> taken() const { return taken_; }
    QSize minimumSizeHint() const override;

  Q_SIGNALS:
    void chosen(int index);  // -1: taken back

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    void choose(std::size_t index);

    std::vector<Cell> cells_;
    std::optional<std::size_t> taken_;
    std::optional<double> now_;
    std::size_t marked_ = 0;
};

}  // namespace poquito::desk
