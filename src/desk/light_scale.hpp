#pragma once

#include <QWidget>

namespace poquito::desk {

class Document;

/// Every source and their sum on one scale of stops about a correct exposure, the background on a scale of its own with
/// the limits of black, dark and clean white.
class LightScale : public QWidget {
    Q_OBJECT
  public:
    explicit LightScale(const Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {140, 150}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    const Document& document_;
};

}  // namespace poquito::desk
