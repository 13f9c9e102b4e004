#pragma once

#include "day/order.hpp"
#include "desk/base/station_page.hpp"

#include <QFutureWatcher>
#include <QTimer>

#include <atomic>
#include <memory>
#include <optional>

class QCheckBox;

namespace poquito::desk {

class DayDrawing;
class Sentence;

/// What an order comes to, beside the order given.
struct DayPlan {
    schedule::Problem problem;
    schedule::Day given, best;
    std::vector<QString> names;    // of the shots, in the order given
    std::vector<QString> changes;  // before each shot of the best order
    QString impossible;            // why no order keeps everything; empty: one does
    bool exact = false;
};

/// The order of the shots that costs least work, what it saves, and what it has to keep.
class OrderLeaf : public StationPage {
    Q_OBJECT
  public:
    explicit OrderLeaf(Document& document, QWidget* parent = nullptr);
    ~OrderLeaf() override;

    const std::optional<DayPlan>& plan() const { return plan_; }
    bool isSettled() const { return !watcher_.isRunning() && !later_.isActive(); }

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addDay(QVBoxLayout* column);
    void addTiming(QVBoxLayout* column);
    void search();
    void found();
    void apply();

    DayDrawing* drawing_ = nullptr;
    std::vector<std::pair<QuantityField*, double shoot::ChangePrices::*>> prices_;
    QuantityField* begin_ = nullptr;
    QCheckBox* waiting_ = nullptr;
    QuantityField* notBefore_ = nullptr;
    QuantityField* doneBy_ = nullptr;
    ChoiceChips* after_ = nullptr;
    Sentence* verdict_ = nullptr;
    QPushButton* apply_ = nullptr;
    QPushButton* cancel_ = nullptr;
    std::optional<DayPlan> plan_;
    std::string of_;  // what the plan was searched for
    QFutureWatcher<DayPlan> watcher_;
    std::shared_ptr<std::atomic<bool>> enough_;  // of the search that runs
    QTimer later_;
};

}  // namespace poquito::desk
