#include "core/work/settle_transfer.h"

#include "core/catalogue/holdings.h"

#include <algorithm>

namespace sober {
namespace {

/// Whether the old of all that came has gone. What was in its place already has no old.
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
    if (!holdings) {
        return holdings.error();
    }
    const auto isGone = [](const Holding& holding) { return holding.state == HoldingState::retired; };
    return std::ranges::all_of(*holdings, isGone);
}

} // namespace

Result<SettledTransfer> settleTransfer(const Catalogue& catalogue, TransferId id) {
    const TransferStore store(catalogue);
    const auto transfer = store.of(id);
    auto items = transfer ? store.items(id) : Result<std::vector<TransferItem>>(transfer.error());
    const auto there = items ? store.standing(*transfer, *items)
                             : Result<std::vector<std::optional<Checksum128>>>(items.error());
    if (!there) {
        return there.error();
    }
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
        if (!released) {
            return released.error();
        }
        now.state = waiting > 0       ? TransferState::running
                    : *released       ? TransferState::released
                    : now.proven != 0 ? TransferState::proven
                                      : TransferState::copied;
        now.proven = waiting > 0 ? 0 : now.proven;
    }
    if (catalogue.canWrite() && (!marks.empty() || before != now.state)) {
        const auto marked = store.mark(id, marks);
        const auto updated = marked ? store.update(now) : marked;
        if (!updated) {
            return updated.error();
        }
    }
    return settled;
}

} // namespace sober
