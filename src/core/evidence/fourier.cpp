#include "core/evidence/fourier.h"

#include <fftw3.h>
#include <mutex>

namespace sober {
namespace {

/// FFTW's planner, unlike its plans, is one for the whole process.
std::mutex& planner() {
    static std::mutex mutex;
    return mutex;
}

struct FreeFftw {
    void operator()(void* memory) const { fftwf_free(memory); }
};
struct FreePlan {
    void operator()(fftwf_plan plan) const {
        const std::lock_guard lock(planner());
        fftwf_destroy_plan(plan);
    }
};
using Plan = std::unique_ptr<fftwf_plan_s, FreePlan>;

template <typename T>
std::unique_ptr<T[], FreeFftw> aligned(std::size_t count) {
    return std::unique_ptr<T[], FreeFftw>(static_cast<T*>(fftwf_malloc(count * sizeof(T))));
}

fftwf_complex* raw(std::complex<float>* values) {
    return reinterpret_cast<fftwf_complex*>(values);
}

} // namespace

struct RealFourier::State {
    explicit State(std::size_t count)
        : length(count), in(aligned<float>(count)), out(aligned<std::complex<float>>(count / 2 + 1)) {
        const std::lock_guard lock(planner());
        plan.reset(fftwf_plan_dft_r2c_1d(static_cast<int>(count), in.get(), raw(out.get()), FFTW_ESTIMATE));
    }
    std::size_t length;
    std::unique_ptr<float[], FreeFftw> in;
    std::unique_ptr<std::complex<float>[], FreeFftw> out;
    Plan plan;
};

RealFourier::RealFourier(std::size_t length) : state_(std::make_unique<State>(length)) {}
RealFourier::~RealFourier() = default;
std::span<float> RealFourier::input() {
    return {state_->in.get(), state_->length};
}
std::span<const std::complex<float>> RealFourier::transform() {
    fftwf_execute(state_->plan.get());
    return {state_->out.get(), state_->length / 2 + 1};
}

struct ComplexFourier::State {
    explicit State(std::size_t count)
        : length(count), in(aligned<std::complex<float>>(count)), out(aligned<std::complex<float>>(count)) {
        const std::lock_guard lock(planner());
        plan.reset(fftwf_plan_dft_1d(static_cast<int>(count), raw(in.get()), raw(out.get()), FFTW_FORWARD,
                                     FFTW_ESTIMATE));
    }
    std::size_t length;
    std::unique_ptr<std::complex<float>[], FreeFftw> in;
    std::unique_ptr<std::complex<float>[], FreeFftw> out;
    Plan plan;
};

ComplexFourier::ComplexFourier(std::size_t length) : state_(std::make_unique<State>(length)) {}
ComplexFourier::~ComplexFourier() = default;
std::span<std::complex<float>> ComplexFourier::input() {
    return {state_->in.get(), state_->length};
}
std::span<const std::complex<float>> ComplexFourier::transform() {
    fftwf_execute(state_->plan.get());
    return {state_->out.get(), state_->length};
}

} // namespace sober
