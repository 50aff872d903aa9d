#include "core/evidence/shared_passages.h"

#include <algorithm>
#include <bit>
#include <cstdlib>
#include <set>
#include <span>

namespace sober {
namespace {

constexpr std::size_t windowWords = 48; // about six seconds
constexpr std::size_t leastWords = 8;   // different ones in a window: with fewer it is silence or a tone
constexpr std::ptrdiff_t oneRow = 4; // words, half a second, by which an encoder or another tape may drift

/// Where a window stands best in another recording; nothing where it does not.
std::optional<std::size_t> placeOf(std::span<const std::uint32_t> window, const Fingerprint& other) {
    auto least = static_cast<int>(heardBitErrors * 32 * static_cast<double>(window.size()));
    std::optional<std::size_t> place;
    for (std::size_t at = 0; at + window.size() <= other.size(); ++at) {
        int errors = 0;
        for (std::size_t i = 0; i < window.size() && errors < least; ++i) {
            errors += std::popcount(window[i] ^ other[at + i]);
        }
        if (errors < least) {
            least = errors;
            place = at;
        }
    }
    return place;
}

} // namespace

SharedPassages sharedPassages(const Fingerprint& first, const Fingerprint& second) {
    const auto& shorter = first.size() <= second.size() ? first : second;
    const auto& longer = first.size() <= second.size() ? second : first;
    SharedPassages shared;
    std::size_t windows = 0;
    std::size_t found = 0;
    std::optional<std::ptrdiff_t> row;
    for (std::size_t at = 0; at + windowWords <= shorter.size(); at += windowWords) {
        const auto window = std::span(shorter).subspan(at, windowWords);
        if (std::set(window.begin(), window.end()).size() < leastWords) {
            continue;
        }
        ++windows;
        if (const auto place = placeOf(window, longer)) {
            const auto offset = static_cast<std::ptrdiff_t>(*place) - static_cast<std::ptrdiff_t>(at);
            shared.isInOneRow = shared.isInOneRow && std::abs(offset - row.value_or(offset)) <= oneRow;
            row = offset;
            ++found;
        }
    }
    shared.isKnown = windows > 0;
    shared.share = windows > 0 ? static_cast<double>(found) / static_cast<double>(windows) : 0;
    return shared;
}

} // namespace sober
