#pragma once

#include "desk/pages/station_page.hpp"

class QSlider;

namespace poquito::desk {

class ReachDrawing;

/// The gear a train is made of, the focus ring and what it reaches.
class TrainTab : public StationPage {
    Q_OBJECT
  public:
    explicit TrainTab(Document& document, QWidget* parent = nullptr);

  Q_SIGNALS:
    /// A piece is held over another part of the window, and let go of there; in coordinates of the screen.
    void pieceDragged(QPoint at);
    void pieceDropped(const std::string& list, const std::string& id, QPoint at);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addGear(QLayout* column);
    void addPieces(QLayout* column);
    void addFocus(QLayout* column);
    void addFrontAndBellows(QLayout* column);
    void addCarrying(QLayout* column);

    QSlider* slider_;
    int drag_ = 0;
    ReachDrawing* drawing_;
    QWidget* cropChoice_ = nullptr;
    QWidget* zoomField_ = nullptr;
    QWidget* extensionField_ = nullptr;
    QWidget* frontStopField_ = nullptr;
    QWidget* frontRingField_ = nullptr;
    QWidget* railChoice_ = nullptr;
    QCheckBox* tank_ = nullptr;
    QuantityField* water_ = nullptr;
    QuantityField* wall_ = nullptr;
};

}  // namespace poquito::desk
