#include "core/evidence/fingerprint.h"
#include "core/media/resample.h"

#include <chromaprint.h>

namespace sober {
namespace {

constexpr int fingerprintRate = 11'025; // Hz
constexpr int algorithm = CHROMAPRINT_ALGORITHM_DEFAULT;

struct FreeChromaprint {
    void operator()(ChromaprintContext* context) const { chromaprint_free(context); }
};
struct FreeMemory {
    void operator()(void* memory) const { chromaprint_dealloc(memory); }
};

} // namespace

struct FingerprintPass::State {
    std::unique_ptr<ChromaprintContext, FreeChromaprint> context{chromaprint_new(algorithm)};
    std::unique_ptr<MonoResampler> resampler;

    void feed(std::span<const std::int16_t> mono) {
        if (!mono.empty()) {
            chromaprint_feed(context.get(), mono.data(), static_cast<int>(mono.size()));
        }
    }
};

FingerprintPass::FingerprintPass() : state_(std::make_unique<State>()) {}
FingerprintPass::~FingerprintPass() = default;

void FingerprintPass::begin(const SampleFormat& format) {
    state_->resampler = std::make_unique<MonoResampler>(format.channels, format.sampleRate, fingerprintRate);
    chromaprint_start(state_->context.get(), fingerprintRate, 1);
}

void FingerprintPass::take(const DecodedBlock& block) {
    state_->feed(state_->resampler->feed(block.floats));
}

Fingerprint FingerprintPass::finish() {
    if (!state_->resampler) {
        return {};
    }
    state_->feed(state_->resampler->finish());
    std::uint32_t* words = nullptr;
    int count = 0;
    if (chromaprint_finish(state_->context.get()) != 1 ||
        chromaprint_get_raw_fingerprint(state_->context.get(), &words, &count) != 1) {
        return {};
    }
    const std::unique_ptr<std::uint32_t, FreeMemory> owned(words);
    return {words, words + count};
}

} // namespace sober
