#pragma once

#include "core/catalogue/ledger_store.h"
#include "core/players/list_rewriting.h"
#include "core/remedy/actions/list_places.h"
#include "core/remedy/journal/hooks.h"

#include <map>
#include <optional>
#include <unordered_map>

namespace sober {

/// What was made of a list.
struct WrittenList {
    Checksum128 text;
    std::optional<EntryIndex> index; ///< of that text; once a list is written for the second time
};

/// By the place of a list: what was made of it.
using WrittenLists = std::map<BytePath, WrittenList>;

/// References on their way from old places to new ones: list by list, each change journalled.
class Following {
  public:
    /// Leads all references of all lists from the old places to the new. What cannot be done in one list is
    /// left in all, so that none is changed for nothing. An Error is the catalogue's.
    /// `written` is what earlier ones of the same run, about other places, have made of lists.
    static Result<Following> lead(const Catalogue& catalogue, EntryId entry, NewPlaces places,
                                  RunControl& control, const CarryOutHooks& hooks,
                                  WrittenLists* written = nullptr);

    /// Old places to which some list still leads, and why.
    const std::unordered_map<BytePath, std::string>& left() const { return left_; }
    std::uint64_t references() const { return references_; } ///< that lead to their new place now
    bool wasInterrupted() const { return interrupted_; }

    /// The lists become what they were had these old places never been among them.
    Outcome withdraw(const std::vector<BytePath>& places, const CarryOutHooks& hooks);

  private:
    struct Change {
        const ConcernedList* list;
        ReadList read;
        RewrittenList rewritten;
    };

    Following(const Catalogue& catalogue, EntryId entry, PlayerShelf shelf, NewPlaces places,
              WrittenLists* written)
        : catalogue_(&catalogue),
          entry_(entry),
          shelf_(std::move(shelf)),
          places_(std::move(places)),
          written_(written) {}

    void prepare();
    void prepareOne(const ConcernedList& list, Resolver& resolver);
    Outcome write(RunControl& control, const CarryOutHooks& hooks);
    void leave(const BytePath& place, const std::string& sentence);
    /// What earlier ones made of the list; nullptr where it is not that any more.
    WrittenList* asWritten(const BytePath& list, std::string_view text) const;
    void keepWritten(const Change& change, Resolver& resolver);
    /// Whether an entry that is known to lead to one of the places was not found to: it cannot be looked at
    /// now.
    bool lacksEntries(const ConcernedList& list, const ReadList& read, std::size_t found) const;
    void leaveAllOf(const ConcernedList& list, const std::string& sentence);

    const Catalogue* catalogue_;
    EntryId entry_;
    PlayerShelf shelf_;
    NewPlaces places_; ///< but for those that were left
    NewPlaces led_;    ///< by which the lists were written
    WrittenLists* written_;
    std::vector<ConcernedList> lists_;
    std::vector<Change> changes_; ///< prepared, then written
    std::unordered_map<BytePath, std::string> left_;
    std::uint64_t references_ = 0;
    bool interrupted_ = false;
};

} // namespace sober
