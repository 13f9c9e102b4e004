#include "desk/session/picture_writer.hpp"

#include "desk/text/to_qt.hpp"

#include <utility>

namespace poquito::desk {

PictureWriter::~PictureWriter() { cancel(); }

void PictureWriter::write(proof::DeliveryPlan plan, proof::IfThere there) {
    if (isBusy()) return;
    done_ = 0, all_ = plan.jobs.size();
    problems_.clear();
    for (const auto& words : plan.missing) problems_ << toQt(words);
    if (plan.jobs.empty()) return Q_EMIT changed();
    stop_ = std::make_shared<std::atomic<bool>>(false);
    worker_.add([this, there, stop = stop_, jobs = std::move(plan.jobs)] {
        for (const auto& job : jobs) {
            if (*stop) break;
            auto problem = toQt(proof::deliver(job, there).problem);
            QMetaObject::invokeMethod(
                this, [this, problem = std::move(problem)] { wrote(problem); }, Qt::QueuedConnection);
        }
        QMetaObject::invokeMethod(
            this, [this] { ended(); }, Qt::QueuedConnection);
    });
    Q_EMIT changed();
}

void PictureWriter::cancel() {
    if (stop_) *stop_ = true;
}

void PictureWriter::wrote(const QString& problem) {
    ++done_;
    if (!problem.isEmpty()) problems_ << problem;
    Q_EMIT changed();
}

void PictureWriter::ended() {
    stop_.reset();
    Q_EMIT changed();
}

}  // namespace poquito::desk

#include "desk/session/moc_picture_writer.moc"
