#pragma once

#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/hooks.h"
#include "core/work/settle_transfer.h"

namespace sober {

struct TransferRun {
    SettledTransfer settled;
    CarriedOut carried; ///< of all its entries together; `entry` is the last
};

/// Carries out what waits of a transfer, and writes its lists once all of it stands there. Stopped by a
/// person, by a drive that goes away or one that is full, it goes on there when it is called again. Every
/// file is read once, checked against what was recorded, written under another name, flushed, read back from
/// the medium, and only then named. Nothing that stands at the target is written over. An Error where the
/// target is away or is another file system than it was planned for, and where what waits does not fit.
Result<TransferRun> runTransfer(Catalogue& catalogue, TransferId id, RunControl& control,
                                const CarryOutHooks& hooks);

} // namespace sober
