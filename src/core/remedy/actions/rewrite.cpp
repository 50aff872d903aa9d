#include "core/remedy/actions/rewrite.h"

#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/file_changes.h"

namespace sober {
namespace {

Error refused(const BytePath& path, std::string_view why) {
    return {Cause::refused, path, displayPath(path) + std::string(why)};
}

Result<Refusal> whyNotRewrite(ReviewContext& context, PlannedAction& planned, const Volume& volume) {
    if (auto gone = whyOutOfReach(planned.holding, volume)) {
        return gone;
    }
    const auto evidence = EvidenceStore(context.catalogue).of(planned.holding.id);
    RETURN_IF_FAILED(evidence);
    return !*evidence ? Refusal("It was not examined yet: survey its volume at full effort first.")
           : planned.holding.links > 1
               ? Refusal("It is one file with several names; the others would stay as they are.")
           : canBeRewritten(planned.holding.claims, **evidence)
               ? Refusal()
               : Refusal("It holds nothing beside its audio and its tags that could be left out.");
}

Result<Proven> proveRewritable(DoingContext& context, const PlannedAction& planned,
                               LedgerAction& /*action*/) {
    return asRecordedWithRoom(context, planned, planned.holding.size);
}

} // namespace

bool canBeRewritten(const Claims& claims, const Evidence& evidence) {
    return evidence.junkBytes > 0 && (claims.container == "mp3" || claims.container == "ogg");
}

Result<FileRecord> makeRewritten(EvidenceWorker& worker, const BytePath& from, const BytePath& to,
                                 RunControl& control) {
    const auto before = worker.examine(from, control, [](std::uint64_t) {});
    RETURN_IF_FAILED(before);
    if (!before->evidence || !canBeRewritten(before->claims, *before->evidence)) {
        return refused(from, " holds nothing beside its audio and its tags.");
    }
    const auto junk = worker.junkIn(from, control);
    RETURN_IF_FAILED(junk);
    Unflushed unflushed; // what is made is known once it has its place
    RETURN_IF_FAILED(copyToNew(from, to, unflushed, *junk));
    auto made = readBack(worker, to, control);
    if (!made) {
        return made;
    }
    if (!made->evidence || made->evidence->payload != before->evidence->payload ||
        made->evidence->junkBytes > 0 ||
        made->evidence->problems.size() > before->evidence->problems.size()) {
        return refused(from,
                       ": without the bytes that seem to be junk its audio data would not be the same; it "
                       "stays as it is.");
    }
    return made;
}

ActionType rewriteType() {
    ActionType type;
    type.turn = 4;
    type.forth = replaceLegs;
    type.back = giveBackLegs;
    type.whyNot = whyNotRewrite;
    type.prove = proveRewritable;
    type.make = [](DoingContext& context, const PlannedAction& planned, const LedgerAction& action) {
        return makeRewritten(context.worker, planned.path, action.made, context.control);
    };
    return type;
}

} // namespace sober
