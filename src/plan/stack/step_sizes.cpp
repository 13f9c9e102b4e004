#include "plan/stack/step_sizes.hpp"

#include "plan/plan.hpp"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <limits>

namespace poquito::plan {
namespace {

constexpr double two_sigma = 2;  // 19 of 20 brackets lie within, 39 of 40 below

bool differ(const std::vector<const gear::StepReading*>& used, double gear::StepReading::*member) {
    return std::ranges::any_of(used, [&](const gear::StepReading* reading) {
        return std::abs(reading->*member / used.front()->*member - 1) > 1e-6;
    });
}

}  // namespace

double StepFit::ring_step(double setting, double f_number) const {
    return scale * std::pow(setting, by_setting) * std::pow(f_number, by_stop);
}

double StepFit::uncertainty(double setting, double f_number) const {
    const Eigen::Vector3d row(1, setting_fitted ? std::log(setting) : 0, stop_fitted ? std::log(f_number) : 0);
    const Eigen::Map<const Eigen::Matrix<double, 3, 3, Eigen::RowMajor>> c(&covariance[0][0]);
    return std::sqrt(spread * spread + row.dot(c * row));
}

std::optional<StepFit> fit_steps(const std::vector<gear::StepReading>& readings, const std::string& lens) {
    std::vector<const gear::StepReading*> used;
    for (const auto& reading : readings)
        if (reading.lens == lens && reading.ring_step > 0) used.push_back(&reading);
    if (used.empty()) return std::nullopt;
    StepFit fit{.readings = used.size()};
    fit.setting_fitted = differ(used, &gear::StepReading::setting);
    fit.stop_fitted = differ(used, &gear::StepReading::f_number);
    if (!fit.stop_fitted) fit.only_stop = used.front()->f_number;

    const auto rows = static_cast<Eigen::Index>(used.size());
    Eigen::MatrixXd design = Eigen::MatrixXd::Zero(rows, 3);
    Eigen::VectorXd logs(rows);
    for (Eigen::Index i = 0; i < rows; ++i) {
        const auto& reading = *used[static_cast<std::size_t>(i)];
        design(i, 0) = 1;
        if (fit.setting_fitted) design(i, 1) = std::log(reading.setting);
        if (fit.stop_fitted) design(i, 2) = std::log(reading.f_number);
        logs(i) = std::log(reading.ring_step) - (fit.setting_fitted ? 0 : std::log(reading.setting));
    }
    // Where setting and stop always changed together the pseudo-inverse shares the effect between them.
    const Eigen::JacobiSVD<Eigen::MatrixXd> svd(design, Eigen::ComputeThinU | Eigen::ComputeThinV);
    const Eigen::Vector3d found = svd.solve(logs);
    const auto free = rows - svd.rank();
    fit.scale = std::exp(found(0));
    fit.by_setting = fit.setting_fitted ? found(1) : 1;
    fit.by_stop = fit.stop_fitted ? found(2) : 0;
    const double residual = (design * found - logs).squaredNorm();
    fit.spread = free > 0 ? std::sqrt(residual / static_cast<double>(free)) : reading_spread;
    Eigen::Matrix3d covariance = Eigen::Matrix3d::Zero();
    for (Eigen::Index i = 0; i < svd.rank(); ++i)
        covariance += svd.matrixV().col(i) * svd.matrixV().col(i).transpose() / std::pow(svd.singularValues()(i), 2);
    for (int i = 0; i < 3; ++i)
        for (int j = 0; j < 3; ++j) fit.covariance[i][j] = covariance(i, j) * fit.spread * fit.spread;
    return fit;
}

double travel_per_ring(const optics::Train& train, double ring) {
    constexpr double h = 1e-5;
    const double low = std::max(0.0, ring - h), high = std::min(1.0, ring + h);
    const auto a = optics::focus_at_ring(train, low).subject_to_sensor;
    const auto b = optics::focus_at_ring(train, high).subject_to_sensor;
    if (!a || !b) return -std::numeric_limits<double>::infinity();
    return (*b - *a) / (high - low);
}

std::optional<double> ring_step_of(const optics::Train& train, double ring, double travel, double frames) {
    const auto start = optics::focus_at_ring(train, ring).subject_to_sensor;
    if (!start || frames < 2) return std::nullopt;
    const auto end = optics::ring_for_distance(train, *start + travel, ring);
    if (!end) return std::nullopt;
    return std::abs(*end - ring) / (frames - 1);
}

std::optional<StepChoice> choose_step(const Plan& plan, double f_number, double wanted) {
    const auto& camera = plan.camera;
    const auto fit = fit_steps(camera.step_readings, plan.lens.id);
    if (!fit) return std::nullopt;
    for (int setting = camera.bracket.step_settings; setting >= 1; --setting) {
        const double step = fit->ring_step(setting, f_number);
        const double factor = std::exp(two_sigma * fit->uncertainty(setting, f_number));
        if (step * factor > wanted) continue;
        const double rate = std::abs(travel_per_ring(plan.train, plan.at.ring));
        return StepChoice{.setting = static_cast<double>(setting),
                          .ring_step = step,
                          .least_ring_step = step / factor,
                          .step = step * rate,
                          .least = step / factor * rate,
                          .greatest = step * factor * rate,
                          .readings = fit->readings,
                          .stop_unknown = !fit->stop_fitted && std::abs(fit->only_stop / f_number - 1) > 0.01};
    }
    return std::nullopt;
}

}  // namespace poquito::plan
