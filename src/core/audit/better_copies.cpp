#include "core/audit/better_copies.h"

#include "core/audit/sameness.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/recording_pairs.h"

#include <algorithm>
#include <set>

namespace sober {
namespace {

/// Whether two of a set are as long as each other, or only silence makes one longer.
class Lengths {
  public:
    explicit Lengths(const Catalogue& catalogue) : pairs_(catalogue) {}

    bool areAlike(const ComparableHolding& one, const ComparableHolding& other) {
        if (isSameLength(one.duration, other.duration)) {
            return true;
        }
        const auto pair = pairs_.of(one.payload, other.payload);
        if (!pair) {
            outcome_ = pair.error();
        }
        const auto sameness = pair && *pair ? samenessOf(**pair, one.duration, other.duration) : std::nullopt;
        return sameness && *sameness <= Sameness::lossyCopy;
    }
    /// Whether all could be looked up.
    const Outcome& outcome() const { return outcome_; }

  private:
    RecordingPairs pairs_;
    Outcome outcome_ = done();
};

bool isBetterThan(Lengths& lengths, const ComparableHolding& candidate, const ComparableHolding& low) {
    const bool trusted =
        candidate.verdict != VerdictClass::doubtful && candidate.verdict != VerdictClass::transcoded;
    return candidate.holding != low.holding && candidate.sound && trusted &&
           (candidate.lossless || (!candidate.underLimit && candidate.bitrate > low.bitrate)) &&
           lengths.areAlike(low, candidate);
}

/// Lossless first, then on another volume, then by bitrate.
auto rankBeside(const ComparableHolding& low) {
    return [&low](const ComparableHolding* candidate) {
        return std::tuple(!candidate->lossless, candidate->volume == low.volume, -candidate->bitrate);
    };
}

BetterCopies betterCopiesOf(Lengths& lengths, const ComparableHolding& low,
                            const std::vector<ComparableHolding>& members) {
    std::vector<const ComparableHolding*> candidates;
    for (const auto& member : members) {
        if (isBetterThan(lengths, member, low)) {
            candidates.push_back(&member);
        }
    }
    std::ranges::stable_sort(candidates, {}, rankBeside(low));
    BetterCopies copies{low.holding, {}};
    std::set<VolumeId> volumes;
    for (const auto* candidate : candidates) {
        if (volumes.insert(candidate->volume).second) {
            copies.better.push_back(candidate->holding);
        }
    }
    return copies;
}

} // namespace

Outcome findBetterCopies(const Catalogue& catalogue) {
    const EvidenceStore store(catalogue);
    Lengths lengths(catalogue);
    std::vector<BetterCopies> found;
    const auto walked = store.eachSet([&](const std::vector<ComparableHolding>& members) {
        for (const auto& low : members) {
            if (!low.underLimit) {
                continue;
            }
            if (auto copies = betterCopiesOf(lengths, low, members); !copies.better.empty()) {
                found.push_back(std::move(copies));
            }
        }
    });
    RETURN_IF_FAILED(walked);
    RETURN_IF_FAILED(lengths.outcome());
    return store.replaceBetterCopies(found);
}

} // namespace sober
