#pragma once

#include "desk/pages/station_page.hpp"

#include <vector>

class QCheckBox;

namespace poquito::desk {

class LapseDrawing;
class QuantityField;

/// A slow thing taken again and again: how long, how often, how it grows and how the light goes; what that comes to.
class LapseForm : public StationPage {
    Q_OBJECT
  public:
    explicit LapseForm(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    QCheckBox* on_ = nullptr;
    QuantityField* shown_ = nullptr;
    std::vector<QWidget*> fields_;
    LapseDrawing* drawing_ = nullptr;
};

}  // namespace poquito::desk
