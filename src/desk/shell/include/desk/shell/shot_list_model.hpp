#pragma once

#include "desk/session/document.hpp"

#include <QAbstractListModel>

#include <array>
#include <optional>

namespace poquito::desk {

/// The shots of the shoot in their order; rows are moved by dragging.
class ShotListModel final : public QAbstractListModel {
    Q_OBJECT
  public:
    explicit ShotListModel(Document& document, QObject* parent = nullptr);

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    Qt::DropActions supportedDropActions() const override { return Qt::MoveAction; }
    QStringList mimeTypes() const override;
    QMimeData* mimeData(const QModelIndexList& indexes) const override;
    bool dropMimeData(const QMimeData* data, Qt::DropAction action, int row, int column,
                      const QModelIndex& parent) override;

    Document& document() const { return document_; }

  private:
    void refresh();

    Document& document_;
    struct Row {
        std::string id;
        std::shared_ptr<const advice::Assessment> assessment;  // what was shown last
        // All that a card draws of shot and report: a change elsewhere in the kit leaves most cards as they are.
        std::string name;
        shoot::Subject subject;
        std::array<std::optional<double>, 6> drawn;
    };
    Row rowOf(int index) const;

    std::vector<Row> rows_;
};

}  // namespace poquito::desk
