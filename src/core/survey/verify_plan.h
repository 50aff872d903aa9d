#pragma once

#include "core/catalogue/fixity_store.h"

#include <random>

namespace sober {

/// A volume, and the folders or files of it that are meant.
struct VerifyTarget {
    Volume volume;
    std::vector<BytePath> within; ///< relative; "" means all

    bool isWholeVolume() const;
};

/// Which volumes at hand the paths lie on; all of them where no path is given. Fails where a path is on no
/// volume at hand.
Result<std::vector<VerifyTarget>> verifyTargets(const std::vector<Volume>& volumes,
                                                std::span<const BytePath> paths);

/// What of a target is to be read again, and how much.
struct VerifyScope {
    CheckScope scope = CheckScope::whole;
    bool strong = false;    ///< by SHA-256 too
    double extent = 0.01;   ///< of a sample: damage of this share of the holdings…
    double missRisk = 0.05; ///< …is missed with this probability at most
};

/// Which holdings of one target to read, in the order of their paths. Holds an id each, so that a million
/// fit.
struct VerifyPlan {
    VerifyTarget target;
    std::vector<HoldingId> toRead;
    std::vector<HoldingId> missing;    ///< known to be so
    std::uint64_t bytes = 0;           ///< of what is to be read
    std::optional<FixityCheck> goesOn; ///< the whole check that was stopped and is gone on with
};

Result<VerifyPlan> planVerification(const FixityStore& store, const VerifyTarget& target,
                                    const VerifyScope& scope, std::mt19937& random);

/// How many of `total` have to be read so that damage of a share of them is missed with a probability of
/// at most `missRisk`: hypergeometric sampling without replacement.
std::uint64_t sampleSize(std::uint64_t total, double extent, double missRisk);

} // namespace sober
