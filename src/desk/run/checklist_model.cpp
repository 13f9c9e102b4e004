#include "desk/run/checklist_model.hpp"
#include "desk/text/to_qt.hpp"

#include "advice/checklist.hpp"

#include <utility>

namespace poquito::desk {

int ChecklistModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(items_.size());
}

QVariant ChecklistModel::data(const QModelIndex& index, int role) const {
    const auto row = static_cast<std::size_t>(index.row());
    if (!index.isValid() || row >= items_.size()) return {};
    if (role == Qt::DisplayRole) return toQt(items_[row].text);
    if (role == Qt::ToolTipRole) return toQt(items_[row].why);
    if (role == Qt::CheckStateRole) return ticked_[row] ? Qt::Checked : Qt::Unchecked;
    return {};
}

bool ChecklistModel::setData(const QModelIndex& index, const QVariant& value, int role) {
    const auto row = static_cast<std::size_t>(index.row());
    if (role != Qt::CheckStateRole || row >= items_.size()) return false;
    const auto id = items_[row].id;
    const bool on = value.toInt() == Qt::Checked;
    document_.editShot({on ? tr("Tick off") : tr("Take the tick off")}, [&](shoot::Shot& shot) {
        std::erase(shot.checked, id);
        if (on) shot.checked.push_back(id);
    });
    return true;
}

Qt::ItemFlags ChecklistModel::flags(const QModelIndex& index) const {
    if (!index.isValid()) return Qt::NoItemFlags;
    return Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable | Qt::ItemNeverHasChildren;
}

void ChecklistModel::refresh() {
    const auto* shot = document_.shot();
    auto items = shot ? document_.assessment()->advice.checklist : std::vector<advice::ChecklistItem>{};
    std::vector<bool> ticked;
    for (const auto& item : items) ticked.push_back(shot && advice::is_ticked(*shot, item.id));
    if (items.size() != items_.size()) {
        beginResetModel();
        items_ = std::move(items);
        ticked_ = std::move(ticked);
        endResetModel();
        return;
    }
    const auto before = std::exchange(items_, std::move(items));
    const auto ticked_before = std::exchange(ticked_, std::move(ticked));
    for (int row = 0; row < rowCount(); ++row) {
        const auto i = static_cast<std::size_t>(row);
        if (items_[i].text != before[i].text || ticked_[i] != ticked_before[i])
            Q_EMIT dataChanged(index(row), index(row));
    }
}

}  // namespace poquito::desk

#include "desk/run/moc_checklist_model.moc"
