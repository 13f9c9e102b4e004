#pragma once

#include <QFontMetricsF>
#include <QPaintDevice>
#include <QPaintEngine>
#include <QPainter>
#include <QRectF>
#include <QString>
#include <QWidget>

#include <vector>

namespace poquito::test {

/// A text as it was drawn, in pixels of the widget.
struct Lettering {
    QRectF ink;
    QString text;
};

/// Notes what is lettered, and paints nothing.
class LetteringEngine : public QPaintEngine {
  public:
    LetteringEngine() : QPaintEngine(AllFeatures) {}

    bool begin(QPaintDevice*) override { return true; }
    bool end() override { return true; }
    void updateState(const QPaintEngineState&) override {}
    void drawPixmap(const QRectF&, const QPixmap&, const QRectF&) override {}
    void drawPath(const QPainterPath&) override {}
    void drawPolygon(const QPointF*, int, PolygonDrawMode) override {}
    void drawTextItem(const QPointF& place, const QTextItem& item) override {
        const QString text = item.text().trimmed();
        if (text.isEmpty()) return;
        QRectF ink = QFontMetricsF(item.font()).tightBoundingRect(item.text()).translated(place);
        ink = painter()->deviceTransform().mapRect(ink);
        if (painter()->hasClipping()) ink &= painter()->deviceTransform().mapRect(painter()->clipBoundingRect());
        if (!ink.isEmpty()) found.push_back({ink, text});
    }
    Type type() const override { return User; }

    std::vector<Lettering> found;
};

class LetteringDevice : public QPaintDevice {
  public:
    explicit LetteringDevice(QSize size) : size_(size) {}
    QPaintEngine* paintEngine() const override { return &engine_; }
    std::vector<Lettering>& found() { return engine_.found; }

  protected:
    int metric(PaintDeviceMetric metric) const override {
        switch (metric) {
            case PdmWidth:
                return size_.width();
            case PdmHeight:
                return size_.height();
            case PdmDepth:
                return 32;
            case PdmDevicePixelRatio:
                return 1;
            case PdmDevicePixelRatioScaled:
                return static_cast<int>(devicePixelRatioFScale());
            default:
                return 96;
        }
    }

  private:
    QSize size_;
    mutable LetteringEngine engine_;
};

/// What a widget letters by itself, without its children.
inline std::vector<Lettering> lettering(QWidget& widget) {
    LetteringDevice device(widget.size());
    widget.render(&device, {}, {}, QWidget::RenderFlags());
    return device.found();
}

}  // namespace poquito::test
