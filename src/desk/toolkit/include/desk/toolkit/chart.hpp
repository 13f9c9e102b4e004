#pragma once

#include <QPainter>
#include <QWidget>

#include <functional>
#include <initializer_list>
#include <optional>
#include <vector>

namespace poquito::desk {

/// A quantity along an edge of a chart: evenly, or with equal ratios at equal lengths. Values outside lie outside.
class Axis {
  public:
    static Axis even(double from, double to) { return {from, to, false}; }
    static Axis ratios(double from, double to) { return {from, to, true}; }  // both above 0
    Axis() = default;

    double from() const { return from_; }
    double to() const { return to_; }
    double share(double value) const;  // of the way from `from` to `to`
    double at(double share) const;
    double clamped(double value) const { return from_ < to_ ? qBound(from_, value, to_) : qBound(to_, value, from_); }
    /// `count` + 1 values from end to end, as far apart as they look.
    std::vector<double> places(int count) const;

  private:
    Axis(double from, double to, bool ratios) : from_(from), to_(to), ratios_(ratios) {}
    double from_ = 0, to_ = 1;
    bool ratios_ = false;
};

/// The frame all charts share: a title, an area with two axes, their marks, curves and lines in the quantities' own
/// numbers, a cursor that reads the chart under the mouse, and arrow keys. A chart sets its axes in `prepare` and draws
/// inside them.
class Chart : public QWidget {
    Q_OBJECT
  public:
    explicit Chart(QWidget* parent = nullptr);

    /// For what the document now says.
    void refresh();

    QRectF area() const { return QRectF(rect()).adjusted(left_, top_, -right_, -bottom_); }
    double xOf(double value) const { return area().left() + area().width() * x_.share(value); }
    double yOf(double value) const { return area().bottom() - area().height() * y_.share(value); }
    QPointF placeOf(double x, double y) const { return {xOf(x), yOf(y)}; }
    double xAt(double place) const { return x_.at((place - area().left()) / area().width()); }
    double yAt(double place) const { return y_.at((area().bottom() - place) / area().height()); }

  protected:
    struct Mark {
        double value = 0;
        QString text = {};  // empty: a line alone
        double width = 1;   // of its line
    };
    enum class Lines { across, ticks };  // through the area, or just outside it

    void setMargins(double left, double top, double right, double bottom);
    void setAxes(const Axis& x, const Axis& y) { x_ = x, y_ = y; }
    const Axis& xAxis() const { return x_; }
    const Axis& yAxis() const { return y_; }

    /// Sets axes; false where there is nothing to draw. `draw` then draws all but the cursor.
    virtual bool prepare() = 0;
    virtual void draw(QPainter& painter) = 0;
    /// What the chart says there, in its own numbers; empty: nothing to read.
    virtual QString reading(double x, double y) const;
    /// An arrow key, as steps to the right and up; false: not for this chart.
    virtual bool step(int right, int up);

    void drawTitle(QPainter& painter, const QString& title) const;
    /// Lettering that would come nearer than `apart` pixels to its neighbour's middle is left out; 0: only what
    /// touches.
    void drawColumns(QPainter& painter, const std::vector<Mark>& marks, Lines lines, double apart = 0) const;
    void drawRows(QPainter& painter, const std::vector<Mark>& marks) const;
    /// Under the marks, at the right end or the left.
    void drawNote(QPainter& painter, Qt::Alignment side, const QString& words) const;
    void drawCurve(QPainter& painter, const QPen& pen, const std::function<double(double x)>& value) const;
    void drawUpright(QPainter& painter, const QPen& pen, double x) const;
    void drawAcross(QPainter& painter, const QPen& pen, double y) const;
    void clipToArea(QPainter& painter, double more = 1) const;

    void paintEvent(QPaintEvent* event) final;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void drawCursor(QPainter& painter) const;

    Axis x_, y_;
    double left_ = 40, top_ = 30, right_ = 12, bottom_ = 36;
    std::optional<QPointF> cursor_;
};

}  // namespace poquito::desk
