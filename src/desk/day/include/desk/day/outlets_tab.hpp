#pragma once

#include "desk/pages/station_page.hpp"
#include "job/outlets.hpp"

#include <optional>
#include <string>
#include <vector>

class QComboBox;
class QPushButton;

namespace poquito::desk {

struct BoardSection;
class LineField;
class PictureBoard;
class PictureWriter;
class Sentence;
class ShotPictures;

/// Where the pictures of a thing go: of each outlet those that it gets, as they are cut, what is left out and why; and
/// what the outlet takes.
class OutletsTab : public StationPage {
    Q_OBJECT
  public:
    OutletsTab(Document& document, ShotPictures& pictures, QWidget* parent = nullptr);

    /// Cuts what was taken and is finished for all outlets, into folders of that one.
    void write(const QString& folder);
    const PictureWriter& writer() const { return *writer_; }

  Q_SIGNALS:
    void shotWanted();

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    QWidget* buildBoard();
    QWidget* buildSide();
    void addRecord(QVBoxLayout* column);
    void addWays(QVBoxLayout* column);
    const shoot::Outlet* outlet();  // whose record shows; null: there is none
    void editOutlet(const QString& label, const QString& key, const std::function<void(shoot::Outlet&)>& change);
    std::string thing();  // that is shown; empty: none has views
    void showBoard();
    BoardSection section(const shoot::Outlet& outlet, const job::AllAssessed& facts, const job::OutletChoice& now);
    void showActions();
    void addOutlet();
    void removeOutlet();
    void showRecord();
    void choose(bool all);
    void toggle();
    void frameUnfit();
    void askAndWrite();
    void showWriting();
    void moveCut(int section, int shot, double right, double down);

    ShotPictures& pictures_;
    PictureWriter* writer_;
    PictureBoard* board_ = nullptr;
    Sentence* nothing_ = nullptr;
    QPushButton* begin_ = nullptr;
    QWidget* record_ = nullptr;
    QComboBox* outlets_ = nullptr;
    LineField* name_ = nullptr;
    LineField* first_ = nullptr;
    QuantityField* most_ = nullptr;
    QuantityField* shape_ = nullptr;
    QCheckBox* shaped_ = nullptr;
    QuantityField* least_ = nullptr;
    QuantityField* longest_ = nullptr;
    QuantityField* margin_ = nullptr;
    QComboBox* ground_ = nullptr;
    QPushButton* choose_ = nullptr;
    QPushButton* chooseAll_ = nullptr;
    QPushButton* toggle_ = nullptr;
    QPushButton* frame_ = nullptr;
    QPushButton* write_ = nullptr;
    Sentence* verdict_ = nullptr;
    Sentence* written_ = nullptr;
    std::string shown_;               // id of the outlet whose record shows
    std::vector<std::size_t> unfit_;  // of the shown outlet
};

}  // namespace poquito::desk
