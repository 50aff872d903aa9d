#include "core/remedy/actions/write_list.h"

#include "core/base/text.h"
#include "core/catalogue/transfer_store.h"
#include "core/evidence/file_content.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/changes/file_changes.h"

namespace sober {
namespace {

Result<Refusal> whyNotWriteList(ReviewContext& /*context*/, PlannedAction& planned,
                                const Volume& /*volume*/) {
    const auto free = isFree(planned.path, displayPath(planned.path) + " is taken.");
    return free ? Refusal() : Refusal(free.error().sentence);
}

/// What is known of a list that is to be written, from its text.
Outcome proveRoom(const PlannedAction& planned, LedgerAction& action) {
    action.size = planned.action.change.size();
    action.madeChecksum = checksumOfText(planned.action.change);
    return hasRoomFor(planned.path, action.size);
}

Result<Proven> proveWritable(DoingContext& /*context*/, const PlannedAction& planned, LedgerAction& action) {
    const auto free = isFree(planned.path, displayPath(planned.path) + " is taken.");
    const auto room = free ? proveRoom(planned, action) : free;
    action.checksum = action.madeChecksum;
    return room ? Result<Proven>(Proven{}) : Result<Proven>(room.error());
}

/// What stands there has to be what a transfer wrote.
Result<Proven> proveReplaceable(DoingContext& context, const PlannedAction& planned, LedgerAction& action) {
    const auto there = readContent(planned.path, context.control);
    RETURN_IF_FAILED(there);
    action.checksum = there->checksums.file;
    const auto byTransfer = TransferStore(context.catalogue).hasWritten(planned.path, action.checksum);
    const auto byUs = LedgerStore(context.catalogue).hasWritten(planned.path, action.checksum);
    if (!byTransfer || !byUs) {
        return byTransfer ? byUs.error() : byTransfer.error();
    }
    if (!*byTransfer && !*byUs) {
        return refusedError(planned.path,
                            displayPath(planned.path) + " was changed since we wrote it; it stays as it is.");
    }
    const auto room = proveRoom(planned, action);
    return room ? Result<Proven>(Proven{there->stamp, std::nullopt}) : Result<Proven>(room.error());
}

Result<FileRecord> makeList(DoingContext& /*context*/, const PlannedAction& planned,
                            const LedgerAction& action) {
    const auto& text = planned.action.change;
    Unflushed unflushed; // what is made is known once it has its place
    RETURN_IF_FAILED(writeNewFile(action.made, text, unflushed));
    ChecksumPass checksums(false);
    checksums.feed({reinterpret_cast<const std::uint8_t*>(text.data()), text.size()});
    FileRecord record;
    record.checksums = checksums.finish();
    return record;
}

} // namespace

ActionType writeListType() {
    ActionType type;
    type.turn = 3;
    type.forth = addLegs;
    type.back = setAsideLegs;
    type.whyNot = whyNotWriteList;
    type.prove = proveWritable;
    type.make = makeList;
    type.madeTogether = true;
    type.takeIn = [](Catalogue& /*catalogue*/, std::span<const LedgerAction* const> /*actions*/) {
        return done();
    };
    return type;
}

ActionType replaceListType() {
    auto type = writeListType();
    type.forth = replaceLegs;
    type.back = giveBackLegs;
    type.whyNot = [](ReviewContext& /*context*/, PlannedAction& /*planned*/,
                     const Volume& /*volume*/) -> Result<Refusal> { return Refusal(); };
    type.prove = proveReplaceable;
    return type;
}

} // namespace sober
