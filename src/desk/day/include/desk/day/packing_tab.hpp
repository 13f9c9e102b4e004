#pragma once

#include "desk/pages/station_page.hpp"
#include "job/packing.hpp"

#include <vector>

class QComboBox;
class QLineEdit;
class QPushButton;
class QToolButton;

namespace poquito::desk {

class PackingBoard;
class Sentence;

/// What comes along, by case; ticked off going and coming home.
class PackingTab : public StationPage {
    Q_OBJECT
  public:
    explicit PackingTab(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addOwn();
    void putMarked(const std::string& container);
    const job::PackLine* marked() const;

    PackingBoard* board_ = nullptr;
    QToolButton* going_ = nullptr;
    QToolButton* home_ = nullptr;
    Sentence* verdict_ = nullptr;
    QLineEdit* own_ = nullptr;
    QComboBox* case_ = nullptr;
    QPushButton* put_ = nullptr;
    QPushButton* forget_ = nullptr;
    std::vector<job::PackLine> lines_;
};

}  // namespace poquito::desk
