#include "imaging/inspect/detail_order.hpp"

#include <Eigen/Eigenvalues>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace poquito::imaging {

std::vector<std::size_t> order_by_detail(const std::vector<const CellMap*>& maps) {
    const auto count = static_cast<Eigen::Index>(maps.size());
    std::vector<std::size_t> now(maps.size());
    std::iota(now.begin(), now.end(), std::size_t{0});
    if (count < 5) return now;
    // How much detail each has where, by its logarithm, against the mean of all; of squares of so many cells.
    constexpr int side = 3;
    const int columns = (maps[0]->columns + side - 1) / side, rows = (maps[0]->rows + side - 1) / side;
    Eigen::MatrixXf detail = Eigen::MatrixXf::Zero(static_cast<Eigen::Index>(columns) * rows, count);
    for (Eigen::Index f = 0; f < count; ++f) {
        const CellMap& map = *maps[static_cast<std::size_t>(f)];
        for (int y = 0; y < map.rows; ++y)
            for (int x = 0; x < map.columns; ++x) detail(y / side * columns + x / side, f) += map.at(x, y);
    }
    detail = (1 + detail.array() / (side * side)).log();
    const Eigen::VectorXf mean = detail.rowwise().mean();
    detail.colwise() -= mean;
    const Eigen::MatrixXf product = detail.transpose() * detail;
    Eigen::MatrixXd likeness(count, count);
    for (Eigen::Index i = 0; i < count; ++i)
        for (Eigen::Index j = 0; j < count; ++j) {
            const double own = std::sqrt(static_cast<double>(product(i, i)) * static_cast<double>(product(j, j)));
            likeness(i, j) = own > 0 ? std::exp(4 * (static_cast<double>(product(i, j)) / own - 1)) : 0;
        }
    // A chain of likes: the second vector of its Laplacian runs along it (Atkins, Boman and Hendrickson, SIAM J.
    // Comput. 28, 1998).
    Eigen::MatrixXd laplacian = -likeness;
    laplacian.diagonal().setZero();
    laplacian.diagonal() = -laplacian.rowwise().sum();
    const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solver(laplacian);
    const Eigen::VectorXd along = solver.eigenvectors().col(1);
    auto chain = now;
    std::ranges::sort(chain, {}, [&](std::size_t i) { return along[static_cast<Eigen::Index>(i)]; });
    const auto apart = [&](std::size_t i, std::size_t j) {
        return 1 - likeness(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j));
    };
    const auto length = [&](const std::vector<std::size_t>& order) {
        double sum = 0;
        for (std::size_t i = 0; i + 1 < order.size(); ++i) sum += apart(order[i], order[i + 1]);
        return sum;
    };
    // At its ends that vector hardly changes: each frame goes where it makes the chain shortest, until none does.
    for (bool better = true; better;) {
        better = false;
        for (std::size_t from = 0; from < chain.size(); ++from) {
            double shortest = length(chain) * (1 - 1e-9);
            auto best = chain;
            for (std::size_t to = 0; to < chain.size(); ++to) {
                auto tried = chain;
                const std::size_t one = tried[from];
                tried.erase(tried.begin() + static_cast<std::ptrdiff_t>(from));
                tried.insert(tried.begin() + static_cast<std::ptrdiff_t>(to), one);
                if (const double sum = length(tried); sum < shortest) shortest = sum, best = std::move(tried);
            }
            if (best != chain) chain = std::move(best), better = true;
        }
    }
    // In the direction in which more of them run now.
    long forward = 0;
    for (std::size_t i = 0; i + 1 < chain.size(); ++i) forward += chain[i + 1] > chain[i] ? 1 : -1;
    if (forward < 0) std::ranges::reverse(chain);
    // Only where that is a shorter chain by far: neighbours that are nearly alike may stand either way.
    constexpr double a_link = 0.3;  // that does not hold
    return length(chain) > length(now) - a_link ? now : chain;
}

}  // namespace poquito::imaging
