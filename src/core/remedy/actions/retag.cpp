#include "core/remedy/actions/retag.h"

#include "core/base/text.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/file_changes.h"

#include <algorithm>

namespace sober {
namespace {

Error refused(const BytePath& path, std::string_view why) {
    return {Cause::refused, path, displayPath(path) + std::string(why)};
}

/// Some formats keep of a picture only its bytes.
bool sameTags(const TagFields& a, const TagFields& b) {
    const auto sameBytes = [](const Picture& one, const Picture& other) { return one.bytes == other.bytes; };
    return a.fields == b.fields && std::ranges::is_permutation(a.pictures, b.pictures, sameBytes);
}

Result<Refusal> whyNotRetag(ReviewContext& /*context*/, PlannedAction& planned, const Volume& volume) {
    if (auto gone = whyOutOfReach(planned.holding, volume)) {
        return gone;
    }
    return planned.holding.links > 1
               ? Refusal("It is one file with several names; the others would keep the old tags.")
               : Refusal();
}

Result<Proven> proveTaggable(DoingContext& context, const PlannedAction& planned, LedgerAction& /*action*/) {
    const auto change = unpackTagChange(planned.action.change);
    if (!change || change->isEmpty()) {
        return refusedError(planned.path, "What was to be written into its tags cannot be read any more.");
    }
    return asRecordedWithRoom(context, planned, planned.holding.size + planned.action.change.size());
}

} // namespace

Result<FileRecord> makeRetagged(EvidenceWorker& worker, const BytePath& from, const BytePath& to,
                                const TagChange& change, RunControl& control) {
    const auto tagsBefore = worker.readTags(from);
    RETURN_IF_FAILED(tagsBefore);
    const auto before = worker.examine(from, control, [](std::uint64_t) {});
    RETURN_IF_FAILED(before);
    if (!before->evidence) {
        return refused(from, " does not decode: its audio data could not be proven unchanged.");
    }
    Unflushed unflushed; // what is made is known once it has its place
    RETURN_IF_FAILED(copyToNew(from, to, unflushed));
    {
        const auto file = openForChanging(to);
        const auto written = file ? worker.writeTags(*file, to, change) : Outcome(file.error());
        RETURN_IF_FAILED(written);
    }
    auto made = readBack(worker, to, control);
    RETURN_IF_FAILED(made);
    if (!made->evidence || made->evidence->payload != before->evidence->payload ||
        made->evidence->samplesMd5 != before->evidence->samplesMd5 ||
        made->evidence->problems.size() > before->evidence->problems.size()) {
        return refused(from, ": with the new tags its audio data would not be the same; it stays as it is.");
    }
    const auto tagsNow = worker.readTags(to);
    RETURN_IF_FAILED(tagsNow);
    if (!sameTags(*tagsNow, changed(*tagsBefore, change))) {
        return refused(from,
                       ": its kind of tags cannot take this without changing others; it stays as it is.");
    }
    return made;
}

ActionType retagType() {
    ActionType type;
    type.turn = 4;
    type.forth = replaceLegs;
    type.back = giveBackLegs;
    type.whyNot = whyNotRetag;
    type.prove = proveTaggable;
    type.make = [](DoingContext& context, const PlannedAction& planned, const LedgerAction& action) {
        return makeRetagged(context.worker, planned.path, action.made,
                            *unpackTagChange(planned.action.change), context.control);
    };
    return type;
}

} // namespace sober
