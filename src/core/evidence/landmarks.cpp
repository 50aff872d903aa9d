#include "core/evidence/landmarks.h"

#include <algorithm>

namespace sober {
namespace {

constexpr std::size_t apart = 6;        // words between both of a landmark: 0.74 s
constexpr std::uint32_t keptOfLong = 8; // one landmark in so many
constexpr std::size_t longFrom = 480;   // words: a minute
constexpr std::size_t fewestWords = 24; // three seconds
constexpr std::size_t sampled = 256;    // words that tell whether a fingerprint tells anything

/// Steps of a multiplicative hash (Knuth, The Art of Computer Programming 3, 6.4).
std::uint32_t keyOf(std::uint32_t word, std::uint32_t later) {
    std::uint64_t mixed = (static_cast<std::uint64_t>(word) << 32 | later) * 0x9E3779B97F4A7C15ULL;
    mixed ^= mixed >> 29;
    mixed *= 0xBF58476D1CE4E5B9ULL;
    return static_cast<std::uint32_t>(mixed >> 32);
}

/// Seven bits a byte, the lowest first; the highest bit says that more follow.
void putNumber(std::string& bytes, std::uint32_t number) {
    while (number >= 0x80) {
        bytes += static_cast<char>(number | 0x80U);
        number >>= 7;
    }
    bytes += static_cast<char>(number);
}

std::optional<std::uint32_t> takeNumber(std::string_view& bytes) {
    std::uint32_t number = 0;
    for (unsigned shift = 0; shift < 32 && !bytes.empty(); shift += 7) {
        const auto byte = static_cast<std::uint8_t>(bytes.front());
        bytes.remove_prefix(1);
        number |= (byte & 0x7FU) << shift;
        if (byte < 0x80) {
            return number;
        }
    }
    return std::nullopt;
}

} // namespace

std::vector<Landmark> landmarksOf(const Fingerprint& words, std::uint32_t number) {
    std::vector<Landmark> made;
    if (!isTelling(words)) {
        return made;
    }
    const std::uint32_t kept = words.size() >= longFrom ? keptOfLong : 1;
    for (const unsigned shift : {0U, 16U}) {
        std::uint32_t before = 0;
        for (std::size_t place = 0; place + 2 * apart < words.size(); ++place) {
            const auto half = [&](std::size_t from) { return words[from] >> shift & 0xFFFFU; };
            const auto now = half(place);
            const auto soon = half(place + apart);
            const auto later = half(place + 2 * apart);
            const auto key = keyOf(now << 16 | soon, later << 1 | shift >> 4);
            const bool plain = now == soon && soon == later;
            if (!plain && key % kept == 0 && (place == 0 || key != before)) {
                made.push_back({key, number, static_cast<std::uint32_t>(place)});
            }
            before = key;
        }
    }
    return made;
}

bool isTelling(std::span<const std::uint32_t> words) {
    if (words.size() < fewestWords) {
        return false;
    }
    std::vector<std::uint32_t> some;
    const std::size_t step = std::max<std::size_t>(1, words.size() / sampled);
    for (std::size_t at = 0; at < words.size(); at += step) {
        some.push_back(words[at]);
    }
    std::ranges::sort(some);
    const auto distinct = static_cast<std::size_t>(std::ranges::unique(some).begin() - some.begin());
    return distinct >= std::max<std::size_t>(8, some.size() / 16);
}

std::string packLandmarks(std::span<const Landmark> landmarks) {
    std::string bytes;
    bytes.reserve(landmarks.size() * 7);
    std::uint32_t key = 0;
    for (const auto& landmark : landmarks) {
        putNumber(bytes, landmark.key - key);
        putNumber(bytes, landmark.number);
        putNumber(bytes, landmark.position);
        key = landmark.key;
    }
    return bytes;
}

std::optional<std::vector<Landmark>> unpackLandmarks(std::string_view packed) {
    std::vector<Landmark> landmarks;
    landmarks.reserve(packed.size() / 6);
    std::uint32_t key = 0;
    while (!packed.empty()) {
        const auto further = takeNumber(packed);
        const auto number = takeNumber(packed);
        const auto position = takeNumber(packed);
        if (!further || !number || !position) {
            return std::nullopt;
        }
        key += *further;
        landmarks.push_back({key, *number, *position});
    }
    return landmarks;
}

} // namespace sober
