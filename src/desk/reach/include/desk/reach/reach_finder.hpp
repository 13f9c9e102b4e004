#pragma once

#include "desk/session/bag.hpp"
#include "desk/session/search.hpp"
#include "search/reach_search.hpp"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QLabel;
class QProgressBar;
class QPushButton;
class QTableView;
class QVBoxLayout;

namespace poquito::desk {

class QuantityField;
class ReachChart;
class ReachModel;

/// "So much across the frame, so much air in front, out of this gear": every combination, as dots and as rows; choosing
/// one mounts it on the shot.
class ReachFinder : public QDialog {
    Q_OBJECT
  public:
    ReachFinder(Document& document, Bag& bag, QWidget* parent = nullptr);

    /// What the shot is about becomes the wish.
    void begin();
    bool isSearching() const { return search_.isRunning(); }

  protected:
    void hideEvent(QHideEvent* event) override;

  private:
    struct Answer {
        search::ReachResult result;
        std::optional<search::ReachFound> greatest;
    };
    QWidget* buildWishes();
    QWidget* buildFound();
    QCheckBox* addCheck(QVBoxLayout* column, const char* name, const QString& text, const QString& tip);
    const gear::Kit& kit() const;
    search::ReachWish wish() const;
    void search();
    void showResult(Answer answer);
    void showChosen();
    void choose(const search::ReachFound& found);
    void orderBy(int column);
    void apply();
    void mount(const search::ReachFound& found);
    QString orderText() const;

    Document& document_;
    Bag& bag_;
    bool again_ = false;  // the wish changed while one was looked for
    Search<Answer> search_;
    std::vector<search::ReachMeasure> order_ = {search::ReachMeasure::pieces, search::ReachMeasure::optical_cost,
                                                search::ReachMeasure::working_distance, search::ReachMeasure::loss};
    std::optional<search::ReachFound> greatest_;

    QComboBox* source_ = nullptr;
    QComboBox* by_ = nullptr;
    QuantityField* size_ = nullptr;
    QuantityField* magnification_ = nullptr;
    QuantityField* distance_ = nullptr;
    QCheckBox* limitLoss_ = nullptr;
    QuantityField* loss_ = nullptr;
    QCheckBox* autofocus_ = nullptr;
    QCheckBox* infinity_ = nullptr;
    QCheckBox* noGlass_ = nullptr;
    QCheckBox* thisCamera_ = nullptr;
    QCheckBox* cropModes_ = nullptr;
    QLabel* greatestText_ = nullptr;
    QPushButton* greatestButton_ = nullptr;
    QLabel* space_ = nullptr;
    QLabel* summary_ = nullptr;
    QLabel* orderLabel_ = nullptr;
    QLabel* chosenText_ = nullptr;
    ReachChart* chart_ = nullptr;
    QTableView* table_ = nullptr;
    ReachModel* model_ = nullptr;
    QProgressBar* progress_ = nullptr;
    QPushButton* cancel_ = nullptr;
    QPushButton* use_ = nullptr;
};

}  // namespace poquito::desk
