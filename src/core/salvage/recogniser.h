#pragma once

#include "core/catalogue/salvage_store.h"
#include "core/evidence/file_pass.h"

#include <span>

namespace sober {

/// Takes down in a find what an examination has shown of it, and as what that is recognised: by all of its
/// bytes, its audio data or its samples. True where it was recognised.
Result<bool> takeDown(const Catalogue& catalogue, Find& find, const FileRecord& record);

/// Where several missing holdings have the same bytes, each find of those gets another: the one of its name
/// where there is one.
Outcome shareOut(const Catalogue& catalogue, std::span<Find> finds);

/// Recognises by their fingerprints, then by their tags, what was not recognised by more, and groups what is
/// new by how it sounds.
Outcome recogniseByEar(const Catalogue& catalogue, std::span<Find> finds);

/// What a find that was recognised is to the collection.
enum class FindStanding {
    unknown, ///< it is not recognised
    missing, ///< it is what is missing, and no other holding at hand or away has its bytes
    held,
    retired, ///< by us or written off: nobody waits for it
};
std::string_view word(FindStanding standing);

/// For many at once, in their order; and the holdings they were recognised as.
struct KnownFind {
    FindStanding standing = FindStanding::unknown;
    std::optional<Holding> holding;
    BytePath place; ///< absolute, of that holding
    bool atHand = false;
};
Result<std::vector<KnownFind>> standingsOf(const Catalogue& catalogue, std::span<const Find> finds);

} // namespace sober
