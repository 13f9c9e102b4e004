#pragma once

#include "desk/session/document.hpp"

#include <QAbstractListModel>

namespace poquito::desk {

/// The checklist of the selected shot; ticking is an edit.
class ChecklistModel final : public QAbstractListModel {
    Q_OBJECT
  public:
    explicit ChecklistModel(Document& document, QObject* parent = nullptr)
        : QAbstractListModel(parent), document_(document) {}

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;

    void refresh();

  private:
    Document& document_;
    std::vector<advice::ChecklistItem> items_;
    std::vector<bool> ticked_;
};

}  // namespace poquito::desk
