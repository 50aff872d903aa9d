#pragma once

#include "core/audit/keeper.h"
#include "core/base/run_control.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/findings.h"

namespace sober {

/// Everything that is needed to look at one copy set and decide on it.
struct SetDetail {
    CopySet set;
    std::vector<Holding> members;
    SetKnowledge known;               ///< in the order of `members`
    std::vector<MemberAdvice> advice; ///< likewise
    SetDecision decision;
    std::vector<HoldingId> onDocket; ///< told to be retired
    /// For each member: the lists whose references lead to it, once for each reference.
    std::vector<std::vector<BytePath>> references;
};

Result<SetDetail> detailOf(const Catalogue& catalogue, const CopySet& set, std::span<const Volume> volumes,
                           const Policy& policy = {});

/// Bytes that following the advice frees.
std::uint64_t freedByAdvice(const SetDetail& detail);

/// What a policy would do to many sets, before anything is done.
struct PolicyPreview {
    std::uint64_t sets = 0;           ///< looked at
    std::uint64_t decided = 0;        ///< of those, that get a keeper and something to retire
    std::uint64_t alreadyDecided = 0; ///< left as the custodian decided before
    std::vector<std::pair<Undecided, std::uint64_t>> left; ///< sets that nothing is retired of, most first
    std::uint64_t frees = 0;                               ///< bytes
    std::vector<std::pair<VolumeId, std::uint64_t>> freesByVolume;
    std::vector<DocketAction> actions;
    std::vector<std::pair<Checksum128, HoldingId>> keepers;
};

/// Runs a policy over sets. Sets that were decided on before, or left alone, stay as they are.
Result<PolicyPreview> previewPolicy(const Catalogue& catalogue, std::span<const SetId> sets,
                                    const Policy& policy, RunControl& control);

/// Puts what was previewed on the docket and remembers the keepers. Nothing on a volume changes.
Outcome applyPreview(const Catalogue& catalogue, const PolicyPreview& preview);

/// Decides one set by hand: `keeper` stays, every other member that is at hand and no hard link to
/// it goes on the docket.
Outcome keepOnly(const Catalogue& catalogue, const SetDetail& detail, HoldingId keeper,
                 std::span<const Volume> volumes);

/// Decides one set as advised: what is advised to be retired goes on the docket, what is yours to decide
/// stays. Cause::invalid where nothing is advised.
Outcome takeAdvice(const Catalogue& catalogue, const SetDetail& detail, std::span<const Volume> volumes);

/// Puts one member on the docket, or takes it off again.
Outcome setRetire(const Catalogue& catalogue, const SetDetail& detail, HoldingId member, bool retire);

/// Leaves a set as it is: nothing of it on the docket, not shown as undecided.
Outcome leaveAlone(const Catalogue& catalogue, const SetDetail& detail);

/// Forgets what was decided on a set and takes its members off the docket.
Outcome forgetChoice(const Catalogue& catalogue, const SetDetail& detail);

} // namespace sober
