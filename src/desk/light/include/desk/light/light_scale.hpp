#pragma once

#include <QWidget>

namespace poquito::desk {

class Document;

/// Every source, its share and their sum on one scale of stops about a correct exposure; or the background on a scale
/// of its own with the limits of black, dark and clean white, and what each source gives it.
class LightScale : public QWidget {
    Q_OBJECT
  public:
    enum class Shows { sources, background };
    LightScale(const Document& document, Shows shows, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {140, 150}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void paintSources(QPainter& painter) const;
    void paintBackground(QPainter& painter) const;

    const Document& document_;
    Shows shows_;
};

}  // namespace poquito::desk
