#include "desk/checklist_model.hpp"

#include "shoot/checklist.hpp"

namespace poquito::desk {

int ChecklistModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(items_.size());
}

QVariant ChecklistModel::data(const QModelIndex& index, int role) const {
    const auto row = static_cast<std::size_t>(index.row());
    if (!index.isValid() || row >= items_.size()) return {};
    if (role == Qt::DisplayRole) return QString::fromStdString(items_[row].text);
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
    const auto items = shot ? document_.report()->checklist : std::vector<shoot::ChecklistItem>{};
    const bool reset = items.size() != items_.size();
    if (reset) beginResetModel();
    items_ = items;
    ticked_.clear();
    for (const auto& item : items_) ticked_.push_back(shot && shoot::is_ticked(*shot, item.id));
    if (reset)
        endResetModel();
    else if (!items_.empty())
        Q_EMIT dataChanged(index(0), index(rowCount() - 1));
}

}  // namespace poquito::desk
