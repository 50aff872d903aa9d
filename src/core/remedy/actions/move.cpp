#include "core/remedy/actions/move.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/reach.h"

#include <sys/stat.h>

namespace sober {
namespace {

/// Whether the target, or the nearest folder above it that is there, is on the same file system.
bool isOnSameFilesystem(const BytePath& path, const BytePath& target) {
    struct stat here {};
    struct stat there {};
    BytePath folder(parentOf(target));
    while (stat(folder.c_str(), &there) != 0 && folder.size() > 1) {
        folder = BytePath(parentOf(folder));
    }
    return lstat(path.c_str(), &here) == 0 && here.st_dev == there.st_dev;
}

Result<Refusal> whyNotMove(ReviewContext& context, PlannedAction& planned, const Volume& volume) {
    if (auto gone = whyOutOfReach(planned.holding, volume)) {
        return gone;
    }
    const auto& target = planned.action.target;
    if (const auto onto = volumeHolding(context.volumes, target); !onto) {
        return Refusal(onto.error().sentence);
    }
    const auto free =
        context.freed.contains(target) ? done() : isFree(target, displayPath(target) + " is taken.");
    if (!free) {
        return Refusal(free.error().sentence);
    }
    if (!context.moveTargets.insert(target).second) {
        return Refusal(displayPath(target) + " is taken.");
    }
    if (!isOnSameFilesystem(planned.path, target)) {
        return Refusal("It would leave its file system; what is moved stays on it.");
    }
    context.freed.insert(planned.path);
    return Refusal();
}

Result<Proven> proveMovable(DoingContext& /*context*/, const PlannedAction& planned, LedgerAction& action) {
    const auto stamp = stampAt(planned.path);
    RETURN_IF_FAILED(stamp);
    if (stamp->size != planned.holding.size || stamp->mtime != planned.holding.mtime) {
        return refusedError(planned.path,
                            displayPath(planned.path) + " is not what was recorded; survey it again.");
    }
    action.made = planned.action.target;
    return Proven{*stamp, std::nullopt};
}

} // namespace

ActionType moveType() {
    ActionType type;
    type.turn = 3;
    type.forth = moveLegs;
    type.back = moveBackLegs;
    type.references = References::afterItWent;
    type.whyNot = whyNotMove;
    type.prove = proveMovable;
    return type;
}

} // namespace sober
