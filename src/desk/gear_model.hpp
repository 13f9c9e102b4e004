#pragma once

#include "desk/document.hpp"
#include "shoot/gear.hpp"

#include <QAbstractTableModel>

namespace poquito::desk {

/// The pieces of one kind in a kit: name and its first members, as people read them.
class GearModel : public QAbstractTableModel {
    Q_OBJECT
  public:
    explicit GearModel(QObject* parent = nullptr);

    /// Shows a kind of a document's kit and follows it.
    void show(Document& document, const shoot::GearKind& kind);
    const shoot::GearKind& kind() const { return *kind_; }

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

  private:
    void follow();

    Document* document_ = nullptr;
    const shoot::GearKind* kind_ = nullptr;
    shoot::Kit shown_;
    QMetaObject::Connection connection_;
};

/// A cell as people read it.
QString cellText(const shoot::FieldSpec& spec, const shoot::Cell& cell);

/// The rows of a table in a record, edited in place: each cell takes what its quantity takes.
class RowsModel : public QAbstractTableModel {
    Q_OBJECT
  public:
    explicit RowsModel(const shoot::GearTable& table, QObject* parent = nullptr);

    void show(shoot::Rows rows);
    const shoot::Rows& rows() const { return rows_; }

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;

  Q_SIGNALS:
    void rowsEdited(const shoot::Rows& rows);
    void cellRefused(const QString& why);

  private:
    const shoot::GearTable& table_;
    shoot::Rows rows_;
};

}  // namespace poquito::desk
