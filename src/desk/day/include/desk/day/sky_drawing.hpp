#pragma once

#include "shoot/site.hpp"
#include "sun/shine.hpp"

#include <QString>
#include <QWidget>

#include <optional>
#include <vector>

namespace poquito::desk {

/// What the drawing shows: a site on its day, a camera, and a moment of it.
struct SkyDay {
    shoot::Site site;
    sun::Place place;
    sun::Day day;
    double moment = 0;
    double bearing = 0;  // that the camera looks towards
    std::vector<sun::Hours> hours;
    std::vector<sun::Stretch> shining;
    /// Shots with fixed times, by the clock, s after midnight; the selected one's is drawn strongly.
    struct Wish {
        QString name;
        std::optional<double> from, to;
        bool selected = false;
    };
    std::vector<Wish> wishes;
};

/// The sky over the set from above, north up: the sun's way through it, what stands before it, the camera; and below it
/// the day as a line. Sun and camera are dragged, arrow keys move the time.
class SkyDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit SkyDrawing(QWidget* parent = nullptr);
    void setDay(std::optional<SkyDay> day);  // empty: no place is known
    const std::optional<SkyDay>& day() const { return day_; }
    QSize minimumSizeHint() const override { return {360, 380}; }

    QPointF placeOf(double bearing, double elevation) const;  // in the sky
    double timeAt(double x) const;                            // moment
    double xOf(double moment) const;
    QRectF stripArea() const;

  Q_SIGNALS:
    void momentDragged(double moment);
    void bearingDragged(double bearing);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    enum class Held { nothing, sun, camera, time };
    QPointF centre() const;
    double radius() const;
    QPointF cameraPlace() const;
    QPainterPath sector(double from, double to, double low, double high) const;
    void drawSky(QPainter& painter) const;
    void drawSides(QPainter& painter) const;
    void drawWay(QPainter& painter) const;
    void drawCamera(QPainter& painter) const;
    void drawSun(QPainter& painter) const;
    void drawStrip(QPainter& painter) const;
    void drawWishes(QPainter& painter, const QRectF& area) const;
    void dragTo(QPointF place);

    std::optional<SkyDay> day_;
    Held held_ = Held::nothing;
};

}  // namespace poquito::desk
