#pragma once

#include "search/reach_search.hpp"

#include <QAbstractTableModel>

#include <vector>

namespace poquito::desk {

/// What a search found, one row a combination, in the order of the measures chosen.
class ReachModel : public QAbstractTableModel {
    Q_OBJECT
  public:
    enum Column { pieces, workingDistance, loss, count, cost, keeps, columns };

    explicit ReachModel(QObject* parent = nullptr);

    void show(gear::Kit kit, std::vector<search::ReachFound> found, const std::vector<search::ReachMeasure>& order);
    void rank(const std::vector<search::ReachMeasure>& order);

    const std::vector<search::ReachFound>& found() const { return found_; }
    const gear::Kit& kit() const { return kit_; }
    /// The row of a combination; -1 where it is not there.
    int rowOf(const search::ReachFound& wanted) const;

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

  private:
    gear::Kit kit_;
    std::vector<search::ReachFound> found_;
    bool manyCameras_ = false;  // then each row names its own
};

/// Whether two are the same pieces.
bool samePieces(const search::ReachFound& a, const search::ReachFound& b);

}  // namespace poquito::desk
