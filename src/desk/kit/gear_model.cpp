#include "desk/kit/gear_model.hpp"

#include "desk/kit/gear_quantity.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/quantity.hpp"

namespace poquito::desk {
namespace {

constexpr int shown_members = 3;  // beside the name

}  // namespace

QString cellText(const gear::FieldSpec& spec, const gear::Cell& cell) {
    if (const auto* number = std::get_if<double>(&cell)) return toQt(quantityOf(spec).print(*number));
    if (const auto* flag = std::get_if<bool>(&cell)) return *flag ? QObject::tr("yes") : QObject::tr("no");
    if (const auto* words = std::get_if<std::string>(&cell)) return toQt(*words);
    return QStringLiteral("\u2013");
}

GearModel::GearModel(QObject* parent) : QAbstractTableModel(parent) {}

void GearModel::show(Document& document, const gear::GearKind& kind) {
    disconnect(connection_);
    beginResetModel();
    document_ = &document;
    kind_ = &kind;
    shown_ = document.kit();
    endResetModel();
    connection_ = connect(&document, &Document::shootChanged, this, &GearModel::follow);
}

/// The same pieces changed inside are told apart from another list, so that the selection stays.
void GearModel::follow() {
    const bool same_count = kind_->count(document_->kit()) == kind_->count(shown_);
    bool same_ids = same_count;
    for (std::size_t i = 0; same_ids && i < kind_->count(shown_); ++i)
        same_ids = kind_->id(document_->kit(), i) == kind_->id(shown_, i);
    if (same_ids) {
        shown_ = document_->kit();
        if (rowCount() > 0) Q_EMIT dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
        return;
    }
    beginResetModel();
    shown_ = document_->kit();
    endResetModel();
}

int GearModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() || !kind_ ? 0 : static_cast<int>(kind_->count(shown_));
}
int GearModel::columnCount(const QModelIndex& parent) const {
    if (parent.isValid() || !kind_) return 0;
    return 1 + std::min(shown_members, static_cast<int>(kind_->fields.size()));
}

QVariant GearModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid()) return {};
    const auto row = static_cast<std::size_t>(index.row());
    if (index.column() == 0) {
        if (role == Qt::DisplayRole || role == Qt::ToolTipRole) return toQt(kind_->name(shown_, row));
        return {};
    }
    const auto& field = kind_->fields[static_cast<std::size_t>(index.column() - 1)];
    if (role == Qt::DisplayRole) return cellText(field, field.get(shown_, row));
    if (role == Qt::TextAlignmentRole &&
        (field.type == gear::FieldType::number || field.type == gear::FieldType::whole_number))
        return int(Qt::AlignRight | Qt::AlignVCenter);
    return {};
}

QVariant GearModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal || !kind_) return {};
    if (role == Qt::TextAlignmentRole) {
        const auto side = data(index(0, section), Qt::TextAlignmentRole);
        return side.isValid() ? side : QVariant(int(Qt::AlignLeft | Qt::AlignVCenter));
    }
    if (role != Qt::DisplayRole) return {};
    return section == 0 ? tr("Name") : tr(kind_->fields[static_cast<std::size_t>(section - 1)].label);
}

// ------------------------------------------------------------------------------------------------------------------

RowsModel::RowsModel(const gear::GearTable& table, QObject* parent) : QAbstractTableModel(parent), table_(table) {}

void RowsModel::show(gear::Rows rows) {
    if (rows == rows_) return;
    beginResetModel();
    rows_ = std::move(rows);
    endResetModel();
}

int RowsModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(rows_.size());
}
int RowsModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(table_.columns.size());
}

QVariant RowsModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || (role != Qt::DisplayRole && role != Qt::EditRole)) return {};
    const auto column = static_cast<std::size_t>(index.column());
    return cellText(table_.columns[column], rows_[static_cast<std::size_t>(index.row())][column]);
}

QVariant RowsModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole) return {};
    return tr(table_.columns[static_cast<std::size_t>(section)].label);
}

Qt::ItemFlags RowsModel::flags(const QModelIndex& index) const {
    const auto flags = QAbstractTableModel::flags(index);
    return index.isValid() ? flags | Qt::ItemIsEditable : flags;
}

bool RowsModel::setData(const QModelIndex& index, const QVariant& value, int role) {
    if (role != Qt::EditRole || !index.isValid()) return false;
    const auto& spec = table_.columns[static_cast<std::size_t>(index.column())];
    const auto typed = value.toString().toStdString();
    gear::Cell cell = typed;
    if (spec.type == gear::FieldType::number || spec.type == gear::FieldType::whole_number) {
        const auto quantity = quantityOf(spec);
        const auto number = quantity.parse(typed);
        if (!number || !quantity.allows(*number)) {
            Q_EMIT cellRefused(
                tr("%1: got \u201c%2\u201d, expected %3.").arg(tr(spec.label), value.toString(), quantity.expected));
            return false;
        }
        cell = *number;
    }
    auto rows = rows_;
    rows[static_cast<std::size_t>(index.row())][static_cast<std::size_t>(index.column())] = cell;
    Q_EMIT rowsEdited(rows);
    return true;
}

}  // namespace poquito::desk

#include "desk/kit/moc_gear_model.moc"
