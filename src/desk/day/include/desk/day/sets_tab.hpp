#pragma once

#include "desk/pages/station_page.hpp"

#include <QComboBox>

#include <vector>

class QCheckBox;
class QLineEdit;
class QPushButton;

namespace poquito::shoot {
struct ViewSet;
struct Thing;
}  // namespace poquito::shoot

namespace poquito::desk {

class LineField;
class PictureBoard;
class Sentence;
class ShotPictures;
class ViewSetLibrary;

/// Things by their views, and pictures by their plates: made from a set, kept alike, told where they are not.
class SetsTab : public StationPage {
    Q_OBJECT
  public:
    SetsTab(Document& document, ShotPictures& pictures, ViewSetLibrary& library, QWidget* parent = nullptr);

    /// A list of things, one a line; says what it could not read. For tests and tools as well.
    void readList(const QString& path);
    /// Holds the series of this shoot against those of an earlier session, a shoot file.
    void compareWith(const QString& path);

  Q_SIGNALS:
    void shotWanted();
    void problemFound(const QString& words);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    QWidget* buildBoard();
    QWidget* buildSide();
    void addMaking(QVBoxLayout* column);
    void addView(QVBoxLayout* column);
    void addLocks(QVBoxLayout* column);
    void addPlate(QVBoxLayout* column);
    void fillSets();
    void showBoard();
    void showDeviations();
    const shoot::ViewSet* chosenSet();
    shoot::Thing wantedThing() const;
    void make();
    void keepSet();

    ShotPictures& pictures_;
    ViewSetLibrary& library_;
    PictureBoard* board_ = nullptr;
    Sentence* nothing_ = nullptr;
    QComboBox* sets_ = nullptr;
    LineField* thingName_ = nullptr;
    QuantityField* sizes_[3] = {};
    QPushButton* make_ = nullptr;
    QPushButton* keep_ = nullptr;
    Sentence* contents_ = nullptr;
    QWidget* viewGroup_ = nullptr;
    LineField* viewName_ = nullptr;
    LineField* proves_ = nullptr;
    LineField* also_ = nullptr;
    QWidget* locksGroup_ = nullptr;
    ChoiceChips* locksChips_ = nullptr;
    Sentence* deviations_ = nullptr;
    Sentence* sessions_ = nullptr;
    QPushButton* bringInLine_ = nullptr;
    QPushButton* bringAll_ = nullptr;
    Sentence* plateWork_ = nullptr;
    std::vector<QPushButton*> plates_;
    std::string thingOf_;  // the thing whose sizes the fields were filled with
};

}  // namespace poquito::desk
