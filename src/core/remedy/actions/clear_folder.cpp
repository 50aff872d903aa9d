#include "core/remedy/actions/clear_folder.h"

#include "core/base/folder_names.h"
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/remedy/actions/legs.h"

#include <sys/stat.h>

#include <cerrno>

namespace sober {
namespace {

/// Done where there are folders and nothing else; Cause::changed where there is more.
Outcome holdsNoFile(const BytePath& folder) {
    struct stat here {};
    if (lstat(folder.c_str(), &here) != 0) {
        return systemError(errno, "look at", folder);
    }
    if (!S_ISDIR(here.st_mode)) {
        return Error{Cause::changed, folder, displayPath(folder) + " is no folder any more."};
    }
    const auto names = namesIn(folder);
    RETURN_IF_FAILED(names);
    for (const auto& name : *names) {
        const auto path = joinPath(folder, name);
        struct stat status {};
        if (lstat(path.c_str(), &status) != 0) {
            return systemError(errno, "look at", path);
        }
        if (!S_ISDIR(status.st_mode) || status.st_dev != here.st_dev) {
            return Error{Cause::changed, folder, displayPath(folder) + " is not empty; it stays."};
        }
        RETURN_IF_FAILED(holdsNoFile(path));
    }
    return done();
}

Result<Refusal> whyNotClear(ReviewContext& /*context*/, PlannedAction& planned, const Volume& /*volume*/) {
    return presenceOf(planned.path) == Presence::there
               ? Refusal()
               : Refusal(displayPath(planned.path) + " cannot be looked at now.");
}

Result<Proven> proveEmpty(DoingContext& /*context*/, const PlannedAction& planned, LedgerAction& /*action*/) {
    const auto stamp = stampAt(planned.path);
    const auto empty = stamp ? holdsNoFile(planned.path) : Outcome(stamp.error());
    return empty ? Result(Proven{*stamp, std::nullopt}) : Result<Proven>(empty.error());
}

} // namespace

ActionType clearFolderType() {
    ActionType type;
    type.turn = 5; // once everything has gone out of it
    type.forth = setAsideLegs;
    type.back = putBackLegs;
    type.whyNot = whyNotClear;
    type.prove = proveEmpty;
    type.holds = holdsNoFile;
    return type;
}

} // namespace sober
