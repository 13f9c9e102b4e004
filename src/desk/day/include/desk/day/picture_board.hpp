#pragma once

#include <QColor>
#include <QRectF>
#include <QString>
#include <QWidget>

#include <optional>
#include <utility>
#include <vector>

namespace poquito::desk {

class ShotPictures;

/// One picture on the board: of a shot, of two that share it, or a place that is still free.
struct BoardCell {
    /// A shot and what of its frame is shown, in shares of it.
    struct Part {
        int shot = 0;
        QRectF cut{0, 0, 1, 1};
        bool operator==(const Part&) const = default;
    };
    std::vector<Part> parts;  // none: free
    QString label;
    QString second;      // below it
    QString trouble;     // said below it instead, and by a triangle
    bool faded = false;  // not taken
    bool first = false;  // stands before the others
    QString tip = {};

    bool operator==(const BoardCell&) const = default;
};

struct BoardSection {
    QString heading;
    QString words;
    QColor colour = {};  // of the words; invalid: quiet
    std::vector<BoardCell> cells;

    bool operator==(const BoardSection&) const = default;
};

/// Pictures as on a light table: rows under a heading each, every one as its shot's finder shows it. Left and right,
/// up and down choose one, Enter opens its shot; what is cut is dragged under its cut.
class PictureBoard : public QWidget {
    Q_OBJECT
  public:
    PictureBoard(const char* name, const QString& says, ShotPictures& pictures, QWidget* parent = nullptr);

    /// `selected`: the shot that is marked. `draggable`: cuts can be moved.
    void setSections(std::vector<BoardSection> sections, int selected, bool draggable);
    const std::vector<BoardSection>& sections() const { return sections_; }
    QRectF cellRect(std::size_t section, std::size_t cell) const;

    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;
    QSize sizeHint() const override { return {640, heightForWidth(640)}; }
    QSize minimumSizeHint() const override { return {160, 120}; }

  Q_SIGNALS:
    void shotClicked(int shot);
    void shotWanted();
    void headingClicked(int section);
    /// By shares of the frame, right and down.
    void cutDragged(int section, int shot, double right, double down);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    bool event(QEvent* event) override;

  private:
    struct Place {
        std::size_t section = 0, cell = 0;
        bool operator==(const Place&) const = default;
    };
    void fit();  // pictures as large as the room in sight allows
    std::size_t columns(int width) const;
    double pictureRoom() const;
    double cellHeight() const;
    double sectionHeight(const BoardSection& section, std::size_t columns) const;
    std::optional<Place> placeAt(QPointF at) const;
    std::optional<Place> placeOf(int shot) const;
    void step(int by);
    /// Where the picture stands in its cell, as large as its shape allows.
    QRectF pictureRect(const QRectF& cell, const BoardCell& of);
    void drawCell(QPainter& painter, const QRectF& area, const BoardCell& cell);
    double frameShape(int shot);

    ShotPictures& pictures_;
    std::vector<BoardSection> sections_;
    int selected_ = -1;
    bool draggable_ = false;
    double cellWidth_ = 116;
    struct Held {
        Place place;
        int shot = 0;
        QPointF from;
        QSizeF frame;  // px that all of the frame would take
        bool moved = false;
    };
    std::optional<Held> held_;
};

}  // namespace poquito::desk
