#pragma once

#include "core/transfer/proof.h"
#include "core/work/settle_transfer.h"

namespace sober {

struct ProvenTransfer {
    SettledTransfer settled;
    TransferProof proof;
    BytePath report; ///< absolute, of the page for a person; beside it are the others
};

/// Proves a transfer and keeps the report beside the catalogue. Where the proof holds, the transfer is
/// proven; where it does not any more, it no longer is. What came in another form is matched with its source.
/// Cause::invalid while anything waits to be copied.
Result<ProvenTransfer> proveTransfer(const Catalogue& catalogue, TransferId id, RunControl& control,
                                     const ProgressSink& onProgress);

/// Puts the old of what came on the docket, to be retired with the new place as what stays;
/// which holdings, by id.
/// Cause::refused where the transfer is not proven, or what stands at a new place is not as it was then.
Result<std::vector<HoldingId>> releaseTransfer(const Catalogue& catalogue, TransferId id);

} // namespace sober
