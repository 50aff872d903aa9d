#pragma once

#include "core/catalogue/action_kind.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <optional>
#include <span>
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
    std::optional<EntryId> undoes;
    std::uint64_t actions = 0;    ///< that belong to it
    std::uint64_t carriedOut = 0; ///< of those, done and not undone
    std::uint64_t undone = 0;
    std::uint64_t refused = 0;
    std::uint64_t bytes = 0; ///< of what was carried out or undone
};

/// The append-only history and the journal in it. Each call that writes is one flushed transaction.
class LedgerStore {
  public:
    explicit LedgerStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    Result<EntryId> open(const std::string& kind, const std::string& summary,
                         std::optional<EntryId> undoes) const;
    Outcome close(EntryId entry, const std::string& summary) const;

    /// Writes actions down before they are carried out, all or none; their ids are set.
    Outcome start(std::span<LedgerAction* const> actions) const;
    /// A later choice of the places and of what is promised, before anything was changed there.
    Outcome replan(std::span<const LedgerAction* const> actions) const;
    /// Writes down that a list is about to be changed, with all that it holds now.
    Result<LedgerAction> startWithList(LedgerAction action, std::string_view content) const;
    /// What a list held before an action changed it.
    Result<std::string> listBefore(const LedgerAction& action) const;
    /// The checksum of a list after an action and after what taking other things back has changed in it
    /// since: what it has as long as nobody but us wrote it.
    Result<Checksum128> listAfter(const LedgerAction& action) const;
    /// Marks actions, says what became of their holdings and takes them off the docket, all or nothing. Waits
    /// for other writers: what was done has to be written down.
    Outcome settle(std::span<const Settlement> settlements) const;
    /// Marks an action alone, with its sentence. Waits like `settle`.
    Outcome mark(const LedgerAction& action, ActionStep step, const std::string& sentence = {}) const;
    /// Marks many.
    Outcome markAll(std::span<const LedgerAction* const> actions, ActionStep step) const;
    /// Says whether an action's drive has confirmed it.
    Outcome setUnflushed(const LedgerAction& action, bool unflushed) const;

    /// Newest first.
    Result<std::vector<LedgerEntry>> entries() const;
    Result<std::optional<LedgerEntry>> entry(EntryId id) const;
    Result<std::vector<LedgerAction>> actionsOf(EntryId entry) const;
    /// Actions that an interruption left started, in either direction, and that wait to be settled.
    Result<std::vector<LedgerAction>> unfinished() const;
    /// Actions that are done and not known to be flushed.
    Result<std::vector<LedgerAction>> unflushed() const;
    /// Writes down which folders an entry has made; absolute.
    Outcome noteFolders(EntryId entry, std::span<const BytePath> folders) const;
    /// The same where they are now, those of volumes that are away left out.
    Result<std::vector<BytePath>> foldersMadeBy(EntryId entry) const;
    /// From where to where holdings were moved since then, and are still: absolute places.
    Result<std::vector<std::pair<BytePath, BytePath>>> movesSince(Nanoseconds time) const;
    /// Whether a list was written by us at a place, with this content.
    Result<bool> hasWritten(const BytePath& list, const Checksum128& content) const;
    /// Entries that were never closed.
    Result<std::vector<LedgerEntry>> unclosed() const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
