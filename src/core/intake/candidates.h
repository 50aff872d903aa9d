#pragma once

#include "core/audit/set_knowledge.h"
#include "core/base/run_control.h"
#include "core/intake/wanted.h"

#include <unordered_map>

namespace sober {

/// Where something better is to be had.
enum class CandidateSource {
    volume, ///< another holding
    offer,  ///< the offer shelf
    file,   ///< a file that somebody named
};
std::string_view word(CandidateSource source);

/// Why something is no better holding of a recording.
enum class Unfit {
    otherEdit,   ///< passages of it, cut together otherwise
    otherMaster, ///< another master or level
    otherLength, ///< the same, shorter or longer
    onlyTags,    ///< only the tags look alike
    notBetter,
    notOnOffer,
    unsound,
};
std::string_view word(Unfit unfit);

/// What might take a wanted holding's place.
struct Candidate {
    CandidateSource source = CandidateSource::volume;
    HoldingId holding = 0; ///< 0: it is none
    BytePath path;         ///< absolute, or the address of an offer
    bool atHand = true;
    std::optional<Unfit> unfit;       ///< nothing: it fits
    std::vector<std::string> reasons; ///< for it, or against it; sentences without their full stop
    std::optional<double> cutoff;     ///< Hz, where its bandwidth ends, if that was measured
    double quality = 0;               ///< bits a second of Layer III (SetKnowledge::quality)
    bool isPlain = false;             ///< samples as they are, without a check value
};

/// Whether a candidate may take a wanted holding's place, by what was measured of both. In `pair` the wanted
/// is member 0, the candidate member 1. What was not laid over each other yet fits by its fingerprint alone,
/// and says so.
void judge(Candidate& candidate, const WantedHolding& wanted, const Holding& of, const SetKnowledge& pair,
           std::span<const Volume> volumes);

/// By how much something has to sound better: a step of a fifth, as the keeper's.
inline constexpr double clearlyBetter = 1.19;

/// "the same recording, 12 s shorter", by so many seconds.
std::string lengthWords(double apart);
/// Whether two fingerprints are no one recording's: the same in one row, as far as both reach. Those that are
/// too short say nothing.
bool areApart(const Fingerprint& first, const Fingerprint& second);
/// Takes down what two recordings that are no copies of each other still share.
void tellApart(Candidate& candidate, const Fingerprint& wanted, double wantedSeconds,
               const Fingerprint& other, double otherSeconds);

/// The best first: what is at hand, then by quality, then what has check values of its own.
void rank(std::vector<Candidate>& candidates);

/// One kind of place where something better may be had.
class ReplacementSource {
  public:
    virtual ~ReplacementSource() = default;
    /// For each of the wanted, in their order; what does not fit with the reason why.
    virtual Result<std::vector<std::vector<Candidate>>> candidatesFor(std::span<const WantedHolding> wanted,
                                                                      RunControl& control) = 0;
};

/// Other holdings, on volumes at hand or away: those of the recording, and those whose tags say the same.
class HoldingsSource final : public ReplacementSource {
  public:
    explicit HoldingsSource(const Catalogue& catalogue) : catalogue_(catalogue) {}
    Result<std::vector<std::vector<Candidate>>> candidatesFor(std::span<const WantedHolding> wanted,
                                                              RunControl& control) override;

  private:
    Outcome addMembers(const WantedHolding& wanted, std::vector<Candidate>& candidates) const;
    Outcome addAlikes(const WantedHolding& wanted, std::span<const HoldingId> alikes,
                      std::vector<Candidate>& candidates) const;
    Candidate candidateOf(const Holding& holding) const;

    Outcome gatherTitles();
    std::vector<HoldingId> alikesOf(const WantedHolding& wanted) const;

    const Catalogue& catalogue_;
    std::vector<Volume> volumes_;
    std::unordered_multimap<std::size_t, HoldingId> byTitle_; ///< all that have one; by its hash
};

} // namespace sober
