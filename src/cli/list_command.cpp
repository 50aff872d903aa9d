#include "cli/list_command.h"

#include "cli/answers.h"
#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/exchange/recorded_list.h"

#include <fmt/format.h>

#include <cstdio>
#include <map>

namespace sober::cli {
namespace {

constexpr std::uint64_t mostBytes = 1ULL << 30; // of a list: a hundred bytes for ten million files

Result<std::string> contentOf(const BytePath& path) {
    const auto file = openForReading(path);
    const auto stamp = file ? stampOf(*file, path) : Result<FileStamp>(file.error());
    if (!stamp) {
        return stamp.error();
    }
    if (stamp->size > mostBytes) {
        return Error{Cause::invalid, path, displayPath(path) + " is too large to be a list of checksums."};
    }
    std::vector<std::uint8_t> bytes(stamp->size);
    const auto got = readAt(*file, path, 0, bytes);
    return got ? Result<std::string>(
                     std::string(bytes.begin(), bytes.begin() + static_cast<std::ptrdiff_t>(*got)))
               : Result<std::string>(got.error());
}

Json pathList(const std::vector<BytePath>& paths) {
    Json json = Json::array();
    for (const auto& path : paths) {
        json.push_back(withPath(path));
    }
    return json;
}

} // namespace

int runListCheck(const CommonOptions& common, const BytePath& path, const BytePath& folder,
                 RunControl& control) {
    const auto text = contentOf(path);
    const auto list = text ? parseChecksumList(*text, path) : Result<ChecksumList>(text.error());
    if (!list) {
        return fail(list.error());
    }
    const auto parent = parentOf(path);
    const auto check = checkAgainst(*list,
                                    !folder.empty()  ? folder
                                    : parent.empty() ? BytePath(".")
                                                     : BytePath(parent),
                                    control);
    for (const auto& problem : list->problems) {
        fmt::print(stderr, "{}: {}\n", displayPath(path), problem.sentence);
    }
    for (const auto& error : check.unreadable) {
        fmt::print(stderr, "{}\n", error.sentence);
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
            fmt::print("differs  {}\n", displayPath(differing));
        }
        for (const auto& missing : check.missing) {
            fmt::print("missing  {}\n", displayPath(missing));
        }
        fmt::print("{} by {}: {} as listed, {} differ, {} missing, {} that could not be read\n",
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
    return exitDone;
}

} // namespace sober::cli
