#pragma once

#include "desk/session/document.hpp"
#include "gear/rows.hpp"

#include <QAbstractTableModel>

namespace poquito::desk {

/// The pieces of one kind in a kit: name and its first members, as people read them.
class GearModel : public QAbstractTableModel {
    Q_OBJECT
  public:
    explicit GearModel(QObject* parent = nullptr);

    /// Shows a kind of a document's kit and follows it.
    void show(Document& document, const gear::GearKind& kind);
    const gear::GearKind& kind() const { return *kind_; }

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

  private:
    void follow();

    Document* document_ = nullptr;
    const gear::GearKind* kind_ = nullptr;
    gear::Kit shown_;
    QMetaObject::Connection connection_;
};

/// A cell as people read it.
QString cellText(const gear::FieldSpec& spec, const gear::Cell& cell);

/// The rows of a table in a record, edited in place: each cell takes what its quantity takes.
class RowsModel : public QAbstractTableModel {
    Q_OBJECT
  public:
    explicit RowsModel(const gear::GearTable& table, QObject* parent = nullptr);

    void show(gear::Rows rows);
    const gear::Rows& rows() const { return rows_; }

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;

  Q_SIGNALS:
    void rowsEdited(const gear::Rows& rows);
    void cellRefused(const QString& why);

  private:
    const gear::GearTable& table_;
    gear::Rows rows_;
};

}  // namespace poquito::desk
