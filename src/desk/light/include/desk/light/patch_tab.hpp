#pragma once

#include "desk/pages/station_page.hpp"
#include "whatif/grey_patch.hpp"

#include <optional>

namespace poquito::desk {

class ChosenLight;
class PatchView;
class Sentence;

/// What the test frame showed, typed or measured in its picture; the one change that mends it; and what the kit learns.
class TestFrameTab : public StationPage {
    Q_OBJECT
  public:
    TestFrameTab(Document& document, ChosenLight& chosen, QWidget* parent = nullptr);

    PatchView* patch() const { return patch_; }

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addFrame(QVBoxLayout* column);
    void addFixes(QVBoxLayout* column);
    void addLesson(QVBoxLayout* column);
    void measure();
    void showFixes();
    void showLesson(const Shot& shot, const plan::Report& report);
    whatif::Lesson lesson(const Shot& shot) const;
    void learn();
    void forget();
    std::string nowText() const;

    ChosenLight& chosen_;
    double stops_ = 0;           // the frame from correct, as typed or measured
    std::string shotId_;         // the shot that was said of
    double reflectance_ = 0.18;  // of what is in the marked area
    QuantityField* seen_ = nullptr;
    QuantityField* patchReflectance_ = nullptr;
    PatchView* patch_ = nullptr;
    Sentence* reading_ = nullptr;
    std::vector<QPushButton*> fixes_;
    QComboBox* keptIn_ = nullptr;
    Sentence* lessonText_ = nullptr;
    QPushButton* learn_ = nullptr;
    QPushButton* forget_ = nullptr;
};

}  // namespace poquito::desk
