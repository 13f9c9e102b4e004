#include "desk/reach/reach_model.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QStringList>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

QString piecesOf(const gear::Kit& kit, const search::ReachFound& found, bool nameCamera) {
    const auto rig = search::rig_of(kit, found, {});
    QString pieces = toQt(search::pieces_text(kit, rig));
    if (nameCamera) pieces += QObject::tr("  on %1").arg(toQt(kit.cameras[found.camera].name));
    if (rig.crop_mode) pieces += QStringLiteral(", ") + toQt(*rig.crop_mode);
    return pieces;
}

QString keptBy(const search::ReachFound& found) {
    QStringList kept;
    if (found.autofocus) kept << QObject::tr("autofocus");
    if (found.infinity) kept << QObject::tr("infinity");
    return kept.isEmpty() ? QStringLiteral("\u2013") : kept.join(QStringLiteral(", "));
}

/// Rules of thumb, in words.
QString costIn(double cost) {
    if (cost == 0) return QObject::tr("none");
    if (cost <= 1) return QObject::tr("some");
    return cost <= 2 ? QObject::tr("visible") : QObject::tr("much");
}

}  // namespace

bool samePieces(const search::ReachFound& a, const search::ReachFound& b) {
    const auto key = [](const search::ReachFound& f) {
        return std::tuple(f.camera, f.crop_mode, f.lens, f.zoom, f.reversing_ring, f.front_lens, f.front_zoom,
                          f.coupling_ring, f.converter, f.bellows, f.closeups[0], f.closeups[1], f.tubes,
                          f.tubes_behind);
    };
    return key(a) == key(b);
}

ReachModel::ReachModel(QObject* parent) : QAbstractTableModel(parent) {}

void ReachModel::show(gear::Kit kit, std::vector<search::ReachFound> found,
                      const std::vector<search::ReachMeasure>& order) {
    beginResetModel();
    kit_ = std::move(kit);
    found_ = std::move(found);
    search::rank(found_, order);
    manyCameras_ = std::ranges::any_of(found_, [&](const auto& one) { return one.camera != found_.front().camera; });
    endResetModel();
}

void ReachModel::rank(const std::vector<search::ReachMeasure>& order) {
    Q_EMIT layoutAboutToBeChanged();
    const auto before = found_;
    search::rank(found_, order);
    for (const auto& index : persistentIndexList())
        changePersistentIndex(index, this->index(rowOf(before[static_cast<std::size_t>(index.row())]), index.column()));
    Q_EMIT layoutChanged();
}

int ReachModel::rowOf(const search::ReachFound& wanted) const {
    const auto found = std::ranges::find_if(found_, [&](const auto& one) { return samePieces(one, wanted); });
    return found == found_.end() ? -1 : static_cast<int>(found - found_.begin());
}

int ReachModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(found_.size());
}
int ReachModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : columns; }

QVariant ReachModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid()) return {};
    const auto& found = found_[static_cast<std::size_t>(index.row())];
    if (role == Qt::TextAlignmentRole &&
        (index.column() == workingDistance || index.column() == loss || index.column() == count))
        return int(Qt::AlignRight | Qt::AlignVCenter);
    if (role == Qt::FontRole && found.best_trade) return textFont(12, QFont::DemiBold);
    if (role == Qt::ToolTipRole && index.column() == pieces)
        return found.best_trade ? QObject::tr("%1\nA best trade-off: nothing else has both more air and more light.")
                                      .arg(piecesOf(kit_, found, manyCameras_))
                                : piecesOf(kit_, found, manyCameras_);
    if (role == Qt::ToolTipRole && index.column() == cost) return toQt(search::cost_text(kit_, found));
    if (role != Qt::DisplayRole && role != Qt::AccessibleTextRole) return {};
    switch (index.column()) {
        case pieces:
            return piecesOf(kit_, found, manyCameras_);
        case workingDistance:
            return std::isfinite(found.working_distance) ? toQt(text::length_text(found.working_distance))
                                                         : QStringLiteral("\u221e");
        case loss:
            return tr("%1 stops").arg(QString::number(std::max(0.0, found.loss), 'f', 1));
        case count:
            return found.pieces;
        case cost:
            return costIn(found.optical_cost);
        default:
            return keptBy(found);
    }
}

QVariant ReachModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal) return {};
    if (role == Qt::TextAlignmentRole)
        return int(
            (section == workingDistance || section == loss || section == count ? Qt::AlignRight : Qt::AlignLeft) |
            Qt::AlignVCenter);
    if (role != Qt::DisplayRole) return {};
    const QString names[] = {tr("Pieces, from the camera"), tr("Air in front"), tr("Light lost"), tr("Pieces"),
                             tr("Costs quality"),           tr("Keeps")};
    return names[section];
}

}  // namespace poquito::desk

#include "desk/reach/moc_reach_model.moc"
