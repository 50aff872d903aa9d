#include "core/remedy/actions/rip.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/expected_holdings.h"
#include "core/catalogue/volumes.h"
#include "core/disc/ripped_file.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/new_form.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/changes/file_changes.h"

namespace sober {
namespace {

const char* const notKnown = "What was read of the disc is not there any more; read it again.";

Result<Refusal> whyNotRip(ReviewContext& context, PlannedAction& planned, const Volume& /*volume*/) {
    const auto ripped = unpackRippedFile(planned.action.change);
    if (!ripped || presenceOf(ripped->file) != Presence::there) {
        return Refusal(notKnown);
    }
    if (const auto onto = volumeHolding(context.volumes, planned.path); !onto) {
        return Refusal(onto.error().sentence);
    }
    planned.holding.size = ripped->size;
    planned.holding.checksum = ripped->checksum;
    const auto taken = displayPath(planned.path) + " is taken.";
    if (const auto free = isFree(planned.path, taken); !free) {
        return Refusal(free.error().sentence);
    }
    return context.moveTargets.insert(planned.path).second ? Refusal() : Refusal(taken);
}

Result<Proven> proveRipped(DoingContext& /*context*/, const PlannedAction& planned, LedgerAction& action) {
    const auto ripped = unpackRippedFile(planned.action.change);
    if (!ripped) {
        return refusedError(planned.path, notKnown);
    }
    action.size = ripped->size;
    action.checksum = ripped->checksum;
    action.madeChecksum = ripped->checksum;
    const auto free = isFree(planned.path, displayPath(planned.path) + " is taken.");
    const auto room = free ? hasRoomFor(planned.path, action.size) : free;
    return room ? Result<Proven>(Proven{}) : Result<Proven>(room.error());
}

/// Decoded from the medium: the very samples, or what sounds like them.
Outcome isWhatWasRead(EvidenceWorker& worker, const RippedFile& ripped, const FileRecord& record,
                      const LedgerAction& action, RunControl& control) {
    if (record.checksums.file != ripped.checksum) {
        return Error{
            Cause::damaged, action.place,
            displayPath(action.place) +
                " reads back otherwise than it was written: its drive does not keep what it is given."};
    }
    if (ripped.md5.empty()) {
        return isMadeOf(worker, ripped.samples, ripped.encoded, action.made, record, action.place, control);
    }
    const bool isTheSame =
        record.evidence && record.evidence->samplesMd5 && toHex(*record.evidence->samplesMd5) == ripped.md5;
    return isTheSame ? done()
                     : Outcome(Error{Cause::damaged, action.place,
                                     displayPath(action.place) +
                                         " does not decode to the samples that were read of the disc."});
}

Result<FileRecord> makeRipped(DoingContext& context, const PlannedAction& planned,
                              const LedgerAction& action) {
    const auto ripped = unpackRippedFile(planned.action.change);
    if (!ripped) {
        return refusedError(planned.path, notKnown);
    }
    Unflushed unflushed; // what is made is known once it has its place
    const auto copied = copyChecksummed(ripped->file, action.made, unflushed, context.control,
                                        [&](std::uint64_t more) { context.onBytes(more, planned.path); });
    RETURN_IF_FAILED(copied);
    EvidenceWorker worker;
    auto record = worker.examine(action.made, context.control, [](std::uint64_t) {});
    const auto same =
        record ? isWhatWasRead(worker, *ripped, *record, action, context.control) : Outcome(record.error());
    return same ? record : Result<FileRecord>(same.error());
}

} // namespace

ActionType ripType() {
    ActionType type;
    type.turn = 1;
    type.forth = addLegs;
    type.back = setAsideLegs;
    type.before = HoldingState::retired;
    type.whyNot = whyNotRip;
    type.prove = proveRipped;
    type.layOut = expectHoldings;
    type.make = makeRipped;
    type.madeTogether = true; // flushed at once and read back from the medium
    type.madeBesideEachOther = true;
    return type;
}

} // namespace sober
