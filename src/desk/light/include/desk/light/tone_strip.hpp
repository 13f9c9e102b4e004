#pragma once

#include "whatif/fill.hpp"

#include <QWidget>

#include <optional>
#include <vector>

namespace poquito::desk {

class Document;

/// How bright the picture shows what is in it: patches side by side in the tones of the picture, each with its name and
/// its stops from mid grey: the side towards the key, the side away from it, an edge lit from behind, what is behind.
/// The tones that a light of their own makes are dragged up and down, or stepped with the arrow keys, to ask for them.
class ToneStrip : public QWidget {
    Q_OBJECT
  public:
    explicit ToneStrip(const Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {160, 0}; }  // where there is no room it stays away
    QSize sizeHint() const override { return {220, 130}; }

    struct Patch {
        QString name;
        std::optional<double> stops;            // from mid grey; empty: no light gets there
        std::optional<whatif::Tone> tone = {};  // that can be asked for
        double over_exposure = 0;               // stops that the patch shows over the reading it stands for
    };
    std::vector<Patch> patches() const;
    QRectF patchRect(std::size_t index) const;

  Q_SIGNALS:
    /// `visit`: one for each drag, so that it is one step of Undo.
    void asked(const whatif::ToneAsked& tone, const QString& visit);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    std::optional<std::size_t> at(const QPointF& place) const;
    void ask(std::size_t patch, double stops);
    double tall() const;

    const Document& document_;
    std::optional<std::size_t> dragged_;
    std::size_t chosen_ = 1;
    double grabbed_ = 0;  // y
    double from_ = 0;     // stops it had then
    int visit_ = 0;
};

}  // namespace poquito::desk
