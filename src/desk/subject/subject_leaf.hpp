#pragma once

#include "desk/base/station_page.hpp"

class QLineEdit;

namespace poquito::desk {

class FrameDrawing;
class Sentence;
class SubjectLibrary;

/// How big, how deep, how it moves and reflects, and what part of the frame it fills.
class SubjectLeaf : public StationPage {
    Q_OBJECT
  public:
    SubjectLeaf(Document& document, SubjectLibrary& library, QWidget* parent = nullptr);

    /// A grey picture becomes the subject's form; false, with a problem said, where it cannot.
    bool loadHeightMap(const QString& path);

  Q_SIGNALS:
    void problemFound(const QString& problem);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addLibrary(QGridLayout* group);
    void listLibrary();
    void keep();
    void addForm(QVBoxLayout* column);
    void askHeightMap();

    SubjectLibrary& library_;
    QComboBox* choice_ = nullptr;
    Sentence* assumed_ = nullptr;
    QLineEdit* name_;
    int nameVisit_ = 0;
    QuantityField* swayFrequency_;
    FrameDrawing* frame_;
};

}  // namespace poquito::desk
