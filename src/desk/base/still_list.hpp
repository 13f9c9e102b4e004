#pragma once

#include <QListView>

namespace poquito::desk {

/// A list whose rows keep their size whatever they say: what changed is painted, and nothing laid out anew.
class StillList : public QListView {
  public:
    using QListView::QListView;

  protected:
    /// Whether the row may have another size than before.
    virtual bool mayGrow(const QModelIndex&) const { return false; }

    void dataChanged(const QModelIndex& first, const QModelIndex& last, const QList<int>& roles) override {
        if (first != last || mayGrow(first)) return QListView::dataChanged(first, last, roles);
        QAbstractItemView::dataChanged(first, last, roles);
    }
};

}  // namespace poquito::desk
