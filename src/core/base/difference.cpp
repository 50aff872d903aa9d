#include "core/base/difference.h"

#include <algorithm>
#include <bit>
#include <memory>
#include <zstd.h>

namespace sober {
namespace {

constexpr int level = 3;
constexpr int leastWindow = 10;
constexpr int mostWindow = 30; // a gigabyte, as a power of two

int windowFor(std::size_t bytes) {
    return std::clamp(static_cast<int>(std::bit_width(bytes)) + 1, leastWindow, mostWindow);
}

} // namespace

std::optional<std::string> differenceFrom(std::string_view before, std::string_view text) {
    const std::unique_ptr<ZSTD_CCtx, std::size_t (*)(ZSTD_CCtx*)> context(ZSTD_createCCtx(), ZSTD_freeCCtx);
    std::string difference(ZSTD_compressBound(text.size()), '\0');
    const auto set = [&](ZSTD_cParameter parameter, int value) {
        return ZSTD_isError(ZSTD_CCtx_setParameter(context.get(), parameter, value)) == 0;
    };
    const bool ready = context && set(ZSTD_c_compressionLevel, level) && set(ZSTD_c_checksumFlag, 1) &&
                       set(ZSTD_c_enableLongDistanceMatching, 1) &&
                       set(ZSTD_c_windowLog, windowFor(before.size() + text.size())) &&
                       ZSTD_isError(ZSTD_CCtx_refPrefix(context.get(), before.data(), before.size())) == 0;
    const auto size =
        ready ? ZSTD_compress2(context.get(), difference.data(), difference.size(), text.data(), text.size())
              : 0;
    if (!ready || ZSTD_isError(size) != 0) {
        return std::nullopt;
    }
    difference.resize(size);
    return difference;
}

std::optional<std::string> withDifference(std::string_view before, std::string_view difference) {
    const auto size = ZSTD_getFrameContentSize(difference.data(), difference.size());
    constexpr unsigned long long largest = 1ULL << mostWindow;
    if (size == ZSTD_CONTENTSIZE_ERROR || size == ZSTD_CONTENTSIZE_UNKNOWN || size > largest) {
        return std::nullopt;
    }
    const std::unique_ptr<ZSTD_DCtx, std::size_t (*)(ZSTD_DCtx*)> context(ZSTD_createDCtx(), ZSTD_freeDCtx);
    std::string text(size, '\0');
    const bool ready =
        context &&
        ZSTD_isError(ZSTD_DCtx_setParameter(context.get(), ZSTD_d_windowLogMax, mostWindow)) == 0 &&
        ZSTD_isError(ZSTD_DCtx_refPrefix(context.get(), before.data(), before.size())) == 0;
    const auto got = ready ? ZSTD_decompressDCtx(context.get(), text.data(), text.size(), difference.data(),
                                                 difference.size())
                           : 0;
    return ready && ZSTD_isError(got) == 0 && got == text.size() ? std::optional(std::move(text))
                                                                 : std::nullopt;
}

} // namespace sober
