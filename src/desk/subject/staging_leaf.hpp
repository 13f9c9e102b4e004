#pragma once

#include "desk/base/station_page.hpp"

#include <string>
#include <vector>

class QLineEdit;

namespace poquito::shoot {
struct Staged;
}

namespace poquito::desk {

class FactsView;
class TableDrawing;

/// What stands in the picture beside the subject: put on the table, dragged there, and what becomes of it in the frame.
class StagingLeaf : public StationPage {
    Q_OBJECT
  public:
    explicit StagingLeaf(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addFields(QVBoxLayout* column);
    void addThing(int prop);
    void editChosen(const QString& key, const std::function<void(shoot::Staged&)>& change);
    const shoot::Staged* chosen();

    TableDrawing* drawing_ = nullptr;
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
