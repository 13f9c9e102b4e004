#pragma once

#include "desk/pages/station_page.hpp"
#include "log/seasons.hpp"

#include <vector>

class QLineEdit;

namespace poquito::desk {

class LogController;
class SeasonsPage;
class Sentence;

/// What is in season about the day of the shoot: what was logged out of doors first, then what is common.
class SeasonsTab : public StationPage {
    Q_OBJECT
  public:
    SeasonsTab(Document& document, LogController& log, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;
    void showEvent(QShowEvent* event) override;

  private:
    void look();
    void showRows();

    LogController& log_;
    QLineEdit* words_ = nullptr;
    Sentence* ahead_ = nullptr;
    SeasonsPage* page_ = nullptr;
    std::vector<log::Season> common_;
    std::vector<log::Entry> logged_;
};

}  // namespace poquito::desk
