#pragma once

#include <QListView>

namespace poquito::desk {

/// A list that paints the row that changed, and lays its rows out anew only where that one is not as high as it was.
class StillList : public QListView {
  public:
    using QListView::QListView;

  protected:
    void dataChanged(const QModelIndex& first, const QModelIndex& last, const QList<int>& roles) override {
        if (first != last || !isAsHighAsLaidOut(first)) return QListView::dataChanged(first, last, roles);
        // Past QListView on purpose: all it adds is to lay out anew.
        QAbstractItemView::dataChanged(first, last, roles);  // NOLINT(bugprone-parent-virtual-call)
    }

  private:
    /// By where the next row was put: the list says of a row's own rectangle what it would be now.
    bool isAsHighAsLaidOut(const QModelIndex& row) const {
        const auto next = row.siblingAtRow(row.row() + 1);
        return next.isValid() && visualRect(next).top() - visualRect(row).top() == sizeHintForIndex(row).height();
    }
};

}  // namespace poquito::desk
