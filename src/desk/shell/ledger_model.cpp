#include "desk/shell/ledger_model.hpp"

#include "desk/session/shipped_handbook.hpp"
#include "desk/text/to_qt.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

namespace poquito::desk {

using advice::Station;

LedgerModel::LedgerModel(const Document& document, QObject* parent) : QAbstractListModel(parent), document_(document) {
    constexpr int quiet = 1500;  // ms after which the next edit is one of its own
    quiet_.setSingleShot(true);
    quiet_.setInterval(quiet);
    connect(&quiet_, &QTimer::timeout, this, [this] { since_.reset(); });
    connect(&document, &Document::shootChanged, this, &LedgerModel::refresh);
    connect(&document, &Document::selected, this, &LedgerModel::refresh);
    connect(&document, &Document::answered, this, &LedgerModel::refresh);
    refresh();
}

int LedgerModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(rows_.size());
}

QVariant LedgerModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= rowCount()) return {};
    const Row& row = rows_[static_cast<std::size_t>(index.row())];
    const auto& figure = row.figure;
    switch (role) {
        case Qt::DisplayRole:
            return toQt(figure.name);
        case Qt::AccessibleTextRole:
            return toQt(figure.name + (figure.value.empty() ? "" : " " + figure.value) +
                        (figure.unit.empty() ? "" : " " + figure.unit) + (row.remedy.empty() ? "" : ". " + row.remedy));
        case kindRole:
            return static_cast<int>(row.kind);
        case headlineRole:
        case valueRole:
            return toQt(figure.value);
        case statusRole:
            return static_cast<int>(row.status);
        case unitRole:
            return toQt(figure.unit);
        case wasRole:
            return toQt(row.was);
        case weightRole:
            return static_cast<int>(figure.weight);
        case safetyRole:
            return row.safety;
        case remedyRole:
            return toQt(row.remedy);
        case linkRole:
            return row.repeated ? tr("The same settles this") : toQt(row.remedy);
        case gainRole:
            return row.repeated ? QString() : toQt(row.gain);
        case othersRole:
            return row.others;
        case wayRole:
            return row.way;
        case keyRole:
            return toQt(figure.key);
        case openRole:
            return row.open;
        case Qt::ToolTipRole:
            if (row.kind == Kind::heading)
                return tr("%1: %2. A click shows its numbers or folds them").arg(toQt(figure.name), toQt(figure.value));
            if ((row.kind == Kind::note || row.kind == Kind::way) && !row.remedy.empty())
                return row.gain.empty()
                           ? tr("Enter or a click on the link changes the plan so; it can be undone")
                           : tr("Enter or a click on the link changes the plan so; it can be undone. Worth of the "
                                "plan, now and then: %1")
                                 .arg(toQt(row.gain));
            break;
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
        case readRole:
            if (const auto* page = handbook::page_of_figure(shippedHandbook(), figure.key))
                return tr("Read: %1").arg(toQt(page->title));
            return {};
        default:
            return {};
    }
}

Qt::ItemFlags LedgerModel::flags(const QModelIndex& index) const {
    if (!index.isValid()) return Qt::NoItemFlags;
    return Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemNeverHasChildren;
}

void LedgerModel::setStation(Station station) {
    if (station == station_) return;
    station_ = station;
    opened_ = {station};
    refresh();
}

void LedgerModel::toggle(const QModelIndex& index) {
    if (!index.isValid()) return;
    const Row& row = rows_[static_cast<std::size_t>(index.row())];
    if (row.kind == Kind::heading) {
        if (!opened_.erase(row.station)) opened_.insert(row.station);
    } else if (row.kind == Kind::usual) {
        usual_ = !usual_;
    } else if (row.kind == Kind::note) {
        openNote_ = openNote_ == row.figure.key ? std::string() : row.figure.key;
    } else if (row.kind == Kind::figure && row.figure.working) {
        const auto wanted = row.figure.key + row.figure.name;
        open_ = open_ == wanted ? std::string() : wanted;
    }
    refresh();
}

QModelIndex LedgerModel::show(const std::string& key) {
    if (const auto* wanted = figure(key); wanted && opened_.insert(wanted->station).second) refresh();
    return indexOf(key);
}

QModelIndex LedgerModel::indexOf(const std::string& key) const {
    const auto found = std::ranges::find_if(rows_, [&](const Row& row) { return row.figure.key == key; });
    return found == rows_.end() ? QModelIndex() : index(static_cast<int>(found - rows_.begin()));
}

QModelIndex LedgerModel::indexOf(Station station) const {
    const auto found = std::ranges::find_if(
        rows_, [&](const Row& row) { return row.kind == Kind::heading && row.station == station; });
    return found == rows_.end() ? QModelIndex() : index(static_cast<int>(found - rows_.begin()));
}

const workings::Figure* LedgerModel::figure(const std::string& key) const {
    const auto found = std::ranges::find(figures_, key, &workings::Figure::key);
    return found == figures_.end() ? nullptr : &*found;
}

namespace {

/// Of a remedy, what the plan is worth now and what with it: "41 \u2192 62 %". Empty where that is the same.
std::string gain_of(const advice::Remedy& remedy) {
    constexpr double percent = 100;
    const auto now = std::lround((remedy.worth - remedy.gain) * percent), then = std::lround(remedy.worth * percent);
    return now == then ? std::string() : fmt::format("{} \u2192 {} %", now, then);
}

}  // namespace

// ---- the rows ----------------------------------------------------------------------------------------------------

LedgerModel::Row LedgerModel::noteRow(const advice::Note& note) const {
    Row row{.kind = Kind::note, .station = note.station, .figure = {}};
    row.figure.key = note.code;
    row.figure.name = note.text;
    row.figure.weight = note.level;
    row.safety = note.concern == advice::Concern::safety;
    if (note.remedy) row.remedy = note.remedy->label, row.gain = gain_of(*note.remedy);
    row.others = static_cast<int>(note.others.size());
    // Until it is looked for again, the remedy of the same note stays as it was.
    if (!document_.isAnswered())
        for (const Row& before : rows_)
            if (before.kind == Kind::note && before.figure.key == note.code)
                row.remedy = before.remedy, row.gain = before.gain, row.others = before.others;
    row.open = row.others > 0 && openNote_ == note.code;
    return row;
}

void LedgerModel::addWays(std::vector<Row>& rows, const advice::Note& note) const {
    rows.push_back(noteRow(note));
    if (!rows.back().open) return;
    for (std::size_t i = 0; i < note.others.size(); ++i) {
        Row row{.kind = Kind::way, .station = note.station, .figure = {}};
        row.figure.key = note.code;
        row.figure.name = row.remedy = note.others[i]->label;
        row.gain = gain_of(*note.others[i]);
        row.way = static_cast<int>(i) + 1;
        rows.push_back(std::move(row));
    }
}

void LedgerModel::addSection(std::vector<Row>& rows, Station station) const {
    const auto& assessment = *document_.assessment();
    Row heading{.kind = Kind::heading, .station = station, .figure = {}, .open = isOpen(station)};
    heading.figure.name = advice::station_name(station);
    heading.figure.value = workings::headline(assessment, station);
    heading.status = advice::status_of(assessment, station);
    rows.push_back(std::move(heading));
    for (const auto& note : document_.notes())
        if (note.station == station && !advice::usual_words(note)) addWays(rows, note);
    if (!isOpen(station)) return;
    for (const auto& figure : figures_) {
        if (figure.station != station) continue;
        const auto was = std::ranges::find_if(
            sinceFigures_, [&](const auto& one) { return one.key == figure.key && one.name == figure.name; });
        rows.push_back({.kind = Kind::figure,
                        .station = station,
                        .figure = figure,
                        .remedy = {},
                        .was = was == sinceFigures_.end() || was->value == figure.value ? std::string() : was->value,
                        .open = figure.working && figure.key + figure.name == open_});
    }
}

std::vector<LedgerModel::Row> LedgerModel::rows() const {
    std::vector<Row> rows;
    const auto* assessment = document_.assessment();
    if (!assessment) return rows;
    if (std::ranges::count_if(document_.notes(), [](const auto& note) { return note.remedy != nullptr; }) > 1) {
        Row right{.kind = Kind::put_right, .figure = {}};
        right.figure.key = "put-right";
        right.figure.name = tr("Put it right").toStdString();
        rows.push_back(std::move(right));
    }
    addSection(rows, station_);
    for (const bool doubtful : {true, false})
        for (const auto station : advice::stations) {
            const bool is = advice::status_of(*assessment, station) == advice::Status::doubtful;
            if (station != station_ && is == doubtful) addSection(rows, station);
        }
    QStringList words;
    std::vector<Row> usual;
    for (const auto& note : document_.notes()) {
        const char* said = advice::usual_words(note);
        if (!said) continue;
        words << tr(said);
        if (usual_) usual.push_back(noteRow(note));
    }
    if (!words.isEmpty()) {
        Row line{.kind = Kind::usual, .figure = {}, .open = usual_};
        line.figure.key = "usual-here";
        line.figure.name = usual_ ? tr("Usual here").toStdString()
                                  : tr("Usual here: %1").arg(words.join(QStringLiteral("; "))).toStdString();
        rows.push_back(std::move(line));
    }
    std::ranges::move(usual, std::back_inserter(rows));
    std::set<std::string> offered;
    for (Row& row : rows)
        if (row.kind == Kind::note && !row.remedy.empty()) row.repeated = !offered.insert(row.remedy).second;
    return rows;
}

/// A drag or a run of typing is one change: what it began from stays until it is quiet, and is shown until the next.
void LedgerModel::compare() {
    const auto now = document_.current() >= 0 ? document_.sharedAssessment(document_.current()) : nullptr;
    if (now == before_) return;
    const bool same_shot = now && before_ && now->report.id == before_->report.id;
    if (!same_shot) {
        since_.reset();
        sinceFigures_.clear();
    } else {
        if (!since_) {
            since_ = before_;
            sinceFigures_ = figures_;
        }
        quiet_.start();
    }
    before_ = now;
    figures_ = now ? workings::figures(*now) : std::vector<workings::Figure>();
}

void LedgerModel::refresh() {
    compare();
    auto now = rows();
    const auto same_shape = [](const Row& a, const Row& b) {
        return a.kind == b.kind && a.station == b.station && a.figure.key == b.figure.key;
    };
    if (!std::ranges::equal(now, rows_, same_shape)) {
        beginResetModel();
        rows_ = std::move(now);
        endResetModel();
        return;
    }
    const auto before = std::exchange(rows_, std::move(now));
    const auto same = [](const Row& a, const Row& b) {
        return a.figure == b.figure && a.remedy == b.remedy && a.repeated == b.repeated && a.gain == b.gain &&
               a.others == b.others && a.was == b.was && a.open == b.open && a.status == b.status;
    };
    for (int row = 0; row < rowCount(); ++row) {
        const auto i = static_cast<std::size_t>(row);
        if (!same(rows_[i], before[i])) Q_EMIT dataChanged(index(row), index(row));
    }
}

}  // namespace poquito::desk

#include "desk/shell/moc_ledger_model.moc"
