#pragma once

#include "desk/toolkit/still_list.hpp"

namespace poquito::desk {

class LedgerModel;

/// The column at the right. A click or Enter opens numbers under a headline and the working under a number; on a note
/// it takes what the note's link says.
class LedgerView : public StillList {
    Q_OBJECT
  public:
    explicit LedgerView(LedgerModel* model, QWidget* parent = nullptr);

    LedgerModel* ledger() const { return ledger_; }
    /// Where a note's link stands; empty: it has none.
    QRect linkRect(const QModelIndex& index) const;
    /// What unfolds the other ways a note offers; empty: there are none.
    QRect othersRect(const QModelIndex& index) const;
    /// Under an open working, what leads to the page about it; empty: the number is folded.
    QRect readRect(const QModelIndex& index) const;

  Q_SIGNALS:
    void mendWanted(const std::string& code, int way);  // the remedy of that note, or another way it offers
    void putRightWanted();
    void readWanted(const std::string& key);  // about that number

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    void act(const QModelIndex& index);
    void unfold(const QModelIndex& index);

    LedgerModel* ledger_;
};

}  // namespace poquito::desk
