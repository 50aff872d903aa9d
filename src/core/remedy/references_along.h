#pragma once

#include "core/catalogue/ledger_store.h"
#include "core/players/list_rewriting.h"
#include "core/remedy/carry_out.h"
#include "core/remedy/docket.h"

namespace sober {

/// Everything that is needed to read and write the players' lists.
struct PlayerShelf {
    std::vector<Volume> volumes;
    std::vector<Player> players;
    std::vector<ListFile> lists;

    static Result<PlayerShelf> of(const Catalogue& catalogue);
    const ListFile* list(ListFileId id) const;
};

/// Which of `candidates` (absolute) can take the references to `place` over: the first that every list which
/// leads there can reach. Cause::refused, with a sentence, where none can or a list is away or read-only.
Result<BytePath> placeForReferences(const PlayerShelf& shelf, const BytePath& place,
                                    std::span<const Reference> references,
                                    std::span<const BytePath> candidates);

/// What a list will be, line by line.
struct ListDifference {
    BytePath list;
    std::vector<std::string> players;
    std::vector<ListedChange> changes;
    std::vector<Unreachable> unreachable;
    std::string refusal; ///< why it cannot be read or changed
};

/// What carrying out these actions would change in lists; nothing is written.
Result<std::vector<ListDifference>> listDifferences(const Catalogue& catalogue, const DocketReview& review);

struct TakenAlong {
    std::uint64_t references = 0;  ///< that lead to their new place now
    std::vector<Unreachable> left; ///< places that some list still leads to, and why
    bool interrupted = false;
};

/// Makes all references that lead to the old places lead to the new ones, list by list, each journalled, and
/// reads the changed lists again. Doing it again does nothing more.
Result<TakenAlong> takeReferencesAlong(const Catalogue& catalogue, EntryId entry, const NewPlaces& newPlaces,
                                       RunControl& control, const CarryOutHooks& hooks);

} // namespace sober
