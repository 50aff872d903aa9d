#pragma once

#include "core/catalogue/ledger_store.h"
#include "core/remedy/actions/planned_action.h"
#include "core/remedy/actions/what_stays.h"

#include <functional>

namespace sober {

/// A file that is to be changed and, where it goes, what stays of its recording, as they were when they were
/// looked at.
struct Proven {
    FileStamp goes;
    std::optional<Staying> stays;
};

/// What has to be shown on the disk just before a file is changed.
class Prover {
  public:
    /// `onBytes` hears how many bytes were read, and of which file.
    Prover(const Catalogue& catalogue, RunControl& control,
           std::function<void(std::uint64_t, const BytePath&)> onBytes)
        : catalogue_(catalogue), control_(control), onBytes_(std::move(onBytes)) {}

    /// A file that is to be retired, once it is proven to be what was recorded, and what stays: compared with
    /// it byte for byte or, where none that stays has its bytes, read and found to be what was recorded of
    /// it, at no loss that was not consented to.
    Result<Proven> retirable(const PlannedAction& planned);

    /// Reads a file and holds it against what was recorded of it.
    Result<FileStamp> asRecorded(const BytePath& path, const Checksum128& recorded);

    /// A file that is to be mended: what was recorded of it or, where its drive cannot give all of it, as it
    /// was when it was surveyed; then `action` tells it by what could be read.
    Result<FileStamp> mendable(const PlannedAction& planned, LedgerAction& action);

  private:
    Result<Proven> held(const PlannedAction& planned, const FileStamp& goes, const Carrier& carrier,
                        const FileStamp& stays);
    Result<Proven> compare(const PlannedAction& planned, const Carrier& carrier);
    Result<Proven> standIn(const PlannedAction& planned, const Carrier& carrier);
    /// Known to be one recording only by way of others: these two are laid over each other now.
    Outcome comparePair(const PlannedAction& planned, const Carrier& carrier);

    const Catalogue& catalogue_;
    RunControl& control_;
    std::function<void(std::uint64_t, const BytePath&)> onBytes_;
    MountWatch mounts_;
};

} // namespace sober
