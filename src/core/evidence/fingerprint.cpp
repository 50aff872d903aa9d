#include "core/evidence/fingerprint.h"

#include <algorithm>
#include <bit>
#include <chromaprint.h>
#include <dlfcn.h>
#include <memory>

namespace sober {
namespace {

/// What packs and unpacks, of libchromaprint. That brings FFmpeg and a hundred others along: it is loaded by
/// who packs the first time, and not by every program that might.
class Packing {
  public:
    static const Packing& get() {
        static const Packing packing;
        return packing;
    }
    explicit operator bool() const { return encode != nullptr && decode != nullptr && release != nullptr; }

    decltype(&chromaprint_encode_fingerprint) encode = nullptr;
    decltype(&chromaprint_decode_fingerprint) decode = nullptr;
    decltype(&chromaprint_dealloc) release = nullptr;

  private:
    Packing() {
        void* library = dlopen("libchromaprint.so.1", RTLD_LAZY);
        if (library != nullptr) {
            find(library, "chromaprint_encode_fingerprint", encode);
            find(library, "chromaprint_decode_fingerprint", decode);
            find(library, "chromaprint_dealloc", release);
        }
    }
    template <typename Function>
    static void find(void* library, const char* name, Function& function) {
        function = reinterpret_cast<Function>(dlsym(library, name)); // NOLINT: that is what dlsym is for
    }
};

/// Memory of the library's.
template <typename T>
std::unique_ptr<T, decltype(&chromaprint_dealloc)> owned(T* memory) {
    return {memory, Packing::get().release};
}

} // namespace

std::string packFingerprint(const Fingerprint& words) {
    char* packed = nullptr;
    int size = 0;
    const auto& library = Packing::get();
    if (words.empty() || !library ||
        library.encode(words.data(), static_cast<int>(words.size()), CHROMAPRINT_ALGORITHM_DEFAULT, &packed,
                       &size, 0) != 1) {
        return {};
    }
    const auto memory = owned(packed);
    return {packed, static_cast<std::size_t>(size)};
}

std::optional<Fingerprint> unpackFingerprint(std::string_view packed) {
    if (packed.empty()) {
        return Fingerprint{};
    }
    std::uint32_t* words = nullptr;
    int count = 0;
    int form = 0;
    const auto& library = Packing::get();
    if (!library ||
        library.decode(packed.data(), static_cast<int>(packed.size()), &words, &count, &form, 0) != 1) {
        return std::nullopt;
    }
    const auto memory = owned(words);
    return Fingerprint(words, words + count);
}

FingerprintMatch matchFingerprints(const Fingerprint& first, const Fingerprint& second, int reach) {
    FingerprintMatch best;
    std::vector<double> all;
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
        all.push_back(share);
        if (share < best.bitErrors) {
            best = {share, offset, static_cast<std::size_t>(to - from), best.usual};
        }
    }
    if (!all.empty()) {
        const auto middle = all.begin() + static_cast<std::ptrdiff_t>(all.size() / 2);
        std::ranges::nth_element(all, middle);
        best.usual = *middle;
    }
    return best;
}

} // namespace sober
