#pragma once

#include "desk/shell/document.hpp"

#include <QAbstractTableModel>

namespace poquito::desk {

/// What was noted about the selected shot, newest first.
class ProofModel : public QAbstractTableModel {
    Q_OBJECT
  public:
    enum Column { timeColumn, framesColumn, correctionColumn, verdictColumn, remarkColumn, columns };

    explicit ProofModel(Document& document, QObject* parent = nullptr)
        : QAbstractTableModel(parent), document_(document) {}

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

    void refresh();
    /// The entry's place in Shot::proof.
    std::size_t entryOf(int row) const { return entries_.size() - 1 - static_cast<std::size_t>(row); }

  private:
    Document& document_;
    std::vector<shoot::ProofEntry> entries_;
};

}  // namespace poquito::desk
