#pragma once

#include "shoot/change/mount.hpp"

#include <QRectF>
#include <QString>
#include <QWidget>

#include <optional>
#include <vector>

namespace poquito::desk {

class Document;

/// The rig pulled apart along its axis, every piece to scale, in mounting order from the camera: lengths, threads and
/// contacts between them. Pieces are dragged to another place or out of the row; gear from elsewhere is dropped in.
/// Keys: arrows choose, Shift and arrows move, Delete takes off, R turns the lens round.
class TrainDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit TrainDrawing(Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {300, 158}; }

    /// A piece of gear held over the drawing; `at` in its own coordinates. Shows where it would go.
    void hover(QPointF at);
    /// Lets go of it. False: not over the drawing.
    bool drop(std::string_view list, const std::string& id, QPointF at);

    /// Where a piece is drawn; for whoever points at it.
    QRectF boxOf(int place) const { return boxes_[static_cast<std::size_t>(place)]; }
    int selected() const { return selected_; }
    QString hint() const;

    void refresh();

  protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

  private:
    void layOut();
    void drawNames(QPainter& painter);
    void drawLengths(QPainter& painter);
    void drawJoints(QPainter& painter);
    void drawTitle(QPainter& painter);
    int pieceAt(QPointF at) const;
    std::size_t placeAt(double x) const;  // of the row, before which a piece dropped there stands
    double xOfPlace(std::size_t place) const;
    void select(int place);
    void change(const QString& label,
                const std::function<std::optional<std::string>(const gear::Kit&, shoot::Rig&)>& act);
    void takeOff(int place);
    void move(int place, std::size_t to);
    void turnLens();

    Document& document_;
    std::vector<shoot::MountedPiece> pieces_;
    std::vector<QRectF> boxes_;
    double scale_ = 1;  // pixels a millimetre
    int selected_ = 0;
    QString refusal_;  // why the last thing could not be done
    std::optional<QPointF> pressed_;
    std::optional<QPointF> dragged_;  // a piece of this row or of elsewhere is held here
    bool own_ = false;                // the piece held is one of this row
};

}  // namespace poquito::desk
