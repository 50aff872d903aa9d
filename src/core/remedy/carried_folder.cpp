#include "core/remedy/carried_folder.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/remedy/changes/file_changes.h"

#include <algorithm>
#include <array>
#include <filesystem>
#include <map>
#include <set>
#include <sstream>
#include <unistd.h>

namespace sober {
namespace {

namespace fs = std::filesystem;

/// What we put into such a folder, and what using it leaves there, each by its name.
constexpr std::array ours{"catalogue.sqlite",
                          "catalogue.sqlite-wal",
                          "catalogue.sqlite-shm",
                          "catalogue.sqlite.lock",
                          "catalogue.sqlite.excerpts",
                          "catalogue.sqlite.excerpts-wal",
                          "catalogue.sqlite.excerpts-shm",
                          "start",
                          "sober",
                          "READ ME.txt",
                          "settings/sober-archivist/sober-archivist.ini",
                          "settings/sober-archivist/sober-archivist.ini.lock"};

bool isPackage(std::string_view name) {
    return name.starts_with("sober-archivist") && name.ends_with(".deb");
}

constexpr std::string_view listName = "files.txt";

/// Qt finds its plugins from where the program stands.
constexpr std::string_view qtPlaces = "[Paths]\nPrefix=..\nPlugins=plugins\nTranslations=translations\n";

/// The folders that names lie in, the deepest first.
std::vector<std::string> foldersOf(std::span<const std::string> names) {
    std::set<std::string, std::greater<>> folders;
    for (const auto& name : names) {
        for (auto folder = parentOf(name); !folder.empty(); folder = parentOf(folder)) {
            folders.emplace(folder);
        }
    }
    return {folders.begin(), folders.end()};
}

void removeProgram(const BytePath& program, Unflushed& unflushed) {
    const auto names = carriedNames(program);
    const auto root = realPathOf(program).value_or(program);
    for (const auto& name : names) {
        // Not by way of a link that somebody put there.
        const auto folder = realPathOf(joinPath(program, parentOf(name)));
        if (folder && isWithin(*folder, root)) {
            removeFile(joinPath(program, name), unflushed).ok();
        }
    }
    removeFile(joinPath(program, listName), unflushed).ok();
    for (const auto& folder : foldersOf(names)) {
        removeEmptyFolder(joinPath(program, folder), unflushed);
    }
    removeEmptyFolder(program, unflushed);
}

/// False where something of others is left in it.
bool removeOurs(const BytePath& folder) {
    Unflushed unflushed;
    std::error_code trouble;
    for (const auto& entry : fs::directory_iterator(folder, trouble)) {
        if (isPackage(entry.path().filename().string())) {
            removeFile(entry.path().string(), unflushed).ok();
        }
    }
    for (const auto* name : ours) {
        removeFile(joinPath(folder, name), unflushed).ok();
    }
    removeProgram(joinPath(folder, carriedProgramName), unflushed);
    for (const auto* name : {"settings/sober-archivist", "settings"}) {
        removeEmptyFolder(joinPath(folder, name), unflushed);
    }
    return removeEmptyFolder(folder, unflushed);
}

BytePath freeName(const BytePath& path, const std::string& ending) {
    auto name = path + ending;
    for (int number = 2; isTaken(name); ++number) {
        name = path + ending + " " + std::to_string(number);
    }
    return name;
}

} // namespace

std::vector<std::string> carriedNames(const BytePath& program) {
    const auto text = wholeFile(joinPath(program, listName), 1 << 20);
    std::istringstream list(text ? *text : std::string());
    std::vector<std::string> names;
    for (std::string name; std::getline(list, name);) {
        const bool isBelow =
            !name.empty() && name.front() != '/' && ("/" + name + "/").find("/../") == std::string::npos;
        if (isBelow) {
            names.push_back(name);
        }
    }
    return names;
}

Result<CarriedFolder> CarriedFolder::begin(const BytePath& folder) {
    Unflushed unflushed;
    auto made = freeName(folder, " being written");
    const auto outcome = makeFolder(made, 0700, unflushed);
    return outcome ? Result(CarriedFolder(folder, std::move(made))) : Result<CarriedFolder>(outcome.error());
}

Outcome CarriedFolder::add(std::string_view name, std::string_view content) {
    Unflushed unflushed;
    const auto place = joinPath(made_, name);
    const auto written = writeNewFile(place, content, unflushed);
    return written ? flushFile(place) : written;
}

Outcome CarriedFolder::addCopy(const BytePath& file) {
    Unflushed unflushed;
    const auto place = joinPath(made_, nameOf(file));
    const auto copied = copyToNew(file, place, unflushed);
    return copied ? flushFile(place) : copied;
}

Outcome CarriedFolder::addProgram(std::span<const CarriedFile> files, std::string_view machines,
                                  RunControl& control, const ProgressSink& onProgress) {
    Unflushed unflushed;
    const auto program = joinPath(made_, carriedProgramName);
    // What is written, and not copied: a program that was carried already has it among its files.
    const std::map<std::string, std::string_view> written{{"bin/qt.conf", qtPlaces},
                                                          {std::string(carriedMachinesName), machines}};
    std::vector<std::string> names;
    for (const auto& [name, content] : written) {
        names.push_back(name);
    }
    for (const auto& file : files) {
        if (!written.contains(file.as)) {
            names.push_back(file.as);
        }
    }
    for (const auto& folder : foldersOf(names)) {
        RETURN_IF_FAILED(makeFolder(joinPath(program, folder), 0700, unflushed));
    }
    // The list first: what is half made can be cleared away by it.
    std::string list;
    for (const auto& name : names) {
        list += name + "\n";
    }
    std::vector<BytePath> made{joinPath(program, listName)};
    RETURN_IF_FAILED(writeNewFile(made.back(), list, unflushed));
    for (const auto& [name, content] : written) {
        made.push_back(joinPath(program, name));
        RETURN_IF_FAILED(writeNewFile(made.back(), content, unflushed));
    }
    Progress progress;
    progress.totalFiles = files.size();
    for (const auto& file : files) {
        progress.at = displayPath(file.from);
        onProgress(progress);
        if (!control.proceed()) {
            return Error{Cause::interrupted, made_, "Carrying along was interrupted."};
        }
        ++progress.files;
        if (written.contains(file.as)) {
            continue;
        }
        made.push_back(joinPath(program, file.as));
        RETURN_IF_FAILED(copyToNew(file.from, made.back(), unflushed));
    }
    return flushFiles(made);
}

Result<BytePath> CarriedFolder::finish(bool keepsBefore) {
    Unflushed unflushed;
    BytePath before;
    if (isTaken(folder_)) {
        before = freeName(folder_, " before");
        RETURN_IF_FAILED(moveEntry(folder_, before, unflushed));
    }
    if (const auto moved = moveEntry(made_, folder_, unflushed); !moved) {
        if (!before.empty()) {
            moveEntry(before, folder_, unflushed).ok();
        }
        return moved.error();
    }
    unflushed.flush();
    return before.empty() || (!keepsBefore && removeOurs(before)) ? BytePath() : before;
}

void CarriedFolder::giveUp() {
    removeOurs(made_);
}

} // namespace sober
