#include "core/work/settle_discs.h"

#include "core/catalogue/docket_store.h"
#include "core/disc/ripped_file.h"
#include "core/remedy/disc_spool.h"

#include <set>

namespace sober {
namespace {

std::optional<BytePath> spoolOf(const DocketAction& action) {
    const auto ripped = action.kind == ActionKind::rip ? unpackRippedFile(action.change) : std::nullopt;
    return ripped ? std::optional(BytePath(parentOf(ripped->file))) : std::nullopt;
}

} // namespace

Outcome settleDiscs(const Catalogue& catalogue, std::span<const PlannedAction> actions) {
    std::set<BytePath> spools;
    for (const auto& planned : actions) {
        if (auto spool = spoolOf(planned.action)) {
            spools.insert(std::move(*spool));
        }
    }
    if (spools.empty()) {
        return done();
    }
    const auto waiting = DocketStore(catalogue).all();
    RETURN_IF_FAILED(waiting);
    for (const auto& action : *waiting) {
        if (const auto spool = spoolOf(action)) {
            spools.erase(*spool);
        }
    }
    for (const auto& spool : spools) {
        if (const auto forgotten = DiscSpool::forgetPlaced(spool); !forgotten) {
            return forgotten;
        }
    }
    return done();
}

} // namespace sober
