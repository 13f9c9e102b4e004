#pragma once

#include "desk/pages/station_page.hpp"
#include "desk/toolkit/quantity.hpp"
#include "shoot/site.hpp"

#include <functional>
#include <map>

class QCheckBox;
class QComboBox;
class QGridLayout;
class QPushButton;
class QVBoxLayout;

namespace poquito::desk {

class FactsView;
class LogController;
class QuantityField;
class Sentence;
class SkyDrawing;

/// The sun on the day of the shoot: where the set stands and what stands before it, when which light comes, how bright
/// it is and how long that holds; and what of it a shot takes.
class SunTab : public StationPage {
    Q_OBJECT
  public:
    SunTab(Document& document, LogController& log, QWidget* parent = nullptr);

    double moment() const;  // that is looked at; 0: no place is known

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;
    void showEvent(QShowEvent* event) override;

  private:
    QWidget* buildSide();
    void addPlace(QVBoxLayout* column);
    void addLight(QVBoxLayout* column);
    void addBefore(QVBoxLayout* column);
    void addWays(QVBoxLayout* column);
    void editSite(const QString& label, const QString& key, const std::function<void(shoot::Site&)>& change);
    QuantityField* addNumber(QGridLayout* group, const Caption& caption, Quantity quantity,
                             std::function<void(shoot::Site&, double)> set);
    void namePlace(const QString& name);
    void lookInLog();
    void addLogged(const shoot::Site& site);
    void showSite(const shoot::Site& site);
    void showFacts(const Shot& shot);
    std::string date() const;  // of the site, else today's
    void take();
    void fence();

    SkyDrawing* drawing_ = nullptr;
    LogController& log_;
    std::map<std::string, shoot::Site> logged_;  // places that the log has been at, by name
    QComboBox* place_ = nullptr;
    QuantityField* latitude_ = nullptr;
    QuantityField* longitude_ = nullptr;
    QComboBox* zone_ = nullptr;
    LineField* date_ = nullptr;
    QComboBox* sky_ = nullptr;
    QCheckBox* read_ = nullptr;
    QuantityField* reading_ = nullptr;
    QuantityField* readAt_ = nullptr;
    QComboBox* obstacle_ = nullptr;
    QPushButton* removeObstacle_ = nullptr;
    QuantityField* obstacleFrom_ = nullptr;
    QuantityField* obstacleTo_ = nullptr;
    QuantityField* obstacleHeight_ = nullptr;
    QCheckBox* windowed_ = nullptr;
    QuantityField* windowFrom_ = nullptr;
    QuantityField* windowTo_ = nullptr;
    QuantityField* windowLow_ = nullptr;
    QuantityField* windowHigh_ = nullptr;
    FactsView* facts_ = nullptr;
    Sentence* advice_ = nullptr;
    QPushButton* take_ = nullptr;
    QPushButton* fence_ = nullptr;
    double clock_ = 10 * 3600;  // that is looked at, s after midnight
    int visit_ = 0;
};

}  // namespace poquito::desk
