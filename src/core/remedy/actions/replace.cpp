#include "core/remedy/actions/replace.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/intake/replacement.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/actions/retag.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/file_changes.h"

namespace sober {
namespace {

/// What was made is kept until the lists lead back.
constexpr Leg backLegs[]{{Step::place, Way::back}, {Step::setAside, Way::back}, {Step::note, Way::back}};

const char* const unknownReplacement = "What was to replace it is not known any more; choose again.";

Result<Refusal> whyNotReplace(ReviewContext& context, PlannedAction& planned, const Volume& volume) {
    if (auto gone = whyOutOfReach(planned.holding, volume)) {
        return gone;
    }
    if (planned.holding.links > 1) {
        return Refusal("It is one file with several names; the others would keep the old one.");
    }
    const auto replacement = unpackReplacement(planned.action.change);
    if (!replacement) {
        return Refusal(unknownReplacement);
    }
    switch (presenceOf(replacement->source)) {
    case Presence::gone:
        return Refusal(displayPath(replacement->source) + " is not there any more.");
    case Presence::unknown:
        return Refusal(displayPath(replacement->source) + " cannot be looked at now.");
    case Presence::there:
        break;
    }
    planned.target = planned.action.target;
    const auto onto = volumeHolding(context.volumes, planned.target);
    if (!onto || (*onto)->id != volume.id) {
        return Refusal("What replaces it stays on its volume.");
    }
    if (planned.target == planned.path) {
        return Refusal();
    }
    const auto taken = displayPath(planned.target) + " is taken.";
    if (const auto free = isFree(planned.target, taken); !free) {
        return Refusal(free.error().sentence);
    }
    return context.moveTargets.insert(planned.target).second ? Refusal() : Refusal(taken);
}

Result<Proven> proveReplacement(DoingContext& context, const PlannedAction& planned, LedgerAction& action) {
    const auto replacement = unpackReplacement(planned.action.change);
    if (!replacement) {
        return refusedError(planned.path, unknownReplacement);
    }
    action.stays = planned.action.target;
    if (changesPlace(action)) {
        const auto free = isFree(action.stays, displayPath(action.stays) + " is taken.");
        RETURN_IF_FAILED(free);
    }
    return asRecordedWithRoom(context, planned, replacement->size + planned.action.change.size());
}

/// With the tags that were chosen, at the action's `made`.
Result<FileRecord> madeFrom(DoingContext& context, const Replacement& replacement, const BytePath& made) {
    if (!replacement.tags.isEmpty()) {
        return makeRetagged(context.worker, replacement.source, made, replacement.tags, context.control);
    }
    Unflushed unflushed; // what is made is known once it has its place
    const auto copied = copyToNew(replacement.source, made, unflushed);
    return copied ? readBack(context.worker, made, context.control) : Result<FileRecord>(copied.error());
}

Result<FileRecord> makeReplacement(DoingContext& context, const PlannedAction& planned,
                                   const LedgerAction& action) {
    const auto replacement = unpackReplacement(planned.action.change);
    if (!replacement) {
        return refusedError(planned.path, unknownReplacement);
    }
    if (const auto same = holds(replacement->source, replacement->content); !same) {
        return same.error().cause == Cause::changed
                   ? refusedError(replacement->source,
                                  displayPath(replacement->source) +
                                      " is not what was compared any more; choose again.")
                   : same.error();
    }
    auto made = madeFrom(context, *replacement, action.made);
    if (made &&
        (!made->evidence || !made->evidence->sound() || made->evidence->payload != replacement->payload)) {
        return refusedError(planned.path,
                            displayPath(replacement->source) +
                                " did not come over whole: what was read back is not what was compared.");
    }
    return made;
}

constexpr std::string_view ofTheFormer = " (noted of the file that it replaced)";

Outcome noteAcceptance(Catalogue& catalogue, const PlannedAction& planned) {
    const auto replacement = unpackReplacement(planned.action.change);
    return replacement && !replacement->acceptance.empty()
               ? EvidenceStore(catalogue).accept(planned.holding.id,
                                                 replacement->acceptance + std::string(ofTheFormer))
               : done();
}

/// What the custodian has said of the new file itself stays.
Outcome withdrawAcceptance(Catalogue& catalogue, const LedgerAction& action) {
    const EvidenceStore store(catalogue);
    const auto noted = store.acceptanceOf(action.holding);
    return !noted                                              ? Outcome(noted.error())
           : *noted && (*noted)->reason.ends_with(ofTheFormer) ? store.withdrawAcceptance(action.holding)
                                                               : done();
}

} // namespace

ActionType replaceType() {
    ActionType type;
    type.turn = 1; // while what it is made of is there
    type.forth = replaceLegs;
    type.back = backLegs;
    type.references = References::afterItWent;
    type.whyNot = whyNotReplace;
    type.prove = proveReplacement;
    type.make = makeReplacement;
    type.record = noteAcceptance;
    type.withdraw = withdrawAcceptance;
    return type;
}

} // namespace sober
