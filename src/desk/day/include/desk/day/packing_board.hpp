#pragma once

#include "job/packing.hpp"

#include <QRectF>
#include <QString>
#include <QWidget>

#include <optional>
#include <string>
#include <vector>

namespace poquito::desk {

/// What is packed, a card a case; what has no case yet by its kind. A click ticks a line, a drag takes it to another
/// case; up and down go through the lines, Space ticks.
class PackingBoard : public QWidget {
    Q_OBJECT
  public:
    explicit PackingBoard(QWidget* parent = nullptr);

    void setLines(std::vector<job::PackLine> lines, bool home, const std::string& marked);
    QRectF lineRect(const std::string& id) const;  // empty: it is not there
    const std::string& marked() const { return marked_; }

    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;
    QSize sizeHint() const override { return {640, heightForWidth(640)}; }
    QSize minimumSizeHint() const override { return {160, 120}; }

  Q_SIGNALS:
    void ticked(const std::string& line, bool on);
    void moved(const std::string& line, const std::string& container);
    void markedChanged(const std::string& line);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    struct Card {
        QString heading;
        std::optional<std::string> container;  // empty: of a kind, in no case yet
        std::vector<std::size_t> lines;
        double height() const;
    };
    struct Laid {
        QRectF area;
        std::size_t card = 0;
    };
    std::vector<Laid> laid(int width) const;
    bool isTicked(const job::PackLine& line) const { return home_ ? line.home : line.going; }
    bool isAsked(const job::PackLine& line) const;  // whether it is looked for now
    QRectF rowRect(const QRectF& card, std::size_t row) const;
    std::optional<std::size_t> lineAt(QPointF at) const;
    void drawLineOf(QPainter& painter, const QRectF& row, const job::PackLine& line);
    void mark(const std::string& id);

    std::vector<job::PackLine> lines_;
    std::vector<Card> cards_;
    bool home_ = false;
    std::string marked_;
    struct Held {
        std::size_t line = 0;
        QPointF from, at;
        bool dragged = false;
    };
    std::optional<Held> held_;
};

}  // namespace poquito::desk
