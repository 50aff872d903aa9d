#pragma once

#include "core/catalogue/action_kind.h"
#include "core/catalogue/records.h"

#include <optional>
#include <utility>

namespace sober {

/// How far an action has come. The journal: written and flushed before and after every change.
enum class ActionStep {
    refused = 0, ///< checked and not carried out; its sentence says why
    started = 1, ///< about to be carried out: the disk is in the state before or after, never between
    carriedOut = 2,
    takenBack = 3, ///< started, and found not done after an interruption
    undoStarted = 4,
    undone = 5,
};

/// What the catalogue says now of a holding's file.
struct CataloguedFile {
    std::uint64_t size = 0;
    Nanoseconds mtime = 0;

    bool operator==(const CataloguedFile&) const = default;
};

struct LedgerAction {
    std::int64_t id = 0;
    EntryId entry = 0;
    ActionKind kind = ActionKind::retire;
    HoldingId holding = 0;    ///< 0: a list, or a place that references point to
    BytePath place;           ///< absolute, where the file was
    BytePath aside;           ///< absolute, where it was set aside; "" where nothing was moved
    BytePath note;            ///< absolute, the trash's note about it
    BytePath made;            ///< absolute, where what replaces it is made; "" where nothing does
    Checksum128 madeChecksum; ///< of what replaces it
    std::uint64_t size = 0;
    Checksum128 checksum;
    ActionStep step = ActionStep::started;
    std::string sentence;
    /// Absolute. Of what is retired: the copy that stays; of what is replaced: where the new file comes to
    /// stand; "" otherwise.
    BytePath stays;
    /// It has ended, and its drive did not confirm that it outlasts a loss of power, or did not let something
    /// of ours be removed that is left.
    bool unflushed = false;
    std::string waits = {}; ///< why an interruption could not be settled yet; a sentence
    std::optional<CataloguedFile> catalogued = {}; ///< of its holding, where it was read from the ledger
};

/// Where an action's file stands once it is carried out.
const BytePath& standsAt(const LedgerAction& action);
/// Whether that is another place than before, so that references follow.
bool changesPlace(const LedgerAction& action);

/// How an action ended, and what the catalogue says of its holding or place since.
struct Settlement {
    LedgerAction action; ///< with its sentence
    ActionStep step = ActionStep::carriedOut;
    std::optional<HoldingState> state;                  ///< of its holding
    std::optional<std::pair<VolumeId, BytePath>> moved; ///< its holding is there now
    std::optional<bool> writtenOffPlace;                ///< whether the place is not missed
};

struct LedgerEntry {
    EntryId id = 0;
    Nanoseconds time = 0;
    Nanoseconds ended = 0; ///< 0: still going on, or interrupted
    std::string kind;      ///< "survey", "carry-out", "undo", "recovery"
    std::string summary;
    BytePath origin; ///< the catalogue it was done with; empty: this one
    std::optional<EntryId> undoes;
    std::uint64_t actions = 0;    ///< that belong to it
    std::uint64_t carriedOut = 0; ///< of those, done and not undone
    std::uint64_t undone = 0;
    std::uint64_t refused = 0;
    std::uint64_t bytes = 0; ///< of what was carried out or undone
};

/// The summary, and with which catalogue it was done where that is another one.
std::string inWords(const LedgerEntry& entry);

} // namespace sober
