#include "core/evidence/fingerprint_index.h"

#include "core/base/wide.h"

#include <tbb/parallel_for.h>
#include <tbb/parallel_sort.h>

#include <algorithm>
#include <bit>

namespace sober {
namespace {

constexpr std::size_t apart = 6;        // words between both of a landmark: 0.74 s
constexpr std::uint32_t keptOfLong = 8; // one landmark in so many
constexpr std::size_t longFrom = 480;   // words: a minute
constexpr std::size_t mostTogether = 24;
constexpr std::size_t fewestWords = 24; // three seconds
constexpr std::uint32_t fewestShared = 2;
constexpr std::size_t sampled = 256; // words that tell whether a fingerprint tells anything
constexpr int looseness = 2;         // words by which landmarks may disagree on the offset

/// Steps of a multiplicative hash (Knuth, The Art of Computer Programming 3, 6.4).
std::uint32_t keyOf(std::uint32_t word, std::uint32_t later) {
    std::uint64_t mixed = (static_cast<std::uint64_t>(word) << 32 | later) * 0x9E3779B97F4A7C15ULL;
    mixed ^= mixed >> 29;
    mixed *= 0xBF58476D1CE4E5B9ULL;
    return static_cast<std::uint32_t>(mixed >> 32);
}

/// One landmark's word for a pair.
struct Vote {
    std::uint32_t first;
    std::uint32_t second;
    int offset;
};

std::uint64_t pairOf(const Vote& vote) {
    return static_cast<std::uint64_t>(vote.first) << 32 | vote.second;
}

/// The offset that most votes of one pair agree on.
FingerprintCandidate counted(std::span<const Vote> votes) {
    FingerprintCandidate best{votes.front().first, votes.front().second, 0, 0};
    std::size_t from = 0;
    for (std::size_t to = 0; to < votes.size(); ++to) {
        while (votes[to].offset - votes[from].offset > looseness) {
            ++from;
        }
        if (to - from + 1 > best.landmarks) {
            best.landmarks = static_cast<std::uint32_t>(to - from + 1);
            best.offset = votes[from + (to - from) / 2].offset;
        }
    }
    return best;
}

SOBER_WIDE int differingBits(const std::uint32_t* first, const std::uint32_t* second, std::size_t count) {
    int differing = 0;
    for (std::size_t i = 0; i < count; ++i) {
        differing += std::popcount(first[i] ^ second[i]);
    }
    return differing;
}

} // namespace

void FingerprintIndex::add(std::uint32_t first, std::span<const Fingerprint> recordings) {
    std::vector<std::vector<Landmark>> made(recordings.size());
    tbb::parallel_for(std::size_t{0}, recordings.size(), [&](std::size_t at) {
        const auto& words = recordings[at];
        if (!isTelling(words)) {
            return;
        }
        const auto number = first + static_cast<std::uint32_t>(at);
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
                    made[at].push_back({key, number, static_cast<std::uint32_t>(place)});
                }
                before = key;
            }
        }
    });
    for (const auto& landmarks : made) {
        landmarks_.insert(landmarks_.end(), landmarks.begin(), landmarks.end());
    }
}

std::vector<FingerprintCandidate> FingerprintIndex::candidates() {
    tbb::parallel_sort(landmarks_.begin(), landmarks_.end(), [](const Landmark& a, const Landmark& b) {
        return std::tuple(a.key, a.number, a.position) < std::tuple(b.key, b.number, b.position);
    });
    std::vector<Vote> votes;
    const auto vote = [&](const Landmark& a, const Landmark& b) {
        if (a.number != b.number) {
            votes.push_back(
                {a.number, b.number, static_cast<int>(a.position) - static_cast<int>(b.position)});
        }
    };
    for (auto run = landmarks_.begin(); run != landmarks_.end();) {
        const auto end =
            std::find_if(run, landmarks_.end(), [&](const Landmark& each) { return each.key != run->key; });
        const auto together = static_cast<std::size_t>(end - run);
        for (auto a = run; a != end; ++a) {
            const auto reach = together <= mostTogether
                                   ? end
                                   : a + std::min<std::ptrdiff_t>(end - a, static_cast<std::ptrdiff_t>(3));
            for (auto b = a + 1; b < reach; ++b) {
                vote(*a, *b);
            }
            if (together > mostTogether) {
                vote(*run, *a);
            }
        }
        run = end;
    }
    landmarks_ = {};
    tbb::parallel_sort(votes.begin(), votes.end(), [](const Vote& a, const Vote& b) {
        return std::tuple(a.first, a.second, a.offset) < std::tuple(b.first, b.second, b.offset);
    });
    std::vector<FingerprintCandidate> found;
    for (auto run = votes.begin(); run != votes.end();) {
        const auto end =
            std::find_if(run, votes.end(), [&](const Vote& each) { return pairOf(each) != pairOf(*run); });
        if (const auto candidate = counted({run, end}); candidate.landmarks >= fewestShared) {
            found.push_back(candidate);
        }
        run = end;
    }
    return found;
}

bool isTelling(std::span<const std::uint32_t> words) {
    if (words.size() < fewestWords) {
        return false;
    }
    std::vector<std::uint32_t> sorted;
    const std::size_t step = std::max<std::size_t>(1, words.size() / sampled);
    for (std::size_t at = 0; at < words.size(); at += step) {
        sorted.push_back(words[at]);
    }
    std::ranges::sort(sorted);
    const auto distinct = static_cast<std::size_t>(std::ranges::unique(sorted).begin() - sorted.begin());
    return distinct >= std::max<std::size_t>(8, sorted.size() / 16);
}

std::optional<FingerprintMatch> agreementNear(const Fingerprint& first, const Fingerprint& second,
                                              int offset) {
    const auto firstLength = static_cast<int>(first.size());
    const auto secondLength = static_cast<int>(second.size());
    const int shorter = std::min(firstLength, secondLength);
    std::optional<FingerprintMatch> best;
    for (int at = offset - looseness; at <= offset + looseness; ++at) {
        const int from = std::max(0, at);
        const int to = std::min(firstLength, secondLength + at);
        if (to - from < std::max(static_cast<int>(fewestWords), shorter * 6 / 10)) {
            continue;
        }
        const int differing = differingBits(first.data() + from, second.data() + (from - at),
                                            static_cast<std::size_t>(to - from));
        const double share = differing / (32.0 * (to - from));
        if (!best || share < best->bitErrors) {
            best = FingerprintMatch{share, at, static_cast<std::size_t>(to - from)};
        }
    }
    return best;
}

} // namespace sober
