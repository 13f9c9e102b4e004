#pragma once

#include "desk/pages/station_page.hpp"
#include "render/scene.hpp"
#include "shoot/form/attitude.hpp"

#include <QPointF>

class QToolButton;

namespace poquito::desk {

class CardSwatches;
class ColourField;
class DepthChart;
class JudgementStrip;
class LapseForm;
class LadderView;
class PlaneDrawing;
class Tabs;
class Sentence;

/// What stop, what counts as sharp, one frame or a stack: the blur chart, the ladder, the plane, the background and the
/// settings behind them, each a tab of the sheet, with the judgement below.
class DepthPage : public StationPage {
    Q_OBJECT
  public:
    explicit DepthPage(Document& document, QWidget* parent = nullptr);

    /// The loupe is somewhere else in the finder.
    void setLoupe(imaging::Place place);
    /// Three places on the sensor, mm, that were clicked in the finder.
    void showPlane(const std::vector<QPointF>& places);

  Q_SIGNALS:
    void planePointsWanted();
    void problemFound(const QString& problem);
    void saved(const QString& path);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    QWidget* chartTab();
    QWidget* planeTab();
    QWidget* backgroundTab();
    QWidget* settingsTab();
    void addSharpness(QLayout* column);
    void addCapture(QLayout* column);
    void showLimits(const Shot& shot);
    void showPlaneText(const Shot& shot, const plan::Report& report);
    void saveSheet();
    void propose(std::optional<shoot::Attitude> attitude);

    Tabs* tabs_ = nullptr;
    JudgementStrip* strip_ = nullptr;
    LadderView* ladder_ = nullptr;
    DepthChart* chart_ = nullptr;
    PlaneDrawing* plane_ = nullptr;
    Sentence* planeText_ = nullptr;
    QPushButton* turnButton_ = nullptr;
    std::optional<shoot::Attitude> proposal_;
    Sentence* backgroundText_ = nullptr;
    std::vector<QWidget*> backgroundOnly_;
    ColourField* backgroundColour_ = nullptr;
    CardSwatches* cards_ = nullptr;
    /// From the marked stop to the one that the camera displays.
    double shownFactor();

    QuantityField* aperture_ = nullptr;
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
    LapseForm* lapse_ = nullptr;
    Sentence* stackText_ = nullptr;
};

}  // namespace poquito::desk
