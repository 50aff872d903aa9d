#pragma once

#include "core/audit/set_knowledge.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace sober {

/// How one member of a copy set may have come about.
struct Descent {
    std::size_t member = 0;
    std::optional<std::size_t> from;     ///< the member that it may be made from; nothing for the first
    Sameness sameness = Sameness::bytes; ///< to that one
    std::string words;                   ///< what lies between: "MP3 at 128 kbit/s", "3.0 dB quieter"
    bool told = false;                   ///< its own evidence names that source, rather than only allowing it
};

/// Who can derive from whom: from what is better to what is worse, by verdict, trace and what is left after
/// subtraction. The first entry is the member that all others may come from; each comes after its source.
/// Of members that are equally good `preferred` comes first.
std::vector<Descent> lineageOf(std::span<const Holding> members, const SetKnowledge& known,
                               std::size_t preferred);

} // namespace sober
