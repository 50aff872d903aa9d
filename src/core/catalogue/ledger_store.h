#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>

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

struct LedgerAction {
    std::int64_t id = 0;
    EntryId entry = 0;
    std::string kind;
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

    /// Writes an action down before it is carried out; its id is set in what comes back.
    Result<LedgerAction> start(LedgerAction action) const;
    /// A later choice of the places, before anything was changed there.
    Outcome replan(const LedgerAction& action) const;
    /// Writes down that a list is about to be changed, with all that it holds now.
    Result<LedgerAction> startWithList(LedgerAction action, std::string_view content) const;
    /// What a list held before an action changed it.
    Result<std::string> listBefore(const LedgerAction& action) const;
    /// The checksum of a list after an action and after what taking other things back has changed in it
    /// since: what it has as long as nobody but us wrote it.
    Result<Checksum128> listAfter(const LedgerAction& action) const;
    /// Marks the action, sets the holding's state and takes it off the docket, all or nothing.
    Outcome finish(const LedgerAction& action, ActionStep step, HoldingState holdingState) const;
    /// The same for a holding that is at another place now; the place before is remembered.
    Outcome finishMove(const LedgerAction& action, ActionStep step, VolumeId volume,
                       const BytePath& path) const;
    /// Marks an action about a place that references point to, which becomes written off or is so no more,
    /// and takes it off the docket.
    Outcome finishPlace(const LedgerAction& action, ActionStep step, bool writtenOff) const;
    /// Marks the action alone.
    Outcome mark(const LedgerAction& action, ActionStep step, const std::string& sentence = {}) const;

    /// Newest first.
    Result<std::vector<LedgerEntry>> entries() const;
    Result<std::optional<LedgerEntry>> entry(EntryId id) const;
    Result<std::vector<LedgerAction>> actionsOf(EntryId entry) const;
    /// Actions that an interruption left started, in either direction.
    Result<std::vector<LedgerAction>> unfinished() const;
    /// Entries that were never closed.
    Result<std::vector<LedgerEntry>> unclosed() const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
