#include "core/transfer/target_place.h"

#include "core/base/mounts.h"
#include "core/base/room.h"
#include "core/base/text.h"
#include "core/base/trash_places.h"
#include "core/catalogue/volumes.h"
#include "core/players/resolver.h"
#include "core/survey/volume_identity.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

/// The folder itself or the nearest above it that is there.
BytePath nearestThere(BytePath folder) {
    while (folder.size() > 1 && !isTaken(folder)) {
        folder = BytePath(parentOf(folder));
    }
    return folder;
}

Outcome standsApart(const TargetPlace& place, std::span<const Volume> volumes, const BytePath& there,
                    std::span<const Mount> mounts) {
    for (const auto& volume : volumes) {
        if (volume.root != place.folder && isWithin(volume.root, place.folder)) {
            return refusedError(
                place.folder, fmt::format("{} holds the volume {} ({}). Choose that, or a folder beside it.",
                                          displayPath(place.folder), volume.label, displayPath(volume.root)));
        }
    }
    const auto* other = place.volume ? nullptr : sameByAnotherWay(volumes, there, mounts);
    return other == nullptr || isWithin(other->root, there)
               ? done()
               : Outcome(refusedError(place.folder,
                                      fmt::format("{} is the volume {} ({}) by another way. Name it there.",
                                                  displayPath(place.folder), other->label,
                                                  displayPath(other->root))));
}

} // namespace

Result<TargetPlace> targetPlaceAt(const Catalogue& catalogue, const BytePath& folder,
                                  const std::string& rules, std::optional<std::uint64_t> room) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    TargetPlace place;
    place.folder = Resolver({}).canonical(folder);
    place.isThere = isFolder(place.folder);
    const auto there = nearestThere(place.folder);
    if (!isFolder(there)) {
        return Error{Cause::wrongKind, folder,
                     displayPath(there) + " is a file; a transfer leads to a folder."};
    }
    if (isInTrash(place.folder)) {
        return refusedError(folder, displayPath(folder) + " lies in a trash.");
    }
    if (const auto on = volumeHolding(*volumes, place.folder)) {
        place.volume = **on;
    }
    const auto mounts = mountsNow();
    RETURN_IF_FAILED(standsApart(place, *volumes, there, mounts));
    const auto identity = identityOf(there, mounts);
    const auto mount = mountOf(mounts, there);
    place.filesystem = !identity.filesystem.empty() ? identity.filesystem
                       : mount                      ? mount->point + " " + mount->type
                                                    : std::string();
    const auto space = roomAt(there);
    RETURN_IF_FAILED(space);
    place.rules = rules == "auto" ? &targetRulesFor(filesystemKindAt(there, mounts), space->clusters)
                                  : targetRulesNamed(rules);
    if (place.rules == nullptr) {
        return Error{Cause::invalid, {}, fmt::format("There are no rules \"{}\" for names.", rules)};
    }
    place.isRoot = rules != "auto" || room || (mount && mount->point == place.folder);
    // Of a device that is not here only its rules are known.
    place.allocationUnit = room ? place.rules->allocationUnit : space->allocationUnit;
    place.free = room.value_or(space->free);
    return place;
}

} // namespace sober
