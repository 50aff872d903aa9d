#include "core/work/carry_along.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/catalogue_copy.h"
#include "core/catalogue/excerpt_store.h"
#include "core/remedy/carried_folder.h"
#include "core/work/meet_catalogue.h"

#include <fmt/format.h>
#include <sys/statvfs.h>

#include <algorithm>

namespace sober {
namespace {

constexpr std::string_view startScript = R"sh(#!/bin/sh
# Opens the catalogue that lies beside this file: sh start
here="$(cd "$(dirname "$0")" && pwd)"
if command -v sober-archivist >/dev/null 2>&1; then
  exec sober-archivist --carried "$here" "$@"
fi
echo "Sober Archivist is not installed on this machine." >&2
for package in "$here"/sober-archivist*.deb;
do
  [ -f "$package" ] && echo "Install it once:  sudo apt install \"$package\"" >&2
done
exit 1
)sh";

constexpr std::string_view readMe =
    R"(This folder holds the catalogue of an audio collection, as Sober Archivist keeps it.

Open it:   sh start      (in a terminal, in this folder)

It shows what is on every drive, with the drives away, and what was found out about it. What is looked at,
surveyed or decided while it is open is kept in this folder, and nothing on the machine. At home, take it in by
"Collection, Take another catalogue in...".
)";

/// Nothing there that is not known here.
bool isKnown(const CatalogueMeeting& meeting) {
    const auto& decisions = meeting.decisions;
    return decisions.acceptances + decisions.standingLists + decisions.policies == 0 &&
           std::ranges::none_of(meeting.volumes, [](const VolumeMeeting& each) {
               return each.here.empty() || each.isNewerThere() || each.added + each.examined > 0;
           });
}

/// Whether what is carried there is to be kept beside what takes its place: it has done things of its own,
/// which only it can take back. Fails where it may not be replaced.
Result<bool> mayReplace(const Catalogue& catalogue, const BytePath& folder, RunControl& control) {
    const auto carried = joinPath(folder, "catalogue.sqlite");
    if (!isTaken(folder)) {
        return false;
    }
    if (!isTaken(carried)) {
        return Error{Cause::alreadyThere, folder,
                     displayPath(folder) +
                         " is there and holds no catalogue. Rename it, or choose another place."};
    }
    if (const auto unused = Catalogue::openForWriting(carried); !unused) { // and brought up to date
        return unused.error();
    }
    const auto meeting = compareCatalogue(catalogue, carried, control);
    RETURN_IF_FAILED(meeting);
    if (!isKnown(*meeting)) {
        return Error{
            Cause::refused, carried,
            "The catalogue in " + displayPath(folder) +
                " knows what this one does not. Take it in first (Collection, Take another catalogue "
                "in…) or give its folder another name, then carry this one along again."};
    }
    const auto other = Catalogue::openForReading(carried);
    return other ? hasDeedsOfItsOwn(*other, catalogue) : Result<bool>(other.error());
}

std::uint64_t sizeAt(const BytePath& path) {
    const auto stamp = stampAt(path);
    return stamp ? stamp->size : 0;
}

Outcome fill(CarriedFolder& folder, const Catalogue& catalogue, const std::optional<BytePath>& package,
             RunControl& control, const ProgressSink& onProgress) {
    const auto carried = joinPath(folder.made(), "catalogue.sqlite");
    auto outcome = saveCatalogue(catalogue, carried, control, onProgress);
    outcome = outcome ? ExcerptStore(catalogue).saveAs(excerptsPath(carried), control, onProgress) : outcome;
    outcome = outcome ? folder.add("start", startScript) : outcome;
    outcome = outcome ? folder.add("READ ME.txt", readMe) : outcome;
    return outcome && package ? folder.addCopy(*package) : outcome;
}

} // namespace

Result<std::uint64_t> carryingNeeds(const Catalogue& catalogue, const std::optional<BytePath>& package) {
    const auto excerpts = ExcerptStore(catalogue).figures();
    RETURN_IF_FAILED(excerpts);
    return sizeAt(catalogue.path()) + sizeAt(catalogue.path() + "-wal") + excerpts->bytes +
           (package ? sizeAt(*package) : 0);
}

Result<CarriedAlong> carryAlong(const Catalogue& catalogue, const BytePath& place,
                                const std::optional<BytePath>& package, RunControl& control,
                                const ProgressSink& onProgress) {
    const auto root = realPathOf(place);
    if (!root) {
        return Error{Cause::notFound, place, "There is no folder " + displayPath(place) + "."};
    }
    if (package && !nameOf(*package).ends_with(".deb")) {
        return Error{Cause::invalid, *package, displayPath(*package) + " is no Debian package."};
    }
    const auto folder = joinPath(*root, carriedFolderName);
    if (isWithin(catalogue.path(), folder)) {
        return Error{Cause::invalid, folder, "This catalogue is the one that is carried along there."};
    }
    const auto keepsBefore = mayReplace(catalogue, folder, control);
    RETURN_IF_FAILED(keepsBefore);
    const auto needs = carryingNeeds(catalogue, package);
    RETURN_IF_FAILED(needs);
    struct statvfs room {};
    if (statvfs(root->c_str(), &room) == 0 && std::uint64_t{room.f_bavail} * room.f_frsize < *needs) {
        return Error{Cause::full, *root,
                     fmt::format("{} has no room for it: it takes {}, and {} are free.", displayPath(*root),
                                 humanBytes(*needs),
                                 humanBytes(std::uint64_t{room.f_bavail} * room.f_frsize))};
    }
    auto made = CarriedFolder::begin(folder);
    RETURN_IF_FAILED(made);
    if (const auto filled = fill(*made, catalogue, package, control, onProgress); !filled) {
        made->giveUp();
        return filled.error();
    }
    const auto leftOver = made->finish(*keepsBefore);
    if (!leftOver) {
        made->giveUp();
        return leftOver.error();
    }
    return CarriedAlong{folder, *needs, package.has_value(), *leftOver};
}

} // namespace sober
