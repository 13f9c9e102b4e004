#pragma once

#include "desk/base/station_page.hpp"

class QLineEdit;
class QPushButton;
class QRadioButton;
class QTableView;

namespace poquito::desk {

class ProofModel;
class Sentence;

/// What was shot and what to make of it; kept in the file so that next time starts from here.
class ProofPage : public StationPage {
    Q_OBJECT
  public:
    explicit ProofPage(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void note();
    void removeChosen();

    std::string shownShot_;
    QuantityField* frames_;
    QuantityField* correction_;
    QRadioButton* keep_;
    QRadioButton* redo_;
    QLineEdit* remark_;
    Sentence* advice_;
    ProofModel* model_;
    QTableView* table_;
    QPushButton* remove_;
};

}  // namespace poquito::desk
