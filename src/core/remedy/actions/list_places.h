#pragma once

#include "core/catalogue/player_store.h"
#include "core/players/list_rewriting.h"

#include <set>

namespace sober {

/// Everything that is needed to read and write the players' lists.
struct PlayerShelf {
    std::vector<Volume> volumes;
    std::vector<Player> players;
    std::vector<ListFile> lists;
    std::set<BytePath> unsettled; ///< lists whose last change waits to be settled

    static Result<PlayerShelf> of(const Catalogue& catalogue);
    const ListFile* list(ListFileId id) const;
    /// Why a list cannot be changed, whoever has it open: it is away, gone, read-only, or waits to be
    /// settled.
    std::optional<std::string> whyNever(const ListFile& list) const;
};

/// Why a list cannot be changed at all: gone, or read-only. Nothing where it can.
std::optional<std::string> whyNeverChange(const BytePath& list);
/// The same, or that it is open for writing in its player now.
std::optional<std::string> whyNotChange(const BytePath& list);
/// Whether its player has it open for writing; false where the file system cannot tell.
bool isOpenForWriting(const BytePath& list);

/// Which of `candidates` (absolute) can take the references to `place` over: the first that every list which
/// leads there can reach. Cause::refused, with a sentence, where none can or a list is away or read-only.
Result<BytePath> placeForReferences(const PlayerShelf& shelf, const BytePath& place,
                                    std::span<const Reference> references,
                                    std::span<const BytePath> candidates);

/// A list, and where its references led when it was last read: those of the old places, once for each.
struct ConcernedList {
    const ListFile* file = nullptr;
    std::vector<BytePath> leading;
};

/// The lists that lead to one of the old places, and those that were changed since they were read.
Result<std::vector<ConcernedList>> listsConcerned(const Catalogue& catalogue, const PlayerShelf& shelf,
                                                  const NewPlaces& newPlaces);

} // namespace sober
