#pragma once

#include <complex>
#include <memory>
#include <span>

namespace sober {

/// Fourier transforms of one length, by FFTW. Not shared between threads.
class RealFourier {
  public:
    explicit RealFourier(std::size_t length);
    ~RealFourier();
    RealFourier(const RealFourier&) = delete;
    RealFourier& operator=(const RealFourier&) = delete;

    std::span<float> input();
    /// length / 2 + 1 bins of the transform of `input`, unscaled.
    std::span<const std::complex<float>> transform();

  private:
    struct State;
    std::unique_ptr<State> state_;
};

class ComplexFourier {
  public:
    explicit ComplexFourier(std::size_t length);
    ~ComplexFourier();
    ComplexFourier(const ComplexFourier&) = delete;
    ComplexFourier& operator=(const ComplexFourier&) = delete;

    std::span<std::complex<float>> input();
    std::span<const std::complex<float>> transform();

  private:
    struct State;
    std::unique_ptr<State> state_;
};

} // namespace sober
