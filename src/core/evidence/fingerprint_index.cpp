#include "core/evidence/fingerprint_index.h"

#include "core/base/wide.h"

#include <tbb/parallel_for.h>
#include <tbb/parallel_sort.h>

#include <algorithm>
#include <bit>

namespace sober {
namespace {

constexpr std::size_t mostTogether = 24;
constexpr int fewestWords = 24; // three seconds
constexpr std::uint32_t fewestShared = 2;
constexpr int looseness = 2; // words by which landmarks may disagree on the offset

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
        made[at] = landmarksOf(recordings[at], first + static_cast<std::uint32_t>(at));
    });
    for (const auto& landmarks : made) {
        add(landmarks);
    }
}

void FingerprintIndex::add(std::span<const Landmark> landmarks) {
    landmarks_.insert(landmarks_.end(), landmarks.begin(), landmarks.end());
}

std::vector<FingerprintCandidate> FingerprintIndex::candidates(std::uint32_t from) {
    tbb::parallel_sort(landmarks_.begin(), landmarks_.end());
    std::vector<Vote> votes;
    const auto vote = [&](const Landmark& a, const Landmark& b) {
        if (a.number != b.number && b.number >= from) {
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

std::optional<FingerprintMatch> agreementNear(const Fingerprint& first, const Fingerprint& second,
                                              int offset) {
    const auto firstLength = static_cast<int>(first.size());
    const auto secondLength = static_cast<int>(second.size());
    const int shorter = std::min(firstLength, secondLength);
    std::optional<FingerprintMatch> best;
    for (int at = offset - looseness; at <= offset + looseness; ++at) {
        const int from = std::max(0, at);
        const int to = std::min(firstLength, secondLength + at);
        if (to - from < std::max(fewestWords, shorter * 6 / 10)) {
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
