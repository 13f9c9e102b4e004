#pragma once

#include <QWidget>

#include <optional>

namespace poquito::desk {

class Document;

/// How the camera stands for a measurement: the bare lens at closest focus, below it the lens on a tube, to one scale.
class MeasureSketch : public QWidget {
    Q_OBJECT
  public:
    explicit MeasureSketch(const Document& document, QWidget* parent = nullptr);

    /// mm from sensor to subject, as typed so far.
    struct Distances {
        double bare = 290;
        double extended = 280;
        double extension = 12;
    };
    /// Empty: the bare lens alone.
    void show(const std::optional<Distances>& distances);

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void drawRow(QPainter& painter, double axis, double scale, double extension, double distance) const;

    const Document& document_;
    std::optional<Distances> distances_;
};

}  // namespace poquito::desk
