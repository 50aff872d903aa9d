#include "core/work/carry_along.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/catalogue_copy.h"
#include "core/catalogue/excerpt_store.h"
#include "core/remedy/carried_folder.h"
#include "core/work/carried_program.h"
#include "core/work/meet_catalogue.h"
#include "core/work/take_ledger.h"

#include <fmt/format.h>
#include <sys/statvfs.h>

#include <algorithm>

namespace sober {
namespace {

/// What a script that starts a program says: which program, and what it is given.
constexpr std::string_view startScript = R"sh(#!/bin/sh
# Opens the catalogue that lies beside this file: sh {name}
here="$(cd "$(dirname "$0")" && pwd)"
program="$here/Program/bin/{program}"
libraries="$here/Program/lib"
if [ -f "$program" ]; then
  if LD_LIBRARY_PATH="$libraries" "$program" --version >/dev/null 2>&1; then
    LD_LIBRARY_PATH="$libraries" exec "$program" {words} "$@"
  fi
  echo 'The program in this folder does not run on this machine; READ ME.txt says on which it does.' >&2
  LD_LIBRARY_PATH="$libraries" "$program" --version 2>&1 | tail -n 1 >&2
fi
if command -v {program} >/dev/null 2>&1; then
  exec {program} {words} "$@"
fi
echo 'Sober Archivist is not installed on this machine.' >&2
for package in "$here"/sober-archivist*.deb;
do
  [ -f "$package" ] && echo "Install it once:  sudo apt install \"$package\"" >&2
done
exit 1
)sh";

constexpr std::string_view readMe =
    R"(This folder holds the catalogue of an audio collection, as Sober Archivist keeps it.

Open it:   sh start                 (in a terminal, in this folder)
Without windows:   sh sober --help

It shows what is on every drive, with the drives away, and what was found out about it. What is looked at,
surveyed or decided while it is open is kept in this folder, and nothing on the machine. At home, take it in by
"Collection, Take another catalogue in...".
)";

constexpr std::string_view aboutTheProgram = R"(
The program lies in the folder Program and needs no installing. It runs on {}.
Some drives are set so that no program starts from them: copy this folder to another place then.
The terms of what it is made of lie in Program/terms.
)";

constexpr std::string_view aboutInstalling = R"(
The machine has to have the program installed.
)";

std::string script(std::string_view name, std::string_view program, std::string_view words) {
    std::string text(startScript);
    const auto fill = [&](std::string_view mark, std::string_view with) {
        for (auto at = text.find(mark); at != std::string::npos; at = text.find(mark, at)) {
            text.replace(at, mark.size(), with);
        }
    };
    fill("{name}", name);
    fill("{program}", program);
    fill("{words}", words);
    return text;
}

/// Nothing there that is not known here.
bool isKnown(const CatalogueMeeting& meeting) {
    const auto& decisions = meeting.decisions;
    return decisions.acceptances + decisions.standingLists + decisions.policies + meeting.deeds == 0 &&
           std::ranges::none_of(meeting.volumes, [](const VolumeMeeting& each) {
               return each.here.empty() || each.isNewerThere() ||
                      each.added + each.changed + each.moved + each.gone + each.examined > 0;
           });
}

/// Whether what is carried there is to be kept beside what takes its place: it has begun what only it can
/// end, or decided what waits. Fails where it may not be replaced.
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

/// Of the catalogue with its excerpts.
Result<std::uint64_t> bytesOf(const Catalogue& catalogue) {
    const auto excerpts = ExcerptStore(catalogue).figures();
    RETURN_IF_FAILED(excerpts);
    return sizeAt(catalogue.path()) + sizeAt(catalogue.path() + "-wal") + excerpts->bytes;
}

Outcome fill(CarriedFolder& folder, const Catalogue& catalogue, const CarriedProgram& program,
             const std::optional<BytePath>& package, RunControl& control, const ProgressSink& onProgress) {
    const auto carried = joinPath(folder.made(), "catalogue.sqlite");
    RETURN_IF_FAILED(saveCatalogue(catalogue, carried, control, onProgress));
    RETURN_IF_FAILED(ExcerptStore(catalogue).saveAs(excerptsPath(carried), control, onProgress));
    RETURN_IF_FAILED(folder.add("start", script("start", "sober-archivist", "--carried \"$here\"")));
    RETURN_IF_FAILED(folder.add("sober", script("sober", "sober", "--catalogue \"$here/catalogue.sqlite\"")));
    const bool hasProgram = !program.files.empty();
    RETURN_IF_FAILED(folder.add(
        "READ ME.txt", std::string(readMe) + (hasProgram ? fmt::format(aboutTheProgram, program.machines)
                                                         : std::string(aboutInstalling))));
    if (hasProgram) {
        RETURN_IF_FAILED(folder.addProgram(program.files, program.machines, control, onProgress));
    }
    return package ? folder.addCopy(*package) : done();
}

} // namespace

Result<CarryingNeeds> carryingNeeds(const Catalogue& catalogue) {
    const auto bytes = bytesOf(catalogue);
    RETURN_IF_FAILED(bytes);
    const auto program = programToCarry();
    return CarryingNeeds{*bytes, program ? program->bytes : 0};
}

Result<CarriedAlong> carryAlong(const Catalogue& catalogue, const BytePath& place, const CarriedMeans& means,
                                RunControl& control, const ProgressSink& onProgress) {
    const auto root = realPathOf(place);
    if (!root) {
        return Error{Cause::notFound, place, "There is no folder " + displayPath(place) + "."};
    }
    if (means.package && !nameOf(*means.package).ends_with(".deb")) {
        return Error{Cause::invalid, *means.package, displayPath(*means.package) + " is no Debian package."};
    }
    const auto folder = joinPath(*root, carriedFolderName);
    if (isWithin(catalogue.path(), folder)) {
        return Error{Cause::invalid, folder, "This catalogue is the one that is carried along there."};
    }
    const auto keepsBefore = mayReplace(catalogue, folder, control);
    RETURN_IF_FAILED(keepsBefore);
    const auto program = means.program ? programToCarry() : CarriedProgram();
    RETURN_IF_FAILED(program);
    const auto bytes = bytesOf(catalogue);
    RETURN_IF_FAILED(bytes);
    const auto needs = *bytes + program->bytes + (means.package ? sizeAt(*means.package) : 0);
    struct statvfs room {};
    if (statvfs(root->c_str(), &room) == 0 && std::uint64_t{room.f_bavail} * room.f_frsize < needs) {
        return Error{Cause::full, *root,
                     fmt::format("{} has no room for it: it takes {}, and {} are free.", displayPath(*root),
                                 humanBytes(needs),
                                 humanBytes(std::uint64_t{room.f_bavail} * room.f_frsize))};
    }
    auto made = CarriedFolder::begin(folder);
    RETURN_IF_FAILED(made);
    if (const auto filled = fill(*made, catalogue, *program, means.package, control, onProgress); !filled) {
        made->giveUp();
        return filled.error();
    }
    const auto leftOver = made->finish(*keepsBefore);
    if (!leftOver) {
        made->giveUp();
        return leftOver.error();
    }
    return CarriedAlong{folder, needs, means.program, means.package.has_value(), *leftOver};
}

} // namespace sober
