#pragma once

#include "desk/station_page.hpp"

namespace poquito::desk {

class DepthChart;
class Sentence;

/// What stop, what counts as sharp, one frame or a stack and how it steps.
class DepthPage : public StationPage {
    Q_OBJECT
  public:
    explicit DepthPage(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const shoot::Report& report) override;

  private:
    void addSharpness(QLayout* column);
    void addCapture(QLayout* column);

    QuantityField* pixels_ = nullptr;
    QuantityField* stated_ = nullptr;
    QComboBox* output_ = nullptr;
    QuantityField* printWidth_ = nullptr;
    QuantityField* viewingDistance_ = nullptr;
    QuantityField* deliveredWidth_ = nullptr;
    QuantityField* crop_ = nullptr;
    QuantityField* kept_ = nullptr;
    std::vector<QWidget*> stackOnly_;
    Sentence* ruleText_ = nullptr;
    Sentence* stackText_ = nullptr;
    DepthChart* chart_ = nullptr;
};

}  // namespace poquito::desk
