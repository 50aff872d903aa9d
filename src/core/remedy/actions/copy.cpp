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
namespace {

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

/// From here on the action is about the new place.
Result<Proven> proveCopyable(DoingContext& /*context*/, const PlannedAction& planned, LedgerAction& action) {
    action.place = planned.action.target;
    action.holding = 0;
    action.madeChecksum = action.checksum;
    const auto free = isFree(action.place, displayPath(action.place) + " is taken.");
    const auto room = free ? hasRoomFor(action.place, action.size) : free;
    return room ? Result<Proven>(Proven{}) : Result<Proven>(room.error());
}

/// The places of what has a holding's bytes, its own first.
Result<std::vector<BytePath>> sourcesOf(const DoingContext& context, const PlannedAction& planned) {
    auto same = Holdings(context.catalogue).carrying(planned.holding.checksum);
    if (!same) {
        return same.error();
    }
    std::vector<BytePath> places{planned.path};
    for (const auto& holding : *same) {
        const auto volume = std::ranges::find(context.volumes, holding.volume, &Volume::id);
        if (holding.id != planned.holding.id && volume != context.volumes.end() &&
            volume->reaches(holding.path)) {
            places.push_back(joinPath(volume->root, holding.path));
        }
    }
    return places;
}

Result<FileRecord> makeCopy(DoingContext& context, const PlannedAction& planned, const LedgerAction& action) {
    const auto sources = sourcesOf(context, planned);
    if (!sources) {
        return sources.error();
    }
    Unflushed unflushed; // what is made is known once it has its place
    std::optional<Error> first;
    for (const auto& source : *sources) {
        auto copied = copyChecksummed(source, action.made, unflushed, context.control,
                                      [&](std::uint64_t bytes) { context.onBytes(bytes, source); });
        if (copied && copied->file == action.checksum) {
            FileRecord record;
            record.checksums = std::move(*copied);
            return record;
        }
        if (copied) {
            const auto removed = removeFile(action.made, unflushed);
            copied = removed ? refusedError(source, displayPath(source) +
                                                        " is not what was recorded; verify its volume.")
                             : removed.error();
        }
        first = first ? first : copied.error();
        const auto cause = copied.error().cause;
        if (cause == Cause::interrupted || cause == Cause::full || cause == Cause::alreadyThere) {
            return copied.error();
        }
    }
    return *first;
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
    type.takeIn = becomeCopy;
    return type;
}

} // namespace sober
