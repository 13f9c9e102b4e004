#pragma once

#include "desk/session/document.hpp"

#include <QAbstractListModel>

namespace poquito::desk {

/// What was noted about the selected shot, newest first: when, how many and the verdict; the remark as tooltip.
class ProofModel : public QAbstractListModel {
    Q_OBJECT
  public:
    explicit ProofModel(Document& document, QObject* parent = nullptr)
        : QAbstractListModel(parent), document_(document) {}

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;

    void refresh();
    /// The entry's place in Shot::proof.
    std::size_t entryOf(int row) const { return entries_.size() - 1 - static_cast<std::size_t>(row); }

  private:
    Document& document_;
    std::vector<shoot::ProofEntry> entries_;
};

}  // namespace poquito::desk
