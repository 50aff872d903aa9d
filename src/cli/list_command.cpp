#include "cli/list_command.h"

#include "cli/answers.h"
#include "core/audit/refresh_findings.h"
#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/exchange/listed_baseline.h"
#include "core/exchange/recorded_list.h"

#include <fmt/format.h>

#include <cstdio>
#include <map>

namespace sober::cli {
namespace {

constexpr std::uint64_t mostBytes = 1ULL << 30; // of a list: a hundred bytes for ten million files

Json pathList(const std::vector<BytePath>& paths) {
    Json json = Json::array();
    for (const auto& path : paths) {
        json.push_back(withPath(path));
    }
    return json;
}

Result<ChecksumList> readList(const BytePath& path) {
    const auto text = wholeFile(path, mostBytes);
    return text ? parseChecksumList(*text, path) : Result<ChecksumList>(text.error());
}

/// Where a list's files are.
BytePath folderOf(const BytePath& list, const BytePath& given) {
    const auto parent = parentOf(list);
    return !given.empty() ? given : parent.empty() ? BytePath(".") : BytePath(parent);
}

void printProblems(const BytePath& path, const ChecksumList& list) {
    for (const auto& problem : list.problems) {
        sayOn(stderr, "{}: {}\n", displayPath(path), problem.sentence);
    }
}

} // namespace

int runListCheck(const CommonOptions& common, const BytePath& path, const BytePath& folder,
                 RunControl& control) {
    const auto list = readList(path);
    if (!list) {
        return fail(list.error());
    }
    const auto check = checkAgainst(*list, folderOf(path, folder), control);
    printProblems(path, *list);
    for (const auto& error : check.unreadable) {
        sayOn(stderr, "{}\n", error.sentence);
    }
    if (common.json) {
        printJson({{"schema", "sober.list-check/1"},
                   {"checksum", checksumWord(list->kind)},
                   {"good", check.good},
                   {"differing", pathList(check.differing)},
                   {"missing", pathList(check.missing)},
                   {"unreadable", check.unreadable.size()},
                   {"unusable_lines", list->problems.size()}});
    } else {
        for (const auto& differing : check.differing) {
            say("differs  {}\n", displayPath(differing));
        }
        for (const auto& missing : check.missing) {
            say("missing  {}\n", displayPath(missing));
        }
        say("{} by {}: {} as listed, {} differ, {} missing, {} that could not be read\n",
            counted(list->files.size(), "file"), checksumWord(list->kind), humanCount(check.good),
            humanCount(check.differing.size()), humanCount(check.missing.size()),
            humanCount(check.unreadable.size()));
    }
    return check.interrupted                                    ? exitInterrupted
           : check.unreadable.empty() && list->problems.empty() ? exitDone
                                                                : exitSomeUnread;
}

int runListWrite(const CommonOptions& common, const BytePath& folder, const std::string& kind,
                 RunControl& control) {
    const std::map<std::string, ListedChecksum> kinds{
        {"md5", ListedChecksum::md5},         {"sha1", ListedChecksum::sha1},
        {"sha256", ListedChecksum::sha256},   {"sha512", ListedChecksum::sha512},
        {"blake2b", ListedChecksum::blake2b}, {"sfv", ListedChecksum::crc32}};
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto files = recordedList(*catalogue, folder, kinds.at(kind), control);
    if (!files) {
        return fail(files.error());
    }
    const auto text = checksumListText(kinds.at(kind), *files);
    std::fwrite(text.data(), 1, text.size(), stdout);
    int code = exitDone;
    for (const auto& file : *files) {
        if (!canStandInList(kinds.at(kind), file.path)) {
            sayOn(stderr, "{} has a name that no line of an SFV list can hold; another --kind can.\n",
                  displayPath(file.path));
            code = exitSomeUnread;
        }
    }
    return code;
}

int runListTake(const CommonOptions& common, const BytePath& path, const BytePath& folder,
                RunControl& control) {
    const auto catalogue = openWorking(common);
    const auto list = catalogue ? readList(path) : Result<ChecksumList>(catalogue.error());
    const auto stamp = list ? stampAt(path) : Result<FileStamp>(list.error());
    if (!stamp) {
        return fail(stamp.error());
    }
    Result<ListedBaseline> taken = ListedBaseline{};
    {
        ProgressLine line(common.quiet);
        taken = takeListedBaseline(*catalogue, *list, folderOf(path, folder), stamp->mtime, control,
                                   [&](const Progress& progress) { line(progress); });
    }
    if (!taken) {
        return fail(taken.error());
    }
    if (const auto refreshed = refreshFindings(*catalogue); !refreshed) {
        return fail(refreshed.error());
    }
    printProblems(path, *list);
    if (common.json) {
        printJson({{"schema", "sober.list-taken/1"},
                   {"checksum", checksumWord(list->kind)},
                   {"as_listed", taken->asListed},
                   {"drifted", pathList(taken->drifted)},
                   {"missing", pathList(taken->missing)},
                   {"not_catalogued", pathList(taken->uncatalogued)},
                   {"unusable_lines", list->problems.size()},
                   {"errors", errorList(taken->errors)}});
    } else {
        for (const auto& drifted : taken->drifted) {
            say("drifted  {}\n", displayPath(drifted));
        }
        for (const auto& missing : taken->missing) {
            say("missing  {}\n", displayPath(missing));
        }
        say("{} by {}: {} as listed, {} drifted, {} missing, {} not catalogued\n",
            counted(list->files.size(), "file"), checksumWord(list->kind), humanCount(taken->asListed),
            humanCount(taken->drifted.size()), humanCount(taken->missing.size()),
            humanCount(taken->uncatalogued.size()));
    }
    printErrors(taken->errors);
    return taken->interrupted                                ? exitInterrupted
           : taken->errors.empty() && list->problems.empty() ? exitDone
                                                             : exitSomeUnread;
}

} // namespace sober::cli
