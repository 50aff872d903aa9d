#include "core/remedy/actions/reach.h"

#include "core/base/inner_path.h"
#include "core/base/presence.h"
#include "core/base/room.h"
#include "core/base/text.h"

#include <fmt/format.h>

namespace sober {
namespace {

constexpr std::uint64_t spare = 1 << 20; // bytes that stay free for what a file system adds

} // namespace

Refusal whyAway(const Holding& holding, const Volume& volume) {
    return volume.reaches(holding.path) ? std::nullopt
           : volume.atHand
               ? Refusal(fmt::format("What was mounted there on {} is away; nothing can be done there now.",
                                     volume.label))
               : Refusal(fmt::format("{} is away; nothing can be done there now.", volume.label));
}

Refusal whyOutOfReach(const Holding& holding, const Volume& volume) {
    if (holding.state != HoldingState::present) {
        return "It is not there any more.";
    }
    if (auto away = whyAway(holding, volume)) {
        return away;
    }
    if (const auto inner = innerPathOf(holding.path)) {
        return fmt::format("It lies inside {}, and archives are never written to. Copy it out first.",
                           displayPath(inner->archive));
    }
    // What is changed by way of a link is changed where it is, and nobody who knows it there would hear
    // of it.
    const auto path = joinPath(volume.root, holding.path);
    const auto real = volume.choices.followLinks ? realPathOf(path).value_or(path) : path;
    return real == path ? std::nullopt
                        : Refusal(fmt::format("It is reached by a link; it is {}. Decide on it there.",
                                              displayPath(real)));
}

Outcome hasRoomFor(const BytePath& beside, std::uint64_t bytes) {
    const auto room = roomAt(BytePath(parentOf(beside)));
    RETURN_IF_FAILED(room);
    if (room->free < bytes + spare) {
        return Error{Cause::full, beside,
                     fmt::format("{} needs {} beside it while it is made anew; {} are free.",
                                 displayPath(beside), humanBytes(bytes), humanBytes(room->free))};
    }
    return done();
}

Result<Proven> asRecordedWithRoom(DoingContext& context, const PlannedAction& planned, std::uint64_t bytes) {
    const auto stamp = context.prover.asRecorded(planned.path, planned.holding.checksum);
    const auto room = stamp ? hasRoomFor(planned.path, bytes) : Outcome(stamp.error());
    return room ? Result<Proven>(Proven{*stamp, std::nullopt}) : Result<Proven>(room.error());
}

Outcome isFree(const BytePath& place, std::string_view why) {
    if (const auto inner = innerPathOf(place)) {
        return refusedError(place,
                            displayPath(inner->archive) + " is an archive: those are never written to.");
    }
    switch (presenceOf(place)) {
    case Presence::gone:
        return done();
    case Presence::there:
        return Error{Cause::alreadyThere, place, std::string(why)};
    case Presence::unknown:
        break;
    }
    return refusedError(place, displayPath(place) + " cannot be looked at now: whether anything stands there "
                                                    "is not known. Look to its drive, then try again.");
}

} // namespace sober
