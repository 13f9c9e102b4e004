#pragma once

#include "desk/pages/station_page.hpp"

class QCheckBox;
class QGridLayout;

namespace poquito::desk {

class BalanceChart;
class Sentence;
class ToneStrip;

/// Shutter, ISO and the light that is there anyway, beside the chart of its balance with the flashes.
class BalanceTab : public StationPage {
    Q_OBJECT
  public:
    explicit BalanceTab(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    static QString automaticText(const plan::LightReport& light);
    void addExposure(QLayout* column);
    void addAmbient(QLayout* column);
    void addFilters(QGridLayout* group);
    void addOtherLight(QVBoxLayout* column);

    QCheckBox* highSpeed_ = nullptr;
    std::vector<QWidget*> ambientOnly_;
    std::vector<QWidget*> directedOnly_;
    QComboBox* sky_ = nullptr;
    QPushButton* otherLight_ = nullptr;
    QPushButton* prepare_ = nullptr;
    Sentence* black_ = nullptr;
    BalanceChart* chart_ = nullptr;
    QWidget* filters_ = nullptr;
    ToneStrip* tones_ = nullptr;
};

}  // namespace poquito::desk
