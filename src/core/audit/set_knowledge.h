#pragma once

#include "core/audit/sameness.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/records.h"

#include <map>
#include <optional>
#include <span>
#include <vector>

namespace sober {

/// What was measured of one member of a copy set.
struct MemberFacts {
    bool examined = false;
    bool accepted = false; ///< the custodian keeps it as it is
    Evidence evidence;     ///< only where `examined`
};

/// What is known of the members of a set and of how each two of them are the same. Empty for a set whose
/// members all have the same bytes: nothing tells those apart.
class SetKnowledge {
  public:
    SetKnowledge() = default;
    static Result<SetKnowledge> of(const Catalogue& catalogue, std::span<const Holding> members);

    /// What is known of two members alone, as members 0 and 1, with what follows of the others.
    SetKnowledge ofPair(std::size_t first, std::size_t second) const;

    bool isEmpty() const { return facts_.empty(); }
    const MemberFacts& facts(std::size_t member) const { return facts_[member]; }
    /// How two members are the same, by what was compared or along the strongest chain of comparisons;
    /// nothing where nothing ties them.
    std::optional<Sameness> between(std::size_t first, std::size_t second) const;
    /// What comparing these two showed, as seen from `first`; nothing where they were not compared.
    std::optional<DecodeComparison> comparison(std::size_t first, std::size_t second) const;
    /// Whether decoding has shown it, or equal checksums: not the fingerprints alone.
    bool isProven(std::size_t first, std::size_t second) const;
    /// Whether this very pair was compared, or one that has the samples of one of both: not a chain of lossy
    /// copies.
    bool isProvenPairwise(std::size_t first, std::size_t second) const;
    /// How good the sound really is, in bits a second of Layer III: what the verdict leaves of the claim.
    double quality(const Holding& member, std::size_t at) const;
    /// Lossy encodes that the content has gone through, as far as they show.
    int generations(const Holding& member, std::size_t at) const;

    void add(MemberFacts facts) { facts_.push_back(std::move(facts)); }
    void link(std::size_t first, std::size_t second, Sameness sameness,
              std::optional<DecodeComparison> comparison = {});

  private:
    struct Link {
        Sameness sameness;
        std::optional<DecodeComparison> comparison; ///< from the lower to the higher
        bool proven = true;
        bool direct = true;   ///< not by way of others
        bool pairwise = true; ///< not by way of others that have other samples
    };
    void closeChains();
    static bool isStronger(const Link& one, const Link& other);

    std::vector<MemberFacts> facts_;
    std::map<std::pair<std::size_t, std::size_t>, Link> links_;
};

/// Bits a second of Layer III that sound about as good. Common practice, no source.
double asLayerIII(const std::string& codec, double bitrate);

} // namespace sober
