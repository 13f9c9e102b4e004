#include "desk/proof/proof_model.hpp"
#include "desk/base/to_qt.hpp"

#include "text/text.hpp"

#include <QDateTime>
#include <QLocale>

namespace poquito::desk {

int ProofModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(entries_.size());
}
int ProofModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : columns; }

QVariant ProofModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= rowCount()) return {};
    const auto& entry = entries_[entryOf(index.row())];
    if (role == Qt::TextAlignmentRole)
        return QVariant::fromValue(
            Qt::AlignVCenter |
            (index.column() == framesColumn || index.column() == correctionColumn ? Qt::AlignRight : Qt::AlignLeft));
    if (role != Qt::DisplayRole && role != Qt::ToolTipRole) return {};
    switch (index.column()) {
        case timeColumn: {
            const auto text = toQt(entry.time);
            const auto time = QDateTime::fromString(text, Qt::ISODate);
            if (!time.isValid()) return text;
            return time.toString(role == Qt::ToolTipRole ? QStringLiteral("dddd d MMMM yyyy, hh:mm")
                                                         : QStringLiteral("d MMM hh:mm"));
        }
        case framesColumn:
            return entry.frames;
        case correctionColumn:
            return stopsText(entry.correction);
        case verdictColumn:
            return entry.verdict == shoot::Verdict::keep ? tr("keep") : tr("redo");
        default:
            return toQt(entry.remark);
    }
}

QVariant ProofModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal) return {};
    if (role == Qt::TextAlignmentRole)
        return QVariant::fromValue(
            Qt::AlignVCenter |
            (section == framesColumn || section == correctionColumn ? Qt::AlignRight : Qt::AlignLeft));
    if (role != Qt::DisplayRole) return {};
    const QString names[] = {tr("When"), tr("Frames"), tr("Stops"), tr("Verdict"), tr("Remark")};
    return names[section];
}

void ProofModel::refresh() {
    const auto* shot = document_.shot();
    const auto entries = shot ? shot->proof : std::vector<shoot::ProofEntry>{};
    if (entries == entries_) return;
    beginResetModel();
    entries_ = entries;
    endResetModel();
}

}  // namespace poquito::desk
