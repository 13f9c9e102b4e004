#pragma once

#include "desk/session/worker.hpp"
#include "proof/delivery.hpp"

#include <QObject>
#include <QStringList>

#include <atomic>
#include <cstddef>
#include <memory>

namespace poquito::desk {

/// Writes the pictures that outlets get, away from the interface thread.
class PictureWriter : public QObject {
    Q_OBJECT
  public:
    explicit PictureWriter(QObject* parent = nullptr) : QObject(parent) {}
    ~PictureWriter() override;

    void write(proof::DeliveryPlan plan, proof::IfThere there);  // nothing while another is written
    void cancel();                                               // after the picture that is under way

    bool isBusy() const { return stop_ != nullptr; }
    std::size_t done() const { return done_; }
    std::size_t all() const { return all_; }
    const QStringList& problems() const { return problems_; }  // of the last time, in order; what is missing too

  Q_SIGNALS:
    void changed();

  private:
    void wrote(const QString& problem);
    void ended();

    std::shared_ptr<std::atomic<bool>> stop_;  // null: nothing is written
    std::size_t done_ = 0, all_ = 0;
    QStringList problems_;
    Worker worker_;  // last: its job uses the rest
};

}  // namespace poquito::desk
