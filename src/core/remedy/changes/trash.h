#pragma once

#include "core/base/result.h"
#include "core/base/times.h"
#include "core/remedy/changes/unflushed.h"

namespace sober {

/// The desktop trash by the freedesktop.org Trash specification, version 1.0.
struct Trash {
    BytePath folder; ///< holds "files" and "info"
    BytePath top;    ///< paths in its notes are relative to this; "" in the home trash: absolute
};

/// A place in a trash: the file's new name and the note about where it came from.
struct TrashSlot {
    BytePath file;
    BytePath note;
};

/// The trash that a file at `path` belongs into, made where it is not there yet: the home trash for
/// files on its own file system, else $topdir/.Trash/$uid where the administrator made .Trash as the
/// specification wants it, else $topdir/.Trash-$uid. Never another file system, so that retiring
/// copies nothing.
Result<Trash> trashFor(const BytePath& path, Unflushed& unflushed);

/// The trash to which a note belongs that lies, or is to lie, there.
Trash trashHolding(const BytePath& note);

/// A name that is free in the trash now and not among the `chosen` notes: the file's own, shortened where the
/// note's name would grow too long, with a number where it is taken.
TrashSlot freeSlot(const Trash& trash, std::string_view name, const std::set<BytePath>& chosen = {});

/// The content of the note: Path percent-encoded (RFC 2396), DeletionDate in local time.
std::string noteText(const Trash& trash, const BytePath& original, Nanoseconds time);

/// Whether what lies at `note` is a note about a file from that place, whenever it was written.
Result<bool> isNoteAbout(const BytePath& note, const BytePath& original);

} // namespace sober
