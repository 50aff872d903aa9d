#pragma once

#include "core/catalogue/records.h"

#include <cstdint>
#include <string>
#include <vector>

namespace sober {

struct RefusedAction {
    BytePath path; ///< absolute
    std::string sentence;
};

/// What became of a docket, or of what was taken back.
struct CarriedOut {
    EntryId entry = 0; ///< 0: the docket was empty
    std::uint64_t done = 0;
    std::uint64_t frees = 0;      ///< bytes, once the trash is emptied
    std::uint64_t references = 0; ///< that were taken along or repointed
    std::vector<RefusedAction> refused;
    /// Where something is done, and its drive has not confirmed that it outlasts a loss of power; absolute.
    std::vector<BytePath> unflushed;
    bool interrupted = false; ///< stopped between two files; the rest still waits
    /// It was a drive that stopped it, full or gone, and no person.
    bool stoppedByDrive = false;
};

} // namespace sober
