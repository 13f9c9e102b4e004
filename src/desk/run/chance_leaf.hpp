#pragma once

#include "desk/base/station_page.hpp"

#include <QElapsedTimer>

class QLabel;
class QListWidget;
class QToolButton;

namespace poquito::desk {

class OddsView;

/// How likely a try of this shot is sharp, what that hangs on, what would help; and counting at the set, a key for one
/// that is kept and one for one that is not.
class ChanceLeaf : public StationPage {
    Q_OBJECT
  public:
    explicit ChanceLeaf(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void addCounting(QVBoxLayout* column);
    void addWays(QVBoxLayout* column);
    void count(bool kept);
    void take(int row);

    OddsView* odds_;
    QuantityField* calm_;
    QuantityField* through_;
    QuantityField* still_;
    QuantityField* trigger_;
    QuantityField* aside_;
    QuantityField* seconds_;
    QLabel* counted_;
    QToolButton* anew_;
    QLabel* none_;
    QListWidget* ways_;
    QElapsedTimer taken_;
};

}  // namespace poquito::desk
