#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"

#include <vector>

namespace sober {

struct OpenedForWork {
    Catalogue catalogue;
    std::vector<std::string> recovered; ///< what an earlier interruption left and how it was ended
    std::vector<std::string> waiting;   ///< what of it waits to be settled, and for what
};

/// Takes the writer's lock, looks which volumes are at hand, and ends there what an interruption left
/// half-way.
Result<OpenedForWork> openAndRecover(const BytePath& cataloguePath);

/// The same, then brings the findings up to date.
Result<OpenedForWork> openForWork(const BytePath& cataloguePath);

/// For what only asks: takes the lock where it is free, looks which volumes are at hand and brings the
/// findings up to date, changes nothing on a volume, and tells what waits.
Result<OpenedForWork> openToLook(const BytePath& cataloguePath);

/// What of an earlier interruption waits to be settled, one sentence an action.
Result<std::vector<std::string>> waitingToBeSettled(const Catalogue& catalogue);

/// What an earlier interruption left is settled on volumes that came to hand; sentences as when opening.
struct LookedAgain {
    bool volumesChanged = false;
    std::vector<std::string> recovered;
};

struct BroughtBack {
    BytePath kept;                      ///< what the catalogue was just before
    std::vector<std::string> recovered; ///< sentences as when opening
};

/// Makes the catalogue what a saved one was, looks which volumes are at hand by now, and ends what an
/// interruption had left when it was saved.
Result<BroughtBack> bringBack(Catalogue& catalogue, const BytePath& saved, RunControl& control,
                              const ProgressSink& onProgress);

/// Looks for volumes that came or went, settles what waited for them, and brings the findings up to date.
Result<LookedAgain> lookAgain(Catalogue& catalogue);

} // namespace sober
