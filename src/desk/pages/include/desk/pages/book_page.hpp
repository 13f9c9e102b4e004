#pragma once

#include <QWidget>

class QPagedPaintDevice;

namespace poquito::desk {

/// A page of the book that is looked at on the desk and printed as it stands.
class BookPage : public QWidget {
    Q_OBJECT
  public:
    explicit BookPage(QWidget* parent = nullptr);

    /// On one sheet, in black on white. False: the device takes nothing.
    bool printOn(QPagedPaintDevice& device) const;
    /// Asks for a printer, or a file.
    void askAndPrint();

  protected:
    void paintEvent(QPaintEvent* event) override;
    /// In the theme's colours, within an area as wide as a sheet or wider.
    virtual void draw(QPainter& painter, const QRectF& area) const = 0;
    /// What it takes at that width.
    virtual double heightFor(double width) const = 0;
    /// What the pages write: one line, or as much of it as there is room for; a heading over a line, 28 px high.
    static void writeLine(QPainter& painter, const QRectF& area, const QFont& font, const QColor& colour,
                          const QString& words);
    static void writeHeading(QPainter& painter, const QRectF& area, const QString& words);
    static constexpr double headingHeight = 28;
    void fit();  // once its contents are others
    void resizeEvent(QResizeEvent* event) override;
};

}  // namespace poquito::desk
