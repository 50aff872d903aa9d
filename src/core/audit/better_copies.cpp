#include "core/audit/better_copies.h"

#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <unordered_map>

namespace sober {
namespace {

/// Share of differing fingerprint bits below which two recordings are one. Lossy copies were measured
/// at 0.002 to 0.01, unrelated recordings at 0.44.
constexpr double sameRecording = 0.15;
constexpr double mostLengthApart = 5; // seconds
constexpr int reach = 40;             // words: five seconds either way
/// A title that half the collection has ("Track 1") is not worth comparing with all of them.
constexpr std::size_t mostCandidates = 40;

bool isBetterThan(const ComparableHolding& candidate, const ComparableHolding& low) {
    const bool trusted =
        candidate.verdict != VerdictClass::doubtful && candidate.verdict != VerdictClass::transcoded;
    return candidate.holding != low.holding && candidate.sound && trusted &&
           (candidate.lossless || (!candidate.underLimit && candidate.bitrate > low.bitrate)) &&
           std::abs(candidate.duration - low.duration) <= mostLengthApart;
}

/// Lossless first, then on another volume, then by bitrate.
auto rankBeside(const ComparableHolding& low) {
    return [&low](const ComparableHolding* candidate) {
        return std::tuple(!candidate->lossless, candidate->volume == low.volume, -candidate->bitrate);
    };
}

} // namespace

Outcome findBetterCopies(const Catalogue& catalogue) {
    const EvidenceStore store(catalogue);
    std::unordered_map<std::string, std::vector<ComparableHolding>> byTitle;
    const auto walked = store.eachComparable([&](const ComparableHolding& holding) {
        if (auto key = lettersAndDigits(holding.title); !key.empty()) {
            byTitle[std::move(key)].push_back(holding);
        }
    });
    if (!walked) {
        return walked;
    }
    std::vector<BetterCopies> found;
    for (const auto& [key, group] : byTitle) {
        for (const auto& low : group) {
            if (!low.underLimit) {
                continue;
            }
            std::vector<const ComparableHolding*> candidates;
            for (const auto& candidate : group) {
                if (isBetterThan(candidate, low)) {
                    candidates.push_back(&candidate);
                }
            }
            std::ranges::sort(candidates, {}, rankBeside(low));
            if (candidates.size() > mostCandidates) {
                candidates.resize(mostCandidates);
            }
            const auto words =
                candidates.empty() ? Result<Fingerprint>(Fingerprint{}) : store.fingerprintOf(low.holding);
            if (!words) {
                return words.error();
            }
            BetterCopies copies{low.holding, {}};
            std::set<VolumeId> volumes;
            for (const auto* candidate : candidates) {
                if (volumes.contains(candidate->volume)) {
                    continue;
                }
                const auto others = store.fingerprintOf(candidate->holding);
                if (!others) {
                    return others.error();
                }
                if (matchFingerprints(*words, *others, reach).bitErrors <= sameRecording) {
                    copies.better.push_back(candidate->holding);
                    volumes.insert(candidate->volume);
                }
            }
            if (!copies.better.empty()) {
                found.push_back(std::move(copies));
            }
        }
    }
    return store.replaceBetterCopies(found);
}

} // namespace sober
