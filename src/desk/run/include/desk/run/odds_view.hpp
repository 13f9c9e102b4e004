#pragma once

#include <QWidget>

namespace poquito::plan {
struct ChanceReport;
}

namespace poquito::desk {

class Document;

/// The chance of a try to be read across a table, and below it how much of it each cause takes, each a bar on one scale
/// from nothing to all; what was counted stands as a mark with its interval.
class OddsView : public QWidget {
    Q_OBJECT
  public:
    explicit OddsView(const Document& document, QWidget* parent = nullptr);

    QString headline() const;  // "12 of 100"
    QString meaning() const;   // "23 tries for one that is sharp, about 46 s"
    QSize minimumSizeHint() const override { return {180, 150}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void paintBars(QPainter& painter, const plan::ChanceReport& chance, double y) const;

    const Document& document_;
};

/// "12 of 100", "3 of 1000", "all"; of hundred where that says enough.
QString oddsText(double chance);

}  // namespace poquito::desk
