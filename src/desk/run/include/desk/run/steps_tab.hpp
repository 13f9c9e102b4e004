#pragma once

#include "desk/pages/station_page.hpp"

class QTableWidget;

namespace poquito::desk {

class Sentence;
class StepsChart;

/// What the camera's numbered steps really are, with the shot's lens: readings of photographed rules, and the fit
/// through them.
class StepsTab : public StationPage {
    Q_OBJECT
  public:
    explicit StepsTab(Document& document, QWidget* parent = nullptr);

  Q_SIGNALS:
    void problemFound(const QString& problem);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void enter();
    void remove();
    void fromPictures();
    void showReadings(std::vector<gear::StepReading> readings);
    void editCamera(const QString& label, const std::function<void(gear::Camera&)>& change);

    QuantityField* settings_ = nullptr;
    QuantityField* setting_ = nullptr;
    QuantityField* stop_ = nullptr;
    QuantityField* frames_ = nullptr;
    QuantityField* travel_ = nullptr;
    QPushButton* remove_ = nullptr;
    QTableWidget* table_ = nullptr;
    StepsChart* chart_ = nullptr;
    Sentence* verdict_ = nullptr;
    std::string shotShown_;
    std::vector<gear::StepReading> shown_;  // in the table
    bool listed_ = false;
};

}  // namespace poquito::desk
