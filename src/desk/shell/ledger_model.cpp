#include "desk/shell/ledger_model.hpp"

#include "desk/base/to_qt.hpp"
#include "text/text.hpp"

#include <algorithm>
#include <utility>

namespace poquito::desk {

LedgerModel::LedgerModel(const Document& document, QObject* parent) : QAbstractListModel(parent), document_(document) {
    connect(&document, &Document::shootChanged, this, &LedgerModel::refresh);
    connect(&document, &Document::selected, this, &LedgerModel::refresh);
    refresh();
}

int LedgerModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(rows_.size());
}

QVariant LedgerModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= rowCount()) return {};
    const auto& [heading, figure] = rows_[static_cast<std::size_t>(index.row())];
    switch (role) {
        case Qt::DisplayRole:
            return toQt(figure.name);
        case Qt::AccessibleTextRole:
            return heading ? toQt(figure.name) : toQt(figure.name + " " + figure.value + " " + figure.unit);
        case headingRole:
            return heading;
        case valueRole:
            return toQt(figure.value);
        case unitRole:
            return toQt(figure.unit);
        case weightRole:
            return static_cast<int>(figure.weight);
        case keyRole:
            return toQt(figure.key);
        case openRole:
            return !heading && figure.working && figure.key + figure.name == open_;
        default:
            break;
    }
    if (!figure.working) return {};
    const auto& working = *figure.working;
    switch (role) {
        case Qt::ToolTipRole:
        case formulaRole:
            return tr("%1 = %2").arg(toQt(working.symbol), toQt(workings::pretty(working.expression)));
        case substitutionRole:
            return tr("= %1").arg(toQt(workings::pretty(working.substitution)));
        case resultRole:
            return tr("= %1").arg(
                toQt(text::number_text(working.result, 5) + (working.unit.empty() ? "" : " " + working.unit)));
        case sourceRole:
            return toQt(working.source);
        default:
            return {};
    }
}

Qt::ItemFlags LedgerModel::flags(const QModelIndex& index) const {
    if (!index.isValid()) return Qt::NoItemFlags;
    const auto& row = rows_[static_cast<std::size_t>(index.row())];
    return row.heading ? Qt::ItemIsEnabled | Qt::ItemNeverHasChildren
                       : Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemNeverHasChildren;
}

void LedgerModel::toggle(const QModelIndex& index) {
    if (!index.isValid()) return;
    const auto& [heading, figure] = rows_[static_cast<std::size_t>(index.row())];
    if (heading || !figure.working) return;
    const auto wanted = figure.key + figure.name;
    open_ = open_ == wanted ? std::string() : wanted;
    Q_EMIT dataChanged(this->index(0), this->index(rowCount() - 1));
}

QModelIndex LedgerModel::indexOf(const std::string& key) const {
    const auto found =
        std::ranges::find_if(rows_, [&](const Row& row) { return !row.heading && row.figure.key == key; });
    return found == rows_.end() ? QModelIndex() : index(static_cast<int>(found - rows_.begin()));
}

QModelIndex LedgerModel::indexOfStation(advice::Station station) const {
    const auto found =
        std::ranges::find_if(rows_, [&](const Row& row) { return row.heading && row.figure.station == station; });
    return found == rows_.end() ? QModelIndex() : index(static_cast<int>(found - rows_.begin()));
}

void LedgerModel::refresh() {
    std::vector<Row> rows;
    if (const auto* assessment = document_.assessment()) {
        for (auto& figure : workings::figures(*assessment)) {
            if (rows.empty() || rows.back().figure.station != figure.station) {
                Row heading{.heading = true};
                heading.figure.station = figure.station;
                heading.figure.name = advice::station_name(figure.station);
                rows.push_back(std::move(heading));
            }
            rows.push_back({.figure = std::move(figure)});
        }
    }
    const auto same_shape = [](const Row& a, const Row& b) {
        return a.heading == b.heading && a.figure.key == b.figure.key;
    };
    if (std::ranges::equal(rows, rows_, same_shape)) {
        const auto before = std::exchange(rows_, std::move(rows));
        for (int row = 0; row < rowCount(); ++row) {
            const auto i = static_cast<std::size_t>(row);
            if (rows_[i].figure != before[i].figure) Q_EMIT dataChanged(index(row), index(row));
        }
        return;
    }
    beginResetModel();
    rows_ = std::move(rows);
    endResetModel();
}

}  // namespace poquito::desk
