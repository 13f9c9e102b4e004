#pragma once

#include "desk/pages/station_page.hpp"

class QLineEdit;

namespace poquito::desk {

class SpecimenBoard;
class Sentence;
class SubjectLibrary;

/// What it is, how it moves and reflects, by hand or from the library. Its sizes stand on the drawing above.
class SubjectTab : public StationPage {
    Q_OBJECT
  public:
    SubjectTab(Document& document, SubjectLibrary& library, QWidget* parent = nullptr);

    /// A grey picture becomes the subject's form; false, with a problem said, where it cannot.
    bool loadHeightMap(const QString& path);

  Q_SIGNALS:
    void problemFound(const QString& problem);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addForm(QGridLayout* form);
    void addMovement(QGridLayout* motion);
    void addLibrary(QVBoxLayout* column);
    void showBoard(const std::string& kind);
    void take(const std::string& id);
    void keep();
    void askHeightMap();

    SubjectLibrary& library_;
    QComboBox* kinds_ = nullptr;
    SpecimenBoard* board_ = nullptr;
    std::pair<std::string, std::optional<std::string>> shownFor_;  // the shot and what it was filled from
    Sentence* assumed_ = nullptr;
    QLineEdit* name_;
    QLineEdit* wordsOf_;
    int nameVisit_ = 0;
    QuantityField* swayFrequency_;
    QPushButton* heightMap_ = nullptr;
};

}  // namespace poquito::desk
