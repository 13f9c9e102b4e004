#pragma once

#include "desk/pages/station_page.hpp"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QRadioButton;
class QListView;
class QStackedWidget;

namespace poquito::desk {

class CoverageMap;
class FramesPanel;
class Tabs;
class LightBars;
class LookOverList;
class ProofController;
class ProofModel;
class ProofNotes;
class RunController;
class Sentence;
class SortingView;
struct ProofLook;

/// The frames of a shot as they came out: large on the left, what they show on the right, and what to take again of
/// them; what a person sees and notes beside that is kept in the file, so that next time starts from here.
class ProofPage : public StationPage {
    Q_OBJECT
  public:
    ProofPage(Document& document, ProofController& controller, RunController& runs, QWidget* parent = nullptr);

    FramesPanel* frames() const { return frames_; }

  Q_SIGNALS:
    void runShown();  // of what is taken again
    void reviewWanted();
    void problemFound(const QString& problem);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;
    void keyPressEvent(QKeyEvent* event) override;
    void showEvent(QShowEvent* event) override;

  private:
    QWidget* buildFindings();
    void buildQuestion(QVBoxLayout* column);
    void showQuestion(const ProofLook* look);
    void buildVerdict(QVBoxLayout* column);
    QWidget* buildByEye();
    void addForm(QVBoxLayout* column);
    QWidget* buildLog();
    const ProofLook* look() const;
    void showLook();
    void showVerdict(const ProofLook* look);
    void take(const std::vector<double>& planes);
    void learn(std::size_t offer);
    void goToNote(int note);
    void keepLook(bool keep);
    void decideSorted(int sequence, bool keep);
    void showSorting(bool show);
    void setAside();
    void askFrames();
    void askFolder();
    void takeAnswers();
    void forgetAnswers();
    void note();
    void addEntry(const QString& label, shoot::ProofEntry entry);
    void removeChosen();

    ProofController& controller_;
    RunController& runs_;
    QStackedWidget* pages_;  // of the shot, or all that was sorted
    FramesPanel* frames_;
    SortingView* sorting_;
    Tabs* tabs_;
    QWidget* question_;  // of which shot they are, where none was planned so
    QComboBox* whose_;
    std::string askedOf_;  // shot whose frames the question is about now; empty: not asked
    ProofNotes* notes_;
    QWidget* mapBox_;
    CoverageMap* map_;
    LightBars* light_;
    Sentence* verdict_;
    QPushButton *take_, *keepShot_, *redoShot_, *aside_;
    int shownNotes_ = 0;  // which they are, as ProofLook::said

    std::string shownShot_;
    bool anyFrames_ = false;
    LookOverList* lookOver_;
    QLabel* looked_;
    double told_ = 0;  // the correction that an answer gave
    bool anyWrong_ = false;
    QuantityField* frameCount_;
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
