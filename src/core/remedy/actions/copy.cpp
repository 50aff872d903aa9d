#include "core/remedy/actions/copy.h"

#include "core/base/text.h"
#include "core/catalogue/expected_holdings.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/changes/file_changes.h"

#include <algorithm>

namespace sober {
Result<Refusal> whyNotCopy(ReviewContext& context, PlannedAction& planned, const Volume& volume) {
    if (planned.holding.state != HoldingState::present) {
        return Refusal("It is not there any more.");
    }
    if (auto away = whyAway(planned.holding, volume)) {
        return away;
    }
    planned.target = planned.action.target;
    if (const auto onto = volumeHolding(context.volumes, planned.target); !onto) {
        return Refusal(onto.error().sentence);
    }
    const auto taken = displayPath(planned.target) + " is taken.";
    if (const auto free = isFree(planned.target, taken); !free) {
        return Refusal(free.error().sentence);
    }
    return context.moveTargets.insert(planned.target).second ? Refusal() : Refusal(taken);
}

Outcome beginAtTarget(const PlannedAction& planned, LedgerAction& action, std::uint64_t bytes) {
    action.place = planned.action.target;
    action.holding = 0;
    const auto free = isFree(action.place, displayPath(action.place) + " is taken.");
    return free ? hasRoomFor(action.place, bytes) : free;
}

namespace {

Result<Proven> proveCopyable(DoingContext& /*context*/, const PlannedAction& planned, LedgerAction& action) {
    action.madeChecksum = action.checksum;
    const auto begun = beginAtTarget(planned, action, action.size);
    return begun ? Result<Proven>(Proven{}) : Result<Proven>(begun.error());
}

/// The places of others that have a holding's bytes.
Result<std::vector<BytePath>> otherSourcesOf(const DoingContext& context, const PlannedAction& planned) {
    auto same = Holdings(context.catalogue).carrying(planned.holding.checksum);
    RETURN_IF_FAILED(same);
    std::vector<BytePath> places;
    for (const auto& holding : *same) {
        const auto volume = std::ranges::find(context.volumes, holding.volume, &Volume::id);
        if (holding.id != planned.holding.id && volume != context.volumes.end() &&
            volume->reaches(holding.path)) {
            places.push_back(joinPath(volume->root, holding.path));
        }
    }
    return places;
}

/// What is at `source`, where that is what was recorded.
Result<FileRecord> copyFrom(const BytePath& source, DoingContext& context, const LedgerAction& action) {
    Unflushed unflushed; // what is made is known once it has its place
    auto copied = copyChecksummed(source, action.made, unflushed, context.control,
                                  [&](std::uint64_t bytes) { context.onBytes(bytes, source); });
    RETURN_IF_FAILED(copied);
    if (copied->file != action.checksum) {
        const auto removed = removeFile(action.made, unflushed);
        return removed ? refusedError(source,
                                      displayPath(source) + " is not what was recorded; verify its volume.")
                       : removed.error();
    }
    FileRecord record;
    record.checksums = std::move(*copied);
    return record;
}

Result<FileRecord> makeCopy(DoingContext& context, const PlannedAction& planned, const LedgerAction& action) {
    auto made = copyFrom(planned.path, context, action);
    const auto isTheSources = [](const Error& error) {
        return error.cause != Cause::interrupted && error.cause != Cause::full &&
               error.cause != Cause::alreadyThere;
    };
    if (made || !isTheSources(made.error())) {
        return made;
    }
    const auto others = otherSourcesOf(context, planned);
    RETURN_IF_FAILED(others);
    for (const auto& source : *others) {
        auto other = copyFrom(source, context, action);
        if (other || !isTheSources(other.error())) {
            return other;
        }
    }
    return made;
}

} // namespace

ActionType copyType() {
    ActionType type;
    type.turn = 2;
    type.forth = addLegs;
    type.back = setAsideLegs;
    type.before = HoldingState::retired;
    type.whyNot = whyNotCopy;
    type.prove = proveCopyable;
    type.layOut = expectHoldings;
    type.make = makeCopy;
    type.madeTogether = true;
    type.takeIn = becomeCopies;
    return type;
}

} // namespace sober
