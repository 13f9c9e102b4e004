#pragma once

#include "desk/session/bag.hpp"
#include "shoot/change/calibrate.hpp"

#include <QDialog>

class QCheckBox;
class QLabel;
class QPushButton;
class QStackedWidget;
class QVBoxLayout;

namespace poquito::desk {

struct Quantity;
class MeasureSketch;
class QuantityField;
class RulerView;

/// Measured, not believed: a photographed rule, the aperture a camera shows, or two sharp distances go into the record
/// of the shot's lens, with what the record said before and how far off it was.
class MeasureDialog : public QDialog {
    Q_OBJECT
  public:
    MeasureDialog(Document& document, Bag& bag, QWidget* parent = nullptr);

    /// For the lens of the selected shot.
    void begin();
    /// Without questions; what went wrong is said. True: the picture is there.
    bool openPicture(const QString& path);
    void showPicture(const QImage& picture, const QString& name);

  protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

  private:
    QWidget* buildRule();
    QWidget* buildAperture();
    QWidget* buildDistances();
    QuantityField* addField(QVBoxLayout* column, const char* name, const QString& label, const QString& tip,
                            Quantity quantity, double value);
    QLabel* addText(QVBoxLayout* column, const char* name);
    QPushButton* addStore(QVBoxLayout* column, const char* name, void (MeasureDialog::*run)());
    void askPicture();
    void refresh();
    void refreshRule();
    void refreshAperture();
    void refreshDistances();
    void storeRule();
    void storeAperture();
    void storeDistances();
    void store(const QString& label, const std::function<void(gear::Lens&)>& change);
    const gear::Lens* lens() const;

    Document& document_;
    Bag& bag_;
    QString picture_;
    std::optional<shoot::Measurement> whole_;  // of the rig, from the marks
    std::optional<shoot::Measurement> own_;    // of the lens
    std::optional<shoot::SharpResult> sharp_;
    QLabel* title_ = nullptr;
    QStackedWidget* ways_ = nullptr;
    RulerView* view_ = nullptr;
    MeasureSketch* sketch_ = nullptr;
    QuantityField* distance_ = nullptr;
    QuantityField* ring_ = nullptr;
    QCheckBox* snap_ = nullptr;
    QLabel* pictureText_ = nullptr;
    QLabel* ruleText_ = nullptr;
    QPushButton* storeRule_ = nullptr;
    QuantityField* shown_ = nullptr;
    QuantityField* shownOff_ = nullptr;
    QLabel* apertureText_ = nullptr;
    QPushButton* storeAperture_ = nullptr;
    QuantityField* bare_ = nullptr;
    QuantityField* extension_ = nullptr;
    QuantityField* extended_ = nullptr;
    QuantityField* distanceOff_ = nullptr;
    QLabel* distancesText_ = nullptr;
    QPushButton* storeDistances_ = nullptr;
    QCheckBox* alsoBag_ = nullptr;
    QLabel* message_ = nullptr;
};

}  // namespace poquito::desk
