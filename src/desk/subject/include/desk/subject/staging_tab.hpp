#pragma once

#include "desk/pages/station_page.hpp"
#include "desk/session/kept_records.hpp"
#include "shoot/staging.hpp"

#include <string>
#include <vector>

class QLineEdit;

namespace poquito::desk {

class CardSwatches;
class FactsView;
class TableDrawing;

/// What stands in the picture beside the subject: put on the table, dragged there, and what becomes of it in the frame.
class StagingTab : public StationPage {
    Q_OBJECT
  public:
    /// `props` of the user's own; empty: props.json in the user's data folder.
    explicit StagingTab(Document& document, QWidget* parent = nullptr, const QString& props = {});

  Q_SIGNALS:
    void problemFound(const QString& words);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addFields(QVBoxLayout* column);
    void addThing(int prop);
    void fillProps();
    void keepThing();
    void editChosen(const QString& key, const std::function<void(shoot::Staged&)>& change);
    const shoot::Staged* chosen();

    KeptRecords<shoot::Staged> kept_;
    TableDrawing* drawing_ = nullptr;
    CardSwatches* swatches_ = nullptr;
    ColourField* colour_ = nullptr;
    QPushButton* keep_ = nullptr;
    QComboBox* props_ = nullptr;
    QPushButton* remove_ = nullptr;
    QWidget* group_ = nullptr;
    QLineEdit* name_ = nullptr;
    struct Size {
        QuantityField* field;
        std::function<double(const shoot::Staged&)> get;
    };
    std::vector<Size> sizes_;
    QComboBox* form_ = nullptr;
    QCheckBox* lies_ = nullptr;
    FactsView* facts_ = nullptr;
    std::string chosen_;
};

}  // namespace poquito::desk
