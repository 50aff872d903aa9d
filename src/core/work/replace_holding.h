#pragma once

#include "core/intake/candidates.h"
#include "core/media/tag_fields.h"
#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/hooks.h"

namespace sober {

/// What could be better, and what there is for and against each candidate.
struct WantedRow {
    WantedHolding wanted;              ///< without its evidence
    std::optional<double> cutoff;      ///< Hz, where its bandwidth ends, if that was measured
    std::vector<Candidate> candidates; ///< that fit, the best first
    std::vector<Candidate> refused;
};

/// Looks among the holdings and, where `askShelf` and one is set up, at the offer shelf. A shelf that does
/// not answer costs a sentence in `problem`, not the list.
struct WantedLook {
    std::vector<WantedRow> rows;
    std::string problem;
};
Result<WantedLook> lookForBetter(const Catalogue& catalogue, std::span<const HoldingId> wanted, bool askShelf,
                                 RunControl& control, const ProgressSink& onProgress);

struct ReplaceRequest {
    BytePath holding;                   ///< absolute: what is to be replaced
    BytePath by;                        ///< absolute, or the address of an offer
    bool takeTags = false;              ///< those of the new file stay; else those of the old are kept
    std::optional<TagChange> tags = {}; ///< in place of both: chosen field by field
    /// Where on its volume the new file stands, by the old one's tags; "": its folder and name, with the new
    /// ending.
    std::string layout = {};
};

struct PlannedReplacement {
    Candidate candidate; ///< as judged now: laid over what it would replace, fetched where it was an offer
    BytePath target;     ///< where it would stand
    TagChange tags;      ///< that would be written into it
};

/// Judges and, where the candidate fits, puts the action on the docket. What does not fit is told by
/// `candidate.unfit`, and nothing is kept of an offer then.
Result<PlannedReplacement> planReplacement(const Catalogue& catalogue, const ReplaceRequest& request,
                                           RunControl& control, const ProgressSink& onProgress);

/// The same, where a candidate that does not fit is an error: Cause::refused, with why.
Result<PlannedReplacement> planFitting(const Catalogue& catalogue, const ReplaceRequest& request,
                                       RunControl& control, const ProgressSink& onProgress);

/// Plans and carries out this one action alone, as planFitting.
Result<CarriedOut> replaceHolding(Catalogue& catalogue, const ReplaceRequest& request, RunControl& control,
                                  const CarryOutHooks& hooks);

/// Puts the best candidate of each row on the docket that has one at hand; what does not fit after all is
/// told with its sentence. Stops where it is cancelled; what was put there stays.
struct PlannedRows {
    std::vector<BytePath> targets;
    std::vector<RefusedAction> refused;
};
Result<PlannedRows> planAdvised(const Catalogue& catalogue, std::span<const WantedRow> rows, bool takeTags,
                                RunControl& control, const ProgressSink& onProgress);
/// The same, carried out at once.
Result<CarriedOut> replaceAdvised(Catalogue& catalogue, std::span<const WantedRow> rows, bool takeTags,
                                  RunControl& control, const CarryOutHooks& hooks);

/// What was fetched and is needed by no action on the docket goes.
Outcome forgetUnneededOffers(const Catalogue& catalogue);

} // namespace sober
