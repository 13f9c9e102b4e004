#pragma once

#include "advice/stations.hpp"

#include <QWidget>

#include <string>

class QToolButton;

namespace poquito::desk {

class Document;
class LedgerView;
class ReadingView;

/// The column at the right of the shot: its notes and numbers, or in their place a page of the handbook.
class SidePanel : public QWidget {
    Q_OBJECT
  public:
    explicit SidePanel(const Document& document, QWidget* parent = nullptr);

    /// Where one is: the numbers of that station come first, and a page that is open turns to that tab's.
    void setStation(advice::Station station);
    void setTab(const QString& tab);

    bool reads() const;
    /// Opens the page of what has the keys, a number or the tab; or closes it.
    void turnReading();
    void readFigure(const std::string& key);
    void refresh();

  Q_SIGNALS:
    void mendWanted(const std::string& code, int way);
    void putRightWanted();
    void handbookWanted(const QString& page);  // its id
    void readingTurned();                      // opened or closed

  private:
    void close();
    void offer();

    ReadingView* reading();

    const Document& document_;
    LedgerView* ledger_;
    QToolButton* offer_;
    ReadingView* reading_ = nullptr;  // made when one first reads
    advice::Station station_ = advice::Station::subject;
    QString tab_;
};

}  // namespace poquito::desk
