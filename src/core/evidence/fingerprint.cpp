#include "core/evidence/fingerprint.h"

#include "core/media/resample.h"

#include <bit>
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

std::string packFingerprint(const Fingerprint& words) {
    char* packed = nullptr;
    int size = 0;
    if (words.empty() || chromaprint_encode_fingerprint(words.data(), static_cast<int>(words.size()),
                                                        algorithm, &packed, &size, 0) != 1) {
        return {};
    }
    const std::unique_ptr<char, FreeMemory> owned(packed);
    return {packed, static_cast<std::size_t>(size)};
}

std::optional<Fingerprint> unpackFingerprint(std::string_view packed) {
    if (packed.empty()) {
        return Fingerprint{};
    }
    std::uint32_t* words = nullptr;
    int count = 0;
    int form = 0;
    if (chromaprint_decode_fingerprint(packed.data(), static_cast<int>(packed.size()), &words, &count, &form,
                                       0) != 1) {
        return std::nullopt;
    }
    const std::unique_ptr<std::uint32_t, FreeMemory> owned(words);
    return Fingerprint(words, words + count);
}

FingerprintMatch matchFingerprints(const Fingerprint& first, const Fingerprint& second, int reach) {
    FingerprintMatch best;
    const auto firstLength = static_cast<int>(first.size());
    const auto secondLength = static_cast<int>(second.size());
    const int least = std::max(1, std::min(firstLength, secondLength) / 2);
    for (int offset = -reach; offset <= reach; ++offset) {
        const int from = std::max(0, offset);
        const int to = std::min(firstLength, secondLength + offset);
        if (to - from < least) {
            continue;
        }
        int differing = 0;
        for (int at = from; at < to; ++at) {
            differing += std::popcount(first[static_cast<std::size_t>(at)] ^
                                       second[static_cast<std::size_t>(at - offset)]);
        }
        const double share = differing / (32.0 * (to - from));
        if (share < best.bitErrors) {
            best = {share, offset, static_cast<std::size_t>(to - from)};
        }
    }
    return best;
}

} // namespace sober
