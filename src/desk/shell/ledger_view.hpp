#pragma once

#include "desk/base/still_list.hpp"

namespace poquito::desk {

class LedgerModel;

/// The ledger: name, value, unit; a click or Enter opens the working under the number.
class LedgerView : public StillList {
    Q_OBJECT
  public:
    explicit LedgerView(LedgerModel* model, QWidget* parent = nullptr);

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    void toggle(const QModelIndex& index);

    LedgerModel* ledger_;
};

}  // namespace poquito::desk
