#pragma once

#include "desk/pages/station_page.hpp"

#include <vector>

namespace poquito::desk {

class LapseDrawing;

/// A slow thing taken again and again: how long, how often, how it grows and how the light goes; what that comes to.
class LapseForm : public StationPage {
    Q_OBJECT
  public:
    explicit LapseForm(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addNumber(QGridLayout* group, const Caption& caption, Quantity quantity, double shoot::Lapse::*member);
    void addFlag(QGridLayout* group, const Caption& caption, bool shoot::Lapse::*member);
    void addTimes(QGridLayout* group);
    void addChanges(QGridLayout* group);

    std::vector<QWidget*> fields_;
    LapseDrawing* drawing_ = nullptr;
};

}  // namespace poquito::desk
