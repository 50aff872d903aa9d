#include "core/work/prove_transfer.h"

#include "core/audit/match_recordings.h"
#include "core/audit/refresh_findings.h"
#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/write_report.h"
#include "core/survey/volume_identity.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

/// Its volume is at hand.
Result<SettledTransfer> settledAtHand(const Catalogue& catalogue, TransferId id) {
    const auto looked = lookForVolumes(catalogue);
    auto settled = looked ? settleTransfer(catalogue, id) : Result<SettledTransfer>(looked.error());
    const auto volumes = Volumes(catalogue).all();
    if (!settled || !volumes) {
        return settled ? volumes.error() : settled.error();
    }
    const auto& transfer = settled->transfer;
    const auto volume = std::ranges::find(*volumes, transfer.volume, &Volume::id);
    if (transfer.state == TransferState::planned) {
        return Error{Cause::invalid, transfer.folder, fmt::format("Transfer {} was not run yet.", id)};
    }
    if (volume == volumes->end() || !volume->atHand) {
        return Error{Cause::notFound, transfer.folder,
                     displayPath(transfer.folder) + " is away. Connect it first."};
    }
    return settled;
}

/// What stands at the new place is by size and time what was read back there.
Outcome isAsProven(const BytePath& place, const Holding& holding) {
    const auto stamp = stampAt(place);
    return stamp && stamp->size == holding.size && stamp->mtime == holding.mtime
               ? done()
               : Outcome(refusedError(place,
                                      displayPath(place) +
                                          " is not as it was when it was proven. Prove the transfer again."));
}

} // namespace

Result<ProvenTransfer> proveTransfer(const Catalogue& catalogue, TransferId id, RunControl& control,
                                     const ProgressSink& onProgress) {
    auto settled = settledAtHand(catalogue, id);
    RETURN_IF_FAILED(settled);
    if (const auto waiting = settled->count(ItemState::waits); waiting > 0) {
        return Error{Cause::invalid,
                     {},
                     fmt::format("{} of transfer {} to be copied; run it first.",
                                 counted(waiting, "holding waits", "holdings wait"), id)};
    }
    auto proof = prove(catalogue, settled->transfer, settled->items, control, onProgress);
    RETURN_IF_FAILED(proof);
    const auto beside = realPathOf(catalogue.path()).value_or(catalogue.path());
    const auto folder = joinPath(parentOf(beside), fmt::format("proofs/transfer-{}", id));
    const std::array<std::pair<std::string, std::string>, 3> files{{{"report.html", htmlOf(*proof)},
                                                                    {"report.json", jsonOf(*proof)},
                                                                    {"sha256sums.txt", checksumsOf(*proof)}}};
    RETURN_IF_FAILED(writeReport(folder, files));
    auto& transfer = settled->transfer;
    transfer.proven = proof->holds() ? proof->time : 0;
    transfer.report = folder;
    transfer.state = proof->holds() ? TransferState::proven : TransferState::copied;
    RETURN_IF_FAILED(TransferStore(catalogue).update(transfer));
    // What is in another form is known to be the same recording once it was matched.
    const bool anyEncoded =
        std::ranges::any_of(settled->items, [](const TransferItem& item) { return !item.form.empty(); });
    if (anyEncoded) {
        const auto matched = matchRecordings(catalogue, control, onProgress);
        const auto refreshed = matched ? refreshFindings(catalogue) : Outcome(matched.error());
        RETURN_IF_FAILED(refreshed);
    }
    auto now = settleTransfer(catalogue, id);
    return now ? Result(ProvenTransfer{std::move(*now), std::move(*proof), joinPath(folder, "report.html")})
               : Result<ProvenTransfer>(now.error());
}

Result<std::vector<HoldingId>> releaseTransfer(const Catalogue& catalogue, TransferId id) {
    const auto settled = settledAtHand(catalogue, id);
    RETURN_IF_FAILED(settled);
    const auto& transfer = settled->transfer;
    if (transfer.state != TransferState::proven) {
        return refusedError(transfer.folder,
                            transfer.state == TransferState::released
                                ? fmt::format("What transfer {} replaced has gone already.", id)
                                : fmt::format("Transfer {} is not proven. Prove it first.", id));
    }
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto root = std::ranges::find(*volumes, transfer.volume, &Volume::id)->root;
    std::vector<HoldingId> sources;
    for (const auto& item : settled->items) {
        sources.push_back(item.source);
    }
    const auto holdings = Holdings(catalogue).byIds(sources);
    RETURN_IF_FAILED(holdings);
    std::vector<DocketAction> actions;
    for (std::size_t i = 0; i < holdings->size(); ++i) {
        const auto place = joinPath(transfer.folder, settled->items[i].target);
        const auto there = Holdings(catalogue).at(transfer.volume, *relativeTo(place, root));
        RETURN_IF_FAILED(there);
        // What was in its place already is no old of anything.
        const bool isNew = *there && (*there)->id != (*holdings)[i].id;
        if (!isNew || (*holdings)[i].state != HoldingState::present) {
            continue;
        }
        RETURN_IF_FAILED(isAsProven(place, **there));
        DocketAction action;
        action.kind = ActionKind::retire;
        action.holding = (*holdings)[i].id;
        action.reason = fmt::format("proven at its new place by transfer {}", id);
        action.added = timeNow();
        action.target = place;
        actions.push_back(std::move(action));
    }
    const auto added = DocketStore(catalogue).add(actions);
    RETURN_IF_FAILED(added);
    std::vector<HoldingId> released;
    std::ranges::transform(actions, std::back_inserter(released), &DocketAction::holding);
    std::ranges::sort(released);
    return released;
}

} // namespace sober
