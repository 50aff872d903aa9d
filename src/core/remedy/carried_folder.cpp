#include "core/remedy/carried_folder.h"

#include "core/remedy/changes/file_changes.h"

#include <array>
#include <filesystem>
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
                          "READ ME.txt",
                          "settings/sober-archivist/sober-archivist.ini",
                          "settings/sober-archivist/sober-archivist.ini.lock"};

bool isPackage(std::string_view name) {
    return name.starts_with("sober-archivist") && name.ends_with(".deb");
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
    for (const auto* name : {"settings/sober-archivist", "settings"}) {
        rmdir(joinPath(folder, name).c_str()); // where it is empty
    }
    return rmdir(folder.c_str()) == 0;
}

BytePath freeName(const BytePath& path, const std::string& ending) {
    auto name = path + ending;
    for (int number = 2; isTaken(name); ++number) {
        name = path + ending + " " + std::to_string(number);
    }
    return name;
}

} // namespace

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
