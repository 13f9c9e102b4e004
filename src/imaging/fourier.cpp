#include "imaging/fourier.hpp"

#include <fftw3.h>

#include <algorithm>
#include <list>
#include <mutex>
#include <new>

namespace poquito::imaging {
namespace {

fftwf_complex* bins(Plane& plane) { return reinterpret_cast<fftwf_complex*>(plane.data()); }

/// Transforms planes of one size in their place, unscaled. Plans take longer to make than to carry out, so the last few
/// are kept; FFTW's planner is the one part of it that two threads may not enter at once.
class Transforms {
  public:
    using Plan = std::shared_ptr<fftwf_plan_s>;

    /// For planes as aligned as `plane`, whose numbers stay.
    Plan of(int height, int width, int sign, Plane& plane) {
        const std::lock_guard lock(guard_);
        const auto found = std::ranges::find_if(
            kept_, [&](const Kept& kept) { return kept.height == height && kept.width == width && kept.sign == sign; });
        if (found != kept_.end()) {
            kept_.splice(kept_.begin(), kept_, found);
            return kept_.front().plan;
        }
        kept_.push_front({height, width, sign, made(height, width, sign, plane)});
        if (kept_.size() > most) kept_.pop_back();
        return kept_.front().plan;
    }

  private:
    static Plan made(int height, int width, int sign, Plane& plane) {
        static std::mutex planner;
        const std::lock_guard lock(planner);
        auto* plan = fftwf_plan_dft_2d(height, width, bins(plane), bins(plane), sign, FFTW_ESTIMATE);
        return {plan, [](fftwf_plan_s* last) {
                    const std::lock_guard ending(planner);
                    fftwf_destroy_plan(last);
                }};
    }

    static constexpr std::size_t most = 32;
    struct Kept {
        int height, width, sign;
        Plan plan;
    };
    std::mutex guard_;
    std::list<Kept> kept_;  // the last used in front
};

Transforms& transforms() {
    static Transforms all;
    return all;
}

}  // namespace

void Plane::resize(std::size_t count) {
    if (bins_ && count <= size_) return;  // one that was moved from has none
    bins_.reset(static_cast<Bin*>(fftwf_malloc(count * sizeof(Bin))));
    if (!bins_) throw std::bad_alloc();
    size_ = count;
}

void Plane::Free::operator()(Bin* bins) const { fftwf_free(bins); }

void transform(std::initializer_list<Plane*> planes, int width, int height, Direction direction) {
    const int sign = direction == Direction::back ? FFTW_BACKWARD : FFTW_FORWARD;
    const auto plan = transforms().of(height, width, sign, **planes.begin());
    for (Plane* plane : planes) fftwf_execute_dft(plan.get(), bins(*plane), bins(*plane));
}

}  // namespace poquito::imaging
