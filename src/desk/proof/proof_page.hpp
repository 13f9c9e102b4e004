#pragma once

#include "desk/base/station_page.hpp"

class QLabel;
class QLineEdit;
class QPushButton;
class QRadioButton;
class QListView;

namespace poquito::desk {

class LookOverList;
class ProofModel;
class Sentence;

/// What to look at in the frames, what was shot and what to make of it; kept in the file so that next time starts from
/// here.
class ProofPage : public StationPage {
    Q_OBJECT
  public:
    explicit ProofPage(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addForm();
    void addLookOver();
    void addLog(QVBoxLayout* right);
    void takeAnswers();
    void forgetAnswers();
    void note();
    void removeChosen();

    std::string shownShot_;
    LookOverList* lookOver_;
    QLabel* looked_;
    double told_ = 0;  // the correction that an answer gave
    bool anyWrong_ = false;
    QuantityField* frames_;
    QuantityField* correction_;
    QRadioButton* keep_;
    QRadioButton* redo_;
    QLineEdit* remark_;
    Sentence* advice_;
    ProofModel* model_;
    QListView* log_;
    QPushButton* remove_;
};

}  // namespace poquito::desk
