#pragma once

#include "desk/drawing/bench_layout.hpp"
#include "desk/toolkit/label_placer.hpp"

#include <QWidget>

#include <optional>

namespace poquito::desk {

class ChosenLight;
class Document;

/// The set to scale, from the sensor to the background: camera, converter, tubes, lens, close-up lens, working
/// distance, subject with the depth that is sharp, lights, and the cone the front of the lens shades. Lights and
/// background are dragged; the chosen light shows its distances in stops and is turned by its handle. What stands too
/// far away to be drawn to scale is shown at the edge with its true distance.
class BenchView : public QWidget {
    Q_OBJECT
  public:
    BenchView(Document& document, ChosenLight& chosen, QWidget* parent = nullptr);

    Elevation elevation() const { return elevation_; }
    void setElevation(Elevation elevation);
    QSize minimumSizeHint() const override { return {320, 170}; }
    QSize sizeHint() const override { return {700, 262}; }

    /// Places of things in this widget, for whoever points at them: pixels a millimetre, and the middle of a light's
    /// face (empty: drawn at the edge).
    double scale() const;
    std::optional<QPointF> lightPlace(std::size_t light) const;
    std::optional<QPointF> aimPlace() const;  // of the chosen light's handle
    std::optional<QPointF> backgroundPlace() const;
    /// From the front rim to the subject's centre, as drawn, in pixels.
    double drawnWorkingDistance() const;
    /// The lettering as it was drawn last.
    const std::vector<PlacedLabel>& labels() const { return labels_; }

  Q_SIGNALS:
    void elevationChanged(Elevation elevation);
    void lightTaken(std::size_t light);  // by the mouse

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

  private:
    struct Grip {
        enum Kind { light, aim, background } kind = light;
        std::size_t index = 0;
    };
    BenchLayout layOut() const;
    std::optional<Grip> gripAt(QPointF place) const;
    void drag(QPointF place);
    void dragLight(shoot::Light& light, QPointF inPlane) const;
    void turnLight(shoot::Light& light, QPointF inPlane) const;

    Document& document_;
    ChosenLight& chosen_;
    Elevation elevation_ = Elevation::side;
    std::optional<Grip> dragged_;
    std::optional<BenchLayout> dragLayout_;  // the scale stays while one drags
    int drags_ = 0;
    std::vector<PlacedLabel> labels_;
};

}  // namespace poquito::desk
