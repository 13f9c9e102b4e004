#include "desk/proof/proof_model.hpp"
#include "desk/text/to_qt.hpp"

#include "text/text.hpp"

#include <QDateTime>

#include <cmath>

namespace poquito::desk {

int ProofModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(entries_.size());
}

QVariant ProofModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= rowCount()) return {};
    const auto& entry = entries_[entryOf(index.row())];
    if (role == Qt::ToolTipRole) return toQt(entry.remark);
    if (role != Qt::DisplayRole) return {};
    const auto time = QDateTime::fromString(toQt(entry.time), Qt::ISODate);
    const QString verdict = entry.verdict == shoot::Verdict::keep ? tr("keep") : tr("redo");
    return tr("%1 \u00b7 %2 \u00b7 %3%4")
        .arg(time.isValid() ? time.toString(QStringLiteral("d MMM hh:mm")) : toQt(entry.time),
             toQt(text::count_text(entry.frames, "frame", "frames")), verdict,
             std::abs(entry.correction) < 0.05 ? QString() : tr(", %1 stops").arg(stopsText(entry.correction)));
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

#include "desk/proof/moc_proof_model.moc"
