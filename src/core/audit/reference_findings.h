#pragma once

#include "core/catalogue/player_store.h"

namespace sober {

/// What can be wrong with a reference that still leads somewhere.
enum class ReferenceTrouble {
    passing,   ///< into a place that does not last
    loosely,   ///< resolves only by ignoring letter case or normalisation
    notKeeper, ///< to a copy that is not the one to keep, which its player could reach
    twice,     ///< a second time in one list
};

struct TroubledReference {
    ReferenceTrouble trouble = ReferenceTrouble::passing;
    Reference reference;
    std::string why;  ///< in words
    BytePath instead; ///< absolute: where it had better lead; "" where that is not known
};

/// All of them, by list and entry. A reference may have several troubles.
Result<std::vector<TroubledReference>> referenceFindings(const Catalogue& catalogue);

/// Why a place does not last, in words; nothing where it may. Within a catalogued volume only what lies below
/// its root is held against the patterns: the custodian has said that audio is kept there.
std::optional<std::string> whyPassing(const BytePath& path, std::span<const Volume> volumes,
                                      std::span<const std::string> patterns, const BytePath& home);

std::string_view word(ReferenceTrouble trouble);

} // namespace sober
