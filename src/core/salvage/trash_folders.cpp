#include "core/salvage/trash_folders.h"

#include "core/base/file_handle.h"
#include "core/base/mounts.h"
#include "core/base/text.h"
#include "core/base/user_folders.h"

#include <fmt/format.h>
#include <sys/stat.h>

#include <algorithm>
#include <cstring>
#include <ctime>
#include <dirent.h>
#include <fcntl.h>
#include <memory>
#include <set>
#include <unistd.h>

namespace sober {
namespace {

constexpr std::uint64_t largestNote = 64U << 10;
constexpr int deepest = 32; // folders within a folder that was thrown away
constexpr std::string_view noteEnding = ".trashinfo";

struct CloseFolder {
    void operator()(DIR* folder) const { closedir(folder); }
};

Result<std::vector<std::string>> namesIn(const BytePath& path) {
    auto folder = openFolder(AT_FDCWD, path.c_str(), path, false);
    if (!folder) {
        return folder.error();
    }
    const std::unique_ptr<DIR, CloseFolder> listing(fdopendir(folder->get()));
    if (!listing) {
        return systemError(errno, "list", path);
    }
    folder->release();
    std::vector<std::string> names;
    while (const auto* const entry = readdir(listing.get())) {
        const std::string_view name(entry->d_name);
        if (name != "." && name != "..") {
            names.emplace_back(name);
        }
    }
    std::ranges::sort(names);
    return names;
}

class Collecting {
  public:
    Trashed run(std::span<const Volume> volumes) {
        specified(joinPath(dataHome(), "Trash"), {});
        std::set<BytePath> tops;
        const auto mounts = mountsNow();
        for (const auto& volume : volumes) {
            if (!volume.atHand) {
                continue;
            }
            tops.insert(volume.root);
            if (const auto mount = mountOf(mounts, volume.root)) {
                tops.insert(mount->point);
            }
        }
        for (const auto& top : tops) {
            ofTop(top);
        }
        std::ranges::stable_sort(trashed_.files, std::ranges::greater{}, &TrashedFile::deleted);
        return std::move(trashed_);
    }

  private:
    void ofTop(const BytePath& top) {
        const auto user = std::to_string(getuid());
        specified(joinPath(joinPath(top, ".Trash"), user), top);
        specified(joinPath(top, ".Trash-" + user), top);
        // Other systems know users by other numbers; a card's owner is whoever holds it.
        const auto trashes = joinPath(top, ".Trashes");
        for (const auto& name : names(trashes)) {
            goThrough(joinPath(trashes, name), {}, {}, 0, 0);
        }
        const auto bin = joinPath(top, "$RECYCLE.BIN");
        for (const auto& owner : names(bin)) {
            recycled(joinPath(bin, owner), top);
        }
    }

    /// A folder that is not there is no trash; one that cannot be looked into is said.
    std::vector<std::string> names(const BytePath& folder) {
        if (!isFolder(folder)) {
            return {};
        }
        auto found = namesIn(folder);
        if (!found) {
            trashed_.unread.push_back(found.error());
            return {};
        }
        return std::move(*found);
    }

    static std::optional<std::string> textOf(const BytePath& note) {
        auto text = wholeFile(note, largestNote);
        return text ? std::optional(std::move(*text)) : std::nullopt;
    }

    /// "files" and "info" of the specification.
    void specified(const BytePath& trash, const BytePath& top) {
        const auto files = joinPath(trash, "files");
        const auto info = joinPath(trash, "info");
        for (const auto& name : names(files)) {
            const auto note = joinPath(info, name + std::string(noteEnding));
            const auto text = textOf(note);
            const auto read = text ? parseTrashNote(*text) : std::nullopt;
            const auto from = !read                         ? BytePath()
                              : read->path.starts_with('/') ? read->path
                              : top.empty()                 ? BytePath()
                                                            : joinPath(top, read->path);
            goThrough(joinPath(files, name), text ? note : BytePath(), from, read ? read->deleted : 0, 0);
        }
        for (const auto& name : names(info)) {
            const auto file = joinPath(files, stemOfNote(name));
            if (name.ends_with(noteEnding) && !isTaken(file)) {
                trashed_.loneNotes.push_back(joinPath(info, name));
            }
        }
    }

    static std::string stemOfNote(const std::string& name) {
        return name.substr(0, name.size() - std::min(name.size(), noteEnding.size()));
    }

    /// "$R" and what follows is a file, "$I" and the same the record about it.
    void recycled(const BytePath& folder, const BytePath& top) {
        for (const auto& name : names(folder)) {
            if (!name.starts_with("$R")) {
                if (name.starts_with("$I") && !isTaken(joinPath(folder, "$R" + name.substr(2)))) {
                    trashed_.loneNotes.push_back(joinPath(folder, name));
                }
                continue;
            }
            const auto note = joinPath(folder, "$I" + name.substr(2));
            const auto text = textOf(note);
            const auto record = text ? parseRecycleRecord(*text) : std::nullopt;
            goThrough(joinPath(folder, name), text ? note : BytePath(),
                      record ? placeOn(top, record->path) : BytePath(), record ? record->deleted : 0, 0);
        }
    }

    /// A path of another machine: behind its drive's letter it is one of this volume.
    static BytePath placeOn(const BytePath& top, std::string_view path) {
        const bool hasLetter = path.size() > 2 && path[1] == ':' && path[2] == '\\';
        if (!hasLetter) {
            return {};
        }
        BytePath within(path.substr(3));
        std::ranges::replace(within, '\\', '/');
        return joinPath(top, within);
    }

    void goThrough(const BytePath& path, const BytePath& note, const BytePath& from, Nanoseconds deleted,
                   int depth) {
        struct stat status {};
        if (lstat(path.c_str(), &status) != 0) {
            trashed_.unread.push_back(systemError(errno, "look at", path));
            return;
        }
        if (S_ISREG(status.st_mode)) {
            trashed_.files.push_back({path, note, from, deleted, static_cast<std::uint64_t>(status.st_size)});
        } else if (S_ISDIR(status.st_mode) && depth < deepest) {
            for (const auto& name : names(path)) {
                goThrough(joinPath(path, name), {}, from.empty() ? BytePath() : joinPath(from, name), deleted,
                          depth + 1);
            }
        }
    }

    Trashed trashed_;
};

/// UTF-16, little-endian, up to a zero.
std::string fromUtf16(std::string_view bytes) {
    std::string text;
    const auto unit = [&](std::size_t at) {
        return static_cast<std::uint32_t>(static_cast<std::uint8_t>(bytes[at])) |
               static_cast<std::uint32_t>(static_cast<std::uint8_t>(bytes[at + 1])) << 8;
    };
    for (std::size_t at = 0; at + 1 < bytes.size(); at += 2) {
        auto code = unit(at);
        if (code == 0) {
            break;
        }
        if (code >= 0xD800 && code < 0xDC00 && at + 3 < bytes.size()) {
            const auto low = unit(at + 2);
            if (low >= 0xDC00 && low < 0xE000) {
                code = 0x10000 + ((code - 0xD800) << 10) + (low - 0xDC00);
                at += 2;
            }
        }
        if (code >= 0xD800 && code < 0xE000) {
            code = 0xFFFD;
        }
        if (code < 0x80) {
            text.push_back(static_cast<char>(code));
        } else if (code < 0x800) {
            text += {static_cast<char>(0xC0 | code >> 6), static_cast<char>(0x80 | (code & 63))};
        } else if (code < 0x10000) {
            text += {static_cast<char>(0xE0 | code >> 12), static_cast<char>(0x80 | (code >> 6 & 63)),
                     static_cast<char>(0x80 | (code & 63))};
        } else {
            text += {static_cast<char>(0xF0 | code >> 18), static_cast<char>(0x80 | (code >> 12 & 63)),
                     static_cast<char>(0x80 | (code >> 6 & 63)), static_cast<char>(0x80 | (code & 63))};
        }
    }
    return text;
}

Nanoseconds localTimeFrom(std::string_view text) {
    std::tm time{};
    if (strptime(std::string(text).c_str(), "%Y-%m-%dT%H:%M:%S", &time) == nullptr) {
        return 0;
    }
    time.tm_isdst = -1;
    const auto seconds = std::mktime(&time);
    return seconds < 0 ? 0 : static_cast<Nanoseconds>(seconds) * 1'000'000'000;
}

} // namespace

Trashed trashedFiles(std::span<const Volume> volumes) {
    return Collecting().run(volumes);
}

std::optional<TrashNote> parseTrashNote(std::string_view text) {
    if (!text.starts_with("[Trash Info]")) {
        return std::nullopt;
    }
    TrashNote note;
    while (!text.empty()) {
        const auto line = text.substr(0, text.find('\n'));
        text.remove_prefix(std::min(text.size(), line.size() + 1));
        if (line.starts_with("Path=") && note.path.empty()) {
            note.path = percentDecoded(line.substr(5));
        } else if (line.starts_with("DeletionDate=") && note.deleted == 0) {
            note.deleted = localTimeFrom(line.substr(13));
        }
    }
    const bool makesSense = !note.path.empty() && note.path.find('\0') == std::string::npos;
    return makesSense ? std::optional(std::move(note)) : std::nullopt;
}

std::optional<TrashNote> parseRecycleRecord(std::string_view bytes) {
    constexpr std::size_t head = 24;
    if (bytes.size() < head + 4) {
        return std::nullopt;
    }
    std::uint64_t version = 0;
    std::uint64_t time = 0;
    std::memcpy(&version, bytes.data(), 8);
    std::memcpy(&time, bytes.data() + 16, 8);
    if (version != 1 && version != 2) {
        return std::nullopt;
    }
    TrashNote note;
    note.path = fromUtf16(bytes.substr(version == 1 ? head : head + 4));
    constexpr std::uint64_t epoch = 116'444'736'000'000'000; // 1970 in steps of 100 ns since 1601
    constexpr std::uint64_t latest = epoch + 92'000'000'000'000'000;
    note.deleted = time > epoch && time < latest ? static_cast<Nanoseconds>((time - epoch) * 100) : 0;
    return note.path.empty() ? std::nullopt : std::optional(std::move(note));
}

} // namespace sober
