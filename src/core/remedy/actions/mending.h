#pragma once

#include "core/catalogue/fixity_store.h"

#include <span>

namespace sober {

class EvidenceWorker;

/// A copy at hand that holds some of what was recorded of a drifted holding.
struct MendingSource {
    HoldingId holding = 0;
    BytePath path;             ///< absolute
    std::vector<bool> healthy; ///< block by block
};

/// What a drifted or missing holding can be mended from.
struct Mending {
    Drift drift;
    std::vector<BytePath>
        healthy; ///< absolute: whole copies of what was recorded, those outside volumes last
    std::vector<MendingSource> sources; ///< the holding itself and others that were the same once
    bool canBeAssembled = false;        ///< every block is healthy in one of the sources
};

/// Looks in the catalogue for copies at hand. Cause::invalid where the holding has not drifted and
/// is not missing.
Result<Mending> mendingOf(const Catalogue& catalogue, HoldingId holding, std::span<const Volume> volumes);

/// Makes the recorded content at `to` from a healthy copy or, with `assemble`, block by block, and reads it
/// back. Fails where it is not what was recorded: nothing that only looks healthy is accepted.
Result<FileRecord> makeMended(EvidenceWorker& worker, const Mending& mending, bool assemble,
                              const BytePath& to, RunControl& control);

} // namespace sober
