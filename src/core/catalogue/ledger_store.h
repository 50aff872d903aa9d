#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/ledger_records.h"

#include <set>
#include <span>

namespace sober {

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
    /// Writes down which folders an entry is about to make; absolute.
    Outcome noteFolders(EntryId entry, const std::set<BytePath>& folders) const;
    /// Those of them that were not made after all.
    Outcome forgetFolders(EntryId entry, const std::set<BytePath>& folders) const;
    /// The folders that it made, where they are now, those of volumes that are away left out.
    Result<std::vector<BytePath>> foldersMadeBy(EntryId entry) const;
    /// From where to where holdings were moved since then, and are still: absolute places.
    Result<std::vector<std::pair<BytePath, BytePath>>> movesSince(Nanoseconds time) const;
    /// Whether a list was written by us at a place, with this content.
    Result<bool> hasWritten(const BytePath& list, const Checksum128& content) const;
    /// The entry that was opened at this very time.
    Result<std::optional<EntryId>> entryAt(Nanoseconds time, const std::string& kind) const;
    /// Writes down, all or nothing, an ended entry of another catalogue's ledger, with its actions as they
    /// are called here and the lists that it keeps.
    Result<EntryId> takeEntry(const LedgerStore& other, const LedgerEntry& entry,
                              std::span<LedgerAction> actions) const;
    /// Marks actions of an entry as undone, told by their kinds and places.
    Outcome takeUndone(EntryId entry, std::span<const LedgerAction> undone) const;
    /// Entries that were never closed.
    Result<std::vector<LedgerEntry>> unclosed() const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
