#pragma once

#include <QColor>
#include <QString>
#include <QWidget>

#include <vector>

namespace poquito::desk {

/// One line of a list of facts.
struct Fact {
    QString name;
    QString value;
    QString remark = {};  // what it means, on a line of its own
    QColor colour = {};   // of the value; invalid: ink

    bool operator==(const Fact&) const = default;
};

/// Facts under a heading, one below the other, as they stand on a drawing's legend. Never lays its surroundings out
/// anew.
class FactsView : public QWidget {
    Q_OBJECT
  public:
    FactsView(const char* name, const QString& heading, QWidget* parent = nullptr);

    void setFacts(std::vector<Fact> facts);
    const std::vector<Fact>& facts() const { return facts_; }
    QSize minimumSizeHint() const override { return {160, 60}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    QString heading_;
    std::vector<Fact> facts_;
};

}  // namespace poquito::desk
