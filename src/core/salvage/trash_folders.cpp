#include "core/salvage/trash_folders.h"

#include "core/base/file_handle.h"
#include "core/base/folder_names.h"
#include "core/base/mounts.h"
#include "core/base/text.h"
#include "core/base/user_folders.h"

#include <fmt/format.h>
#include <sys/stat.h>

#include <algorithm>
#include <cstring>
#include <ctime>
#include <fcntl.h>
#include <iconv.h>
#include <memory>
#include <set>
#include <unistd.h>

namespace sober {
namespace {

constexpr std::uint64_t largestNote = 64U << 10;
constexpr int deepest = 32; // folders within a folder that was thrown away
constexpr std::string_view noteEnding = ".trashinfo";

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

/// UTF-16, little-endian, up to a zero; what is none becomes U+FFFD.
std::string fromUtf16(std::string_view bytes) {
    std::size_t length = 0;
    while (length + 1 < bytes.size() && (bytes[length] != 0 || bytes[length + 1] != 0)) {
        length += 2;
    }
    std::string units(bytes.substr(0, length));
    std::string text(2 * length, '\0'); // three bytes for two at most
    auto* from = units.data();
    auto* to = text.data();
    auto unread = units.size();
    auto room = text.size();
    auto* const converter = iconv_open("UTF-8", "UTF-16LE");
    if (converter == reinterpret_cast<iconv_t>(-1)) { // NOLINT: that is how it fails
        return {};
    }
    while (unread >= 2 && iconv(converter, &from, &unread, &to, &room) == static_cast<std::size_t>(-1)) {
        const std::string_view unknown = "\xEF\xBF\xBD";
        if (unread < 2 || room < unknown.size()) {
            break;
        }
        to = std::ranges::copy(unknown, to).out;
        room -= unknown.size();
        from += 2;
        unread -= 2;
    }
    iconv_close(converter);
    text.resize(text.size() - room);
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
