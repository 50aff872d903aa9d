#pragma once

#include "core/catalogue/catalogue.h"

#include <string>
#include <vector>

namespace sober {

/// What an interruption had left, and what became of it.
struct Recovered {
    std::vector<std::string> settled; ///< one sentence an action
    std::vector<std::string> waiting; ///< what cannot be settled now, and why
};

/// Ends what an interruption left half-way, each action by what the disk shows: finished, or taken back. What
/// cannot be told, or lies on a volume that is away, waits; nothing else waits for it. Flushes again what was
/// done and not confirmed. An Error is the catalogue's.
Result<Recovered> recoverInterrupted(Catalogue& catalogue);

} // namespace sober
