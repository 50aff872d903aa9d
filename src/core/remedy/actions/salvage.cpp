#include "core/remedy/actions/salvage.h"

#include "core/base/mounts.h"
#include "core/base/text.h"
#include "core/catalogue/expected_holdings.h"
#include "core/catalogue/salvage_store.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/file_content.h"
#include "core/evidence/worker/image_bytes.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/file_changes.h"

#include <fmt/format.h>
#include <sys/stat.h>
#include <sys/sysmacros.h>

#include <algorithm>

namespace sober {
namespace {

const char* const notUnderstood = "Where it lies is not known any more; scan again.";

/// Whether a place lies on the drive that it would be taken from: writing there may destroy what is not found
/// yet.
bool liesOn(const BytePath& place, const BytePath& drive) {
    struct stat status {};
    if (stat(drive.c_str(), &status) != 0 || !S_ISBLK(status.st_mode)) {
        return false;
    }
    BytePath folder(parentOf(place));
    while (!isFolder(folder) && folder.size() > 1) {
        folder = BytePath(parentOf(folder));
    }
    const auto mounts = mountsNow();
    const auto mount = mountOf(mounts, realPathOf(folder).value_or(folder));
    const auto number = fmt::format("{}:{}", major(status.st_rdev), minor(status.st_rdev));
    // A part of a drive is a folder within the drive's own there (sysfs).
    return mount && (mount->device == number ||
                     isWithin(realPathOf("/sys/dev/block/" + mount->device).value_or(""),
                              realPathOf("/sys/dev/block/" + number).value_or("/no drive")));
}

Result<Refusal> whyNotSalvage(ReviewContext& context, PlannedAction& planned, const Volume& volume) {
    const auto bytes = unpackFindBytes(planned.action.change);
    if (!bytes) {
        return Refusal(notUnderstood);
    }
    if (planned.holding.id != 0) {
        if (planned.holding.state != HoldingState::missing) {
            return Refusal("It is not missing any more.");
        }
        if (auto away = whyAway(planned.holding, volume)) {
            return away;
        }
    } else {
        if (const auto onto = volumeHolding(context.volumes, planned.path); !onto) {
            return Refusal(onto.error().sentence);
        }
        planned.holding.size = bytes->size();
        planned.holding.checksum = bytes->checksum;
    }
    if (const auto free = isFree(planned.path, displayPath(planned.path) + " is taken."); !free) {
        return Refusal(free.error().sentence);
    }
    if (liesOn(planned.path, bytes->file)) {
        return Refusal("It would be written onto the drive that it is taken from; choose another.");
    }
    return context.moveTargets.insert(planned.path).second
               ? Refusal()
               : Refusal(displayPath(planned.path) + " is taken.");
}

} // namespace

Result<Proven> proveSalvageable(DoingContext& /*context*/, const PlannedAction& planned,
                                LedgerAction& action) {
    const auto bytes = unpackFindBytes(planned.action.change);
    if (!bytes) {
        return refusedError(planned.path, notUnderstood);
    }
    action.size = bytes->size();
    action.checksum = bytes->checksum;
    action.madeChecksum = bytes->checksum;
    const auto free = isFree(planned.path, displayPath(planned.path) + " is taken.");
    const auto room = free ? hasRoomFor(planned.path, action.size) : free;
    return room ? Result<Proven>(Proven{}) : Result<Proven>(room.error());
}

Result<FileRecord> makeSalvaged(DoingContext& context, const PlannedAction& planned,
                                const LedgerAction& action) {
    const auto found = unpackFindBytes(planned.action.change);
    auto image = found ? openMeasured(found->file, context.control)
                       : Result<OpenedImage>(refusedError(planned.path, notUnderstood));
    const auto others = image ? openOthers(*image, found->others) : Outcome(image.error());
    RETURN_IF_FAILED(others);
    const auto whole = bytesOf(*image, found->file);
    ExtentSource bytes(*whole, found->extents);
    Unflushed unflushed; // what is made is known once it has its place
    const auto written = writeBytes(bytes, found->file, action.made, unflushed, context.control,
                                    [&](std::uint64_t more) { context.onBytes(more, planned.path); });
    RETURN_IF_FAILED(written);
    auto record = written->file == found->checksum
                      ? readAsItIs(context.worker, action.made, context.control)
                      : Result<FileRecord>(refusedError(found->file, displayPath(found->file) +
                                                                         " is not what it was when it was "
                                                                         "scanned; scan it again."));
    if (record && record->checksums.file != found->checksum) {
        record =
            Error{Cause::damaged, action.place,
                  displayPath(action.place) +
                      " reads back otherwise than it was written: its drive does not keep what it is given."};
    }
    if (!record) {
        const auto removed = removeFile(action.made, unflushed);
        return removed ? record.error() : removed.error();
    }
    return record;
}

ActionType salvageType() {
    ActionType type;
    type.turn = 1;
    type.forth = addLegs;
    type.back = setAsideLegs;
    type.before = HoldingState::retired;
    type.whyNot = whyNotSalvage;
    type.prove = proveSalvageable;
    type.layOut = expectHoldings;
    type.make = makeSalvaged;
    return type;
}

} // namespace sober
