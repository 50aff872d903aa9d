#pragma once

#include "core/base/result.h"
#include "core/base/times.h"
#include "core/catalogue/records.h"

#include <span>
#include <vector>

namespace sober {

/// One file that was thrown away.
struct TrashedFile {
    BytePath file;           ///< absolute, where it lies now
    BytePath note;           ///< absolute, of what says where it was; "" where there is none
    BytePath from;           ///< absolute, where it was; "" where nobody knows
    Nanoseconds deleted = 0; ///< 0: not known
    std::uint64_t size = 0;
};

struct Trashed {
    std::vector<TrashedFile> files;  ///< newest first
    std::vector<BytePath> loneNotes; ///< of files that are not there
    std::vector<Error> unread;       ///< folders that could not be looked into: of another user, or damaged
};

/// What lies in the trash of this user and of these volumes: by the freedesktop.org Trash specification 1.0,
/// and as other systems leave it on cards (".Trashes"; "$RECYCLE.BIN" with its index records, whose form is
/// from memory). Folders that were thrown away whole are gone through. Nothing is opened but notes.
Trashed trashedFiles(std::span<const Volume> volumes);

/// What a note says: where the file was (as it is written there) and when it was deleted, local time.
struct TrashNote {
    BytePath path;
    Nanoseconds deleted = 0;
};
std::optional<TrashNote> parseTrashNote(std::string_view text);
/// The same of an index record of "$RECYCLE.BIN"; the path as that system writes it.
std::optional<TrashNote> parseRecycleRecord(std::string_view bytes);

} // namespace sober
