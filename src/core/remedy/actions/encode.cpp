#include "core/remedy/actions/encode.h"

#include "core/base/text.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/copy.h"
#include "core/remedy/actions/new_form.h"
#include "core/remedy/changes/file_changes.h"

namespace sober {
namespace {

Result<Proven> proveEncodable(DoingContext& context, const PlannedAction& planned, LedgerAction& action) {
    const auto stamp = context.prover.asRecorded(planned.path, planned.holding.checksum);
    RETURN_IF_FAILED(stamp);
    const auto begun = beginAtTarget(planned, action, action.size);
    return begun ? Result<Proven>(Proven{}) : Result<Proven>(begun.error());
}

/// Tags and the front picture. What speaks of the former encoder does not come.
Outcome bringTags(EvidenceWorker& worker, const BytePath& from, const FileHandle& made, const BytePath& to) {
    const auto tags = worker.readTags(from);
    if (!tags) {
        return tellsOfTheFile(tags.error()) ? done() : Outcome(tags.error()); // none that we know
    }
    TagChange change;
    change.fields = tags->fields;
    std::erase_if(change.fields, [](const auto& field) { return isOfTheEncode(field.first); });
    for (const auto& picture : tags->pictures) {
        change.picture = !change.picture || picture.kind == 3 ? picture : *change.picture;
    }
    return writeWhatItHolds(worker, made, to, std::move(change));
}

Result<FileRecord> makeEncoded(DoingContext& context, const PlannedAction& planned,
                               const LedgerAction& action) {
    Unflushed unflushed; // what is made is known once it has its place
    if (const auto begun = writeNewFile(action.made, {}, unflushed); !begun) {
        return begun.error();
    }
    const auto target = openForChanging(action.made);
    RETURN_IF_FAILED(target);
    WorkerLimits limits;
    limits.secondsPerMegabyte = 60; // encoders take longer than decoders
    EvidenceWorker worker(limits);
    const auto encoded = worker.encode(planned.path, *target, planned.action.change, context.control);
    RETURN_IF_FAILED(encoded);
    context.onBytes(planned.holding.size, planned.path);
    RETURN_IF_FAILED(bringTags(worker, planned.path, *target, action.made));
    auto made = worker.examine(action.made, context.control, [](std::uint64_t) {});
    const auto same =
        made ? isMadeOf(worker, planned.path, *encoded, action.made, *made, action.place, context.control)
             : Outcome(made.error());
    return same ? made : Result<FileRecord>(same.error());
}

} // namespace

ActionType encodeType() {
    auto type = copyType();
    type.prove = proveEncodable;
    type.make = makeEncoded;
    type.madeBesideEachOther = true;
    type.takeIn = nullptr; // what was made was read
    return type;
}

} // namespace sober
