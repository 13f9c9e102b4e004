#pragma once

#include "desk/session/document.hpp"
#include "workings/figures.hpp"

#include <QAbstractListModel>
#include <QTimer>

#include <set>

namespace poquito::desk {

/// What is known of the selected shot, station by station: a headline each, under it the notes, and the numbers of
/// those that are open. The station one works at stands first and is open, what is doubtful comes next. One working at
/// most is open.
class LedgerModel final : public QAbstractListModel {
    Q_OBJECT
  public:
    /// `put_right`: the line that takes all remedies; `way`: what else a note offers, under it; `usual`: what surprises
    /// nobody, folded to a line.
    enum class Kind { put_right, heading, note, way, figure, usual };
    enum Role {
        kindRole = Qt::UserRole,
        headlineRole,
        statusRole,
        openRole,  // of a figure its working, of a note what else it offers, of a heading its numbers, of the usual
                   // line its notes
        valueRole,
        unitRole,
        wasRole,  // the value before the last edits; empty: the same
        weightRole,
        safetyRole,
        remedyRole,  // what a click on its link would do; empty: nothing
        linkRole,    // the words of that link
        gainRole,    // and what of the plan's worth that gains: "41 \u2192 62 %"
        othersRole,  // how many other ways a note offers
        wayRole,     // of the ways a note offers the place: 0 its remedy
        formulaRole,
        substitutionRole,
        resultRole,
        sourceRole,
        readRole,  // "Read: " and the page about it
        keyRole    // of a figure and of a note: its key, its code
    };

    explicit LedgerModel(const Document& document, QObject* parent = nullptr);

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;

    /// The station one works at.
    void setStation(advice::Station station);
    /// Opens the working, the numbers or the notes of a row, or closes them where they are open.
    void toggle(const QModelIndex& index);
    /// Opens the station of a figure or note as well. Invalid: the shot has none such.
    QModelIndex show(const std::string& key);
    QModelIndex indexOf(const std::string& key) const;  // among the rows that stand there
    QModelIndex indexOf(advice::Station station) const;
    /// Every number, whether its station is open or not; null: the shot has none such.
    const workings::Figure* figure(const std::string& key) const;

  private:
    struct Row {
        Kind kind = Kind::heading;
        advice::Station station = advice::Station::subject;
        workings::Figure figure;  // of a heading: name and headline
        std::string remedy;
        bool repeated = false;  // that of a note above settles this one too
        std::string gain;
        int others = 0;
        int way = 0;
        std::string was;
        bool safety = false;
        bool open = false;
        advice::Status status = advice::Status::open;
    };
    bool isOpen(advice::Station station) const { return opened_.contains(station); }
    void compare();
    std::vector<Row> rows() const;
    void addSection(std::vector<Row>& rows, advice::Station station) const;
    Row noteRow(const advice::Note& note) const;
    void addWays(std::vector<Row>& rows, const advice::Note& note) const;
    void refresh();

    const Document& document_;
    std::vector<workings::Figure> figures_;
    std::vector<Row> rows_;
    advice::Station station_ = advice::Station::subject;
    std::set<advice::Station> opened_ = {advice::Station::subject};
    bool usual_ = false;    // unfolded
    std::string openNote_;  // code of the note whose other ways are shown; empty: none
    std::string open_;      // key and name of the figure whose working is open; empty: none
    // What figures are compared with: the shot before the run of edits that is on.
    std::shared_ptr<const advice::Assessment> before_, since_;
    std::vector<workings::Figure> sinceFigures_;
    QTimer quiet_;
};

}  // namespace poquito::desk
