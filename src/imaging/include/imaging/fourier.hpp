#pragma once

#include <complex>
#include <initializer_list>
#include <memory>

/// Fourier transforms of pictures, from any thread: the library that does them plans on one at a time, so nobody else
/// calls it.
namespace poquito::imaging {

/// A plane of complex numbers, aligned as FFTW wants them: a plan holds for all of them.
class Plane {
  public:
    using Bin = std::complex<float>;

    Plane() = default;
    explicit Plane(std::size_t count) { resize(count); }
    /// With whatever the memory holds.
    void resize(std::size_t count);
    Bin* data() { return bins_.get(); }
    const Bin* data() const { return bins_.get(); }

  private:
    struct Free {
        void operator()(Bin* bins) const;
    };
    std::unique_ptr<Bin, Free> bins_;
    std::size_t size_ = 0;
};

enum class Direction { to_frequencies, back };

/// Each in its place, row by row, unscaled: there and back makes it `width` times `height` as large.
void transform(std::initializer_list<Plane*> planes, int width, int height, Direction direction);

}  // namespace poquito::imaging
