#include "core/work/settle_transfer.h"

#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <fmt/format.h>

#include <algorithm>
#include <unordered_set>

namespace sober {
namespace {

/// Whether the old of all that came has gone. What was in its place already, or was moved there, has no old.
Result<bool> isReleased(const Catalogue& catalogue, const Transfer& transfer,
                        std::span<const TransferItem> items) {
    if (transfer.mode == TransferMode::reorder || items.empty()) {
        return false;
    }
    std::vector<HoldingId> sources;
    for (const auto& item : items) {
        sources.push_back(item.source);
    }
    const auto holdings = Holdings(catalogue).byIds(sources);
    const auto volumes = Volumes(catalogue).all();
    if (!holdings || !volumes) {
        return holdings ? volumes.error() : holdings.error();
    }
    const auto volume = std::ranges::find(*volumes, transfer.volume, &Volume::id);
    std::unordered_set<BytePath> places;
    for (const auto& item : items) {
        places.insert(joinPath(transfer.folder, item.target));
    }
    const auto hasNoOld = [&](const Holding& holding) {
        return volume != volumes->end() && holding.volume == volume->id &&
               places.contains(joinPath(volume->root, holding.path));
    };
    return std::ranges::all_of(*holdings, [&](const Holding& holding) {
        return holding.state == HoldingState::retired || hasNoOld(holding);
    });
}

} // namespace

Result<SettledTransfer> settleTransfer(const Catalogue& catalogue, TransferId id) {
    const TransferStore store(catalogue);
    const auto transfer = store.of(id);
    auto items = transfer ? store.items(id) : Result<std::vector<TransferItem>>(transfer.error());
    const auto there = items ? store.standing(*transfer, *items)
                             : Result<std::vector<std::optional<Checksum128>>>(items.error());
    RETURN_IF_FAILED(there);
    SettledTransfer settled{*transfer, std::move(*items)};
    std::vector<TransferStore::ItemMark> marks;
    for (std::size_t i = 0; i < settled.items.size() && settled.transfer.volume != 0; ++i) {
        auto& item = settled.items[i];
        const auto& standing = (*there)[i];
        const bool stands = standing && (!item.form.empty() || *standing == item.content);
        const bool wasThere = item.state == ItemState::copied || item.state == ItemState::there;
        if (stands != wasThere) {
            item.state = !stands                                            ? ItemState::waits
                         : settled.transfer.state == TransferState::planned ? ItemState::there
                                                                            : ItemState::copied;
            item.error.clear();
            marks.push_back({i, item.state, {}});
        }
    }
    auto& now = settled.transfer;
    const auto waiting = settled.count(ItemState::waits) + settled.count(ItemState::failed);
    const auto before = now.state;
    if (now.state != TransferState::planned) {
        const auto released =
            waiting == 0 && now.proven != 0 ? isReleased(catalogue, now, settled.items) : Result(false);
        RETURN_IF_FAILED(released);
        now.state = waiting > 0       ? TransferState::running
                    : *released       ? TransferState::released
                    : now.proven != 0 ? TransferState::proven
                                      : TransferState::copied;
        now.proven = waiting > 0 ? 0 : now.proven;
    }
    if (catalogue.canWrite() && (!marks.empty() || before != now.state)) {
        const auto marked = store.mark(id, marks);
        const auto updated = marked ? store.update(now) : marked;
        RETURN_IF_FAILED(updated);
    }
    return settled;
}

Outcome forgetTransfer(const Catalogue& catalogue, TransferId id) {
    const auto settled = settleTransfer(catalogue, id);
    RETURN_IF_FAILED(settled);
    return settled->transfer.state == TransferState::running
               ? Outcome(refusedError(
                     settled->transfer.folder,
                     fmt::format("Transfer {} is under way; run it to its end, or take it back first.", id)))
               : TransferStore(catalogue).remove(id);
}

} // namespace sober
