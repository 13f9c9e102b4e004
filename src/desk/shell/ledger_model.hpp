#pragma once

#include "desk/shell/document.hpp"
#include "workings/figures.hpp"

#include <QAbstractListModel>

namespace poquito::desk {

/// The numbers of the selected shot under the names of their stations. One working at most is open.
class LedgerModel final : public QAbstractListModel {
    Q_OBJECT
  public:
    enum Role {
        headingRole = Qt::UserRole,
        valueRole,
        unitRole,
        weightRole,
        openRole,
        formulaRole,
        substitutionRole,
        resultRole,
        sourceRole,
        keyRole
    };

    explicit LedgerModel(const Document& document, QObject* parent = nullptr);

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;

    /// Opens the working of a row, or closes it where it is open.
    void toggle(const QModelIndex& index);
    QModelIndex indexOf(const std::string& key) const;
    QModelIndex indexOfStation(advice::Station station) const;

  private:
    struct Row {
        bool heading = false;
        workings::Figure figure;
    };
    void refresh();

    const Document& document_;
    std::vector<Row> rows_;
    std::string open_;  // key and place of the open figure; empty: none
};

}  // namespace poquito::desk
