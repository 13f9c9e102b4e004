#pragma once

#include <QListView>

namespace poquito::desk {

/// A list that paints the row that changed, and lays its rows out anew only where that one is not as high as it was.
class StillList : public QListView {
  public:
    using QListView::QListView;

  protected:
    void dataChanged(const QModelIndex& first, const QModelIndex& last, const QList<int>& roles) override {
        const bool still = first == last && sizeHintForIndex(first).height() == visualRect(first).height();
        if (!still) return QListView::dataChanged(first, last, roles);
        // Past QListView on purpose: all it adds is to lay out anew.
        QAbstractItemView::dataChanged(first, last, roles);  // NOLINT(bugprone-parent-virtual-call)
    }
};

}  // namespace poquito::desk
