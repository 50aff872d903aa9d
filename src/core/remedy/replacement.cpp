#include "core/remedy/replacement.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/evidence/file_content.h"
#include "core/remedy/file_changes.h"
#include "core/remedy/set_aside.h"
#include "core/remedy/take_in.h"

#include <fmt/format.h>
#include <sys/statvfs.h>

#include <cerrno>

namespace sober {
namespace {

constexpr std::uint64_t spare = 1 << 20; // bytes that stay free for what a file system adds

Error cannotPutBack(const LedgerAction& action, Cause cause, std::string_view why) {
    return {cause, action.place, fmt::format("{} cannot be put back: {}.", displayPath(action.place), why)};
}

/// The old file's record, read from its place, then the end of the undo.
Outcome recordPutBack(Catalogue& catalogue, const LedgerStore& ledger, const LedgerAction& action) {
    for (const auto& path : {action.made, action.note}) {
        if (const auto removed = removeFile(path); !removed) {
            return removed;
        }
    }
    RunControl control;
    const auto record = readAsItIs(action.place, control);
    if (!record) {
        return record.error();
    }
    if (const auto taken = takeIn(catalogue, action, *record); !taken) {
        return taken;
    }
    return ledger.finish(action, ActionStep::undone, HoldingState::present);
}

Outcome recordReplaced(Catalogue& catalogue, const LedgerStore& ledger, const LedgerAction& action,
                       const FileRecord& record) {
    if (const auto taken = takeIn(catalogue, action, record); !taken) {
        return taken;
    }
    return ledger.finish(action, ActionStep::carriedOut, HoldingState::present);
}

std::string nowhere(const LedgerAction& action) {
    return displayPath(action.place) +
           " is neither at its place nor in the trash: its volume seems to be away. "
           "This is looked at again at the next start.";
}

Result<std::string> saying(const Outcome& outcome, const LedgerAction& action, std::string_view words) {
    return outcome ? Result<std::string>(displayPath(action.place) + std::string(words))
                   : Result<std::string>(outcome.error());
}

Result<std::string> takeBack(const LedgerStore& ledger, const LedgerAction& action) {
    for (const auto& path : {action.made, action.note}) {
        if (!path.empty()) {
            if (const auto removed = removeFile(path); !removed) {
                return removed.error();
            }
        }
    }
    return saying(ledger.mark(action, ActionStep::takenBack), action,
                  " was not changed yet; the action still waits on the docket.");
}

Result<std::string> recoverForward(Catalogue& catalogue, const LedgerStore& ledger,
                                   const LedgerAction& action) {
    const bool isAside = !action.aside.empty() && isTaken(action.aside);
    if (!isAside) {
        return isTaken(action.place) ? takeBack(ledger, action) : Result<std::string>(nowhere(action));
    }
    RunControl control;
    if (!isTaken(action.place)) {
        const auto made = readAsItIs(action.made, control);
        if (!made || made->checksums.file != action.madeChecksum) {
            const auto moved = moveEntry(action.aside, action.place);
            return moved ? takeBack(ledger, action) : Result<std::string>(moved.error());
        }
        if (const auto moved = moveEntry(action.made, action.place); !moved) {
            return moved.error();
        }
    }
    const auto record = readAsItIs(action.place, control);
    if (!record) {
        return record.error();
    }
    if (record->checksums.file != action.madeChecksum) {
        // What lies in the trash under that name is another's: ours was never moved there.
        const auto removed = removeFile(action.made);
        return removed ? saying(ledger.mark(action, ActionStep::takenBack), action,
                                " was not changed yet; the action still waits on the docket.")
                       : Result<std::string>(removed.error());
    }
    return saying(recordReplaced(catalogue, ledger, action, *record), action,
                  " had been changed as decided; the ledger now says so.");
}

Result<std::string> recoverBackward(Catalogue& catalogue, const LedgerStore& ledger,
                                    const LedgerAction& action) {
    if (!isTaken(action.aside)) {
        return isTaken(action.place) ? saying(recordPutBack(catalogue, ledger, action), action,
                                              " had been put back as it was; the ledger now says so.")
                                     : Result<std::string>(nowhere(action));
    }
    if (!isTaken(action.place)) {
        if (!isTaken(action.made)) {
            return nowhere(action);
        }
        if (const auto moved = moveEntry(action.made, action.place); !moved) {
            return moved.error();
        }
    }
    return saying(ledger.mark(action, ActionStep::carriedOut), action,
                  " was not put back yet; what it was is still in the trash.");
}

} // namespace

BytePath placeForMade(const BytePath& place, EntryId entry, HoldingId holding) {
    const auto ending = endingOf(place);
    return joinPath(parentOf(place),
                    fmt::format(".sober-{}-{}{}{}", entry, holding, ending.empty() ? "" : ".", ending));
}

Outcome hasRoomFor(const BytePath& beside, std::uint64_t bytes) {
    struct statvfs space {};
    const BytePath folder(parentOf(beside));
    if (statvfs(folder.c_str(), &space) != 0) {
        return systemError(errno, "look for room in", folder);
    }
    const auto free = static_cast<std::uint64_t>(space.f_bavail) * space.f_frsize;
    if (free < bytes + spare) {
        return Error{Cause::full, beside,
                     fmt::format("{} needs {} beside it while it is made anew; {} are free.",
                                 displayPath(beside), humanBytes(bytes), humanBytes(free))};
    }
    return done();
}

Outcome replaceByMade(Catalogue& catalogue, const LedgerStore& ledger, LedgerAction& action,
                      const FileStamp& checked, const FileRecord& made, const CarryOutHooks& hooks) {
    const auto giveUp = [&](const Error& error) {
        removeFile(action.made).ok();
        removeFile(action.note).ok();
        ledger.mark(action, ActionStep::takenBack, error.sentence).ok();
        return Outcome(error);
    };
    if (const auto noted = noteAside(ledger, action, hooks); !noted) {
        removeFile(action.made).ok();
        return noted;
    }
    if (const auto moved = moveAside(action, checked); !moved) {
        return giveUp(moved.error());
    }
    hooks.onInstant(Instant::moved);
    if (const auto placed = moveEntry(action.made, action.place); !placed) {
        const auto back = moveEntry(action.aside, action.place);
        return back ? giveUp(placed.error()) : back;
    }
    hooks.onInstant(Instant::replaced);
    auto record = made;
    const auto stamp = stampAt(action.place);
    record.stamp = stamp ? *stamp : made.stamp; // the rename has changed its ctime
    const auto recorded = recordReplaced(catalogue, ledger, action, record);
    hooks.onInstant(Instant::recorded);
    return recorded;
}

Outcome undoReplacement(Catalogue& catalogue, const LedgerStore& ledger, const LedgerAction& action,
                        const CarryOutHooks& hooks) {
    const auto aside = stampAt(action.aside);
    if (!aside) {
        return cannotPutBack(action, Cause::notFound, "the trash no longer holds what it was");
    }
    if (!holdsWhatWentAside(action.aside, action)) {
        return cannotPutBack(action, Cause::changed, "what the trash holds under its name is another file");
    }
    RunControl control;
    const auto now = readContent(action.place, control);
    if (!now && now.error().cause != Cause::notFound) {
        return now.error();
    }
    if (now && now->checksums.file != action.madeChecksum) {
        return cannotPutBack(action, Cause::changed, "it was changed since");
    }
    if (const auto journalled = ledger.mark(action, ActionStep::undoStarted); !journalled) {
        return journalled;
    }
    hooks.onInstant(Instant::journalled);
    auto moved = now ? moveEntry(action.place, action.made) : done();
    if (!moved) {
        ledger.mark(action, ActionStep::carriedOut).ok();
        return moved;
    }
    hooks.onInstant(Instant::moved);
    moved = moveEntry(action.aside, action.place);
    if (!moved) {
        const auto back = now ? moveEntry(action.made, action.place) : done();
        if (back) {
            ledger.mark(action, ActionStep::carriedOut).ok();
        }
        return moved;
    }
    hooks.onInstant(Instant::replaced);
    const auto recorded = recordPutBack(catalogue, ledger, action);
    hooks.onInstant(Instant::recorded);
    return recorded;
}

Result<std::string> recoverReplacement(Catalogue& catalogue, const LedgerStore& ledger,
                                       const LedgerAction& action) {
    return action.step == ActionStep::started ? recoverForward(catalogue, ledger, action)
                                              : recoverBackward(catalogue, ledger, action);
}

} // namespace sober
