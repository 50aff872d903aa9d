#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/ledger_store.h"

namespace sober {

/// The instants of one action between which a crash must do no harm, in their order.
enum class Instant {
    checked,
    journalled,
    made, ///< what replaces the file is made and right
    noteWritten,
    moved,
    replaced,
    recorded,
};

struct RefusedAction {
    BytePath path; ///< absolute
    std::string sentence;
};

struct CarriedOut {
    EntryId entry = 0; ///< 0: the docket was empty
    std::uint64_t done = 0;
    std::uint64_t frees = 0;      ///< bytes, once the trash is emptied
    std::uint64_t references = 0; ///< that were taken along or repointed
    std::vector<RefusedAction> refused;
    bool interrupted = false; ///< stopped between two files; the rest still waits
};

struct CarryOutHooks {
    ProgressSink onProgress = [](const Progress&) {};
    /// Hears of each instant right after it: for progress by steps, and for tests that end there.
    std::function<void(Instant)> onInstant = [](Instant) {};
};

/// Carries the docket out. Each file is checked on the disk first: still the recorded content, and a
/// copy that stays, compared byte for byte; then it is moved to the trash, journalled before and
/// after. What is retagged is made anew beside the file, read back, and only then takes its place. References
/// lead to what stays before a file is retired, and follow what is moved. What is refused stays on the
/// docket. `which` says which of the actions, where not all of them.
Result<CarriedOut> carryOut(Catalogue& catalogue, RunControl& control, const CarryOutHooks& hooks,
                            const std::function<bool(const DocketAction&)>& which = {});

} // namespace sober
