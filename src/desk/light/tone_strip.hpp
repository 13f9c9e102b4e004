#pragma once

#include <QWidget>

namespace poquito::desk {

class Document;

/// How bright the picture shows what is in it: patches side by side in the tones of the picture, each with its name and
/// its stops from mid grey.
class ToneStrip : public QWidget {
    Q_OBJECT
  public:
    explicit ToneStrip(const Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {160, 0}; }  // where there is no room it stays away
    QSize sizeHint() const override { return {220, 130}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    const Document& document_;
};

}  // namespace poquito::desk
