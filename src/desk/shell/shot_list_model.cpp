#include "desk/shell/shot_list_model.hpp"
#include "desk/text/to_qt.hpp"

#include "shoot/change/edit.hpp"
#include "text/text.hpp"

#include <QMimeData>

#include <algorithm>
#include <utility>

namespace poquito::desk {

namespace {
const auto row_type = QStringLiteral("application/x-poquito-shot-row");
}

ShotListModel::ShotListModel(Document& document, QObject* parent) : QAbstractListModel(parent), document_(document) {
    connect(&document, &Document::shootChanged, this, &ShotListModel::refresh);
    refresh();
}

int ShotListModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(rows_.size());
}

QVariant ShotListModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= document_.count()) return {};
    const auto& shot = document_.shoot().shots[static_cast<std::size_t>(index.row())];
    if (role == Qt::DisplayRole) return toQt(shot.name);
    if (role == Qt::AccessibleTextRole || role == Qt::ToolTipRole) {
        const auto& report = document_.report(index.row());
        return tr("%1, %2, %3, %4")
            .arg(toQt(shot.name), toQt(text::magnification_text(report.optics.magnification)),
                 toQt(text::count_text(report.capture.frames, "frame", "frames")),
                 QLatin1String(advice::status_name(advice::status_of(document_.assessment(index.row())))));
    }
    return {};
}

Qt::ItemFlags ShotListModel::flags(const QModelIndex& index) const {
    if (!index.isValid()) return Qt::ItemIsDropEnabled;
    return Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsDragEnabled | Qt::ItemNeverHasChildren;
}

QStringList ShotListModel::mimeTypes() const { return {row_type}; }

QMimeData* ShotListModel::mimeData(const QModelIndexList& indexes) const {
    auto* data = new QMimeData;
    if (!indexes.isEmpty()) data->setData(row_type, QByteArray::number(indexes.front().row()));
    return data;
}

bool ShotListModel::dropMimeData(const QMimeData* data, Qt::DropAction action, int row, int,
                                 const QModelIndex& parent) {
    if (action != Qt::MoveAction || !data->hasFormat(row_type)) return false;
    const int from = data->data(row_type).toInt();
    int to = row >= 0 ? row : parent.isValid() ? parent.row() : rowCount();
    if (to > from) --to;
    if (to == from || from < 0 || from >= document_.count()) return false;
    document_.select(from);
    document_.edit({tr("Move shot")}, [&](shoot::Shoot& shoot) {
        shoot::move_shot(shoot, static_cast<std::size_t>(from), static_cast<std::size_t>(to));
    });
    document_.select(to);
    return false;  // the document moved it: the view must not remove the row as well
}

ShotListModel::Row ShotListModel::rowOf(int index) const {
    const auto& shot = document_.shoot().shots[static_cast<std::size_t>(index)];
    const auto assessment = document_.sharedAssessment(index);
    const auto& report = assessment->report;
    const auto notes = std::ranges::count_if(assessment->advice.notes, [](const advice::Note& note) {
        return note.level != advice::Level::info && note.concern != advice::Concern::safety;
    });
    return {.id = shot.id,
            .assessment = assessment,
            .name = shot.name,
            .subject = shot.subject,
            .drawn = {report.optics.field_width, report.optics.field_height, report.optics.magnification,
                      report.capture.frames, static_cast<double>(advice::status_of(*assessment)),
                      static_cast<double>(notes)}};
}

/// A card shows its shot and its report; the document keeps the assessment of a shot that did not change.
void ShotListModel::refresh() {
    std::vector<Row> rows;
    rows.reserve(document_.shoot().shots.size());
    for (int i = 0; i < document_.count(); ++i) rows.push_back(rowOf(i));
    if (!std::ranges::equal(rows, rows_, {}, &Row::id, &Row::id)) {
        beginResetModel();
        rows_ = std::move(rows);
        endResetModel();
        return;
    }
    const auto before = std::exchange(rows_, std::move(rows));
    for (int row = 0; row < rowCount(); ++row) {
        const auto i = static_cast<std::size_t>(row);
        if (rows_[i].assessment == before[i].assessment) continue;
        if (rows_[i].name != before[i].name || rows_[i].drawn != before[i].drawn ||
            rows_[i].subject != before[i].subject)
            Q_EMIT dataChanged(index(row), index(row));
    }
}

}  // namespace poquito::desk

#include "desk/shell/moc_shot_list_model.moc"
