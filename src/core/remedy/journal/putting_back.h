#pragma once

#include "core/remedy/changes/unflushed.h"
#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/doing.h"
#include "core/remedy/journal/hooks.h"

namespace sober {

/// Files of one kind on their way back, together: all are written down, changed back, flushed once, and
/// recorded in one transaction. What fails stays as it was and leaves the others. Each Error is the
/// catalogue's.
class PuttingBack {
  public:
    PuttingBack(Catalogue& catalogue, const std::vector<Volume>& volumes, const CarryOutHooks& hooks,
                CarriedOut& result)
        : catalogue_(catalogue), ledger_(catalogue), volumes_(volumes), hooks_(hooks), result_(result) {}

    /// Changes them back. Those that could not be are no longer among them then.
    Outcome change(std::vector<Doing>& doings);
    /// Those with a failure are changed as they were before or, where that fails too, wait to be settled;
    /// they are no longer among them then.
    Outcome giveUp(std::vector<Doing>& doings);
    /// Says that they are back.
    Outcome record(std::vector<Doing>& doings);

  private:
    Outcome begin(std::vector<Doing>& doings);
    void putBack(Doing& doing);

    Catalogue& catalogue_;
    LedgerStore ledger_;
    const std::vector<Volume>& volumes_;
    const CarryOutHooks& hooks_;
    CarriedOut& result_;
    Unflushed unflushed_;
};

} // namespace sober
