#include "core/transfer/reorder.h"

#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/transfer/move_order.h"
#include "core/transfer/plan.h"

#include <algorithm>
#include <span>

namespace sober {
namespace {

/// So that each finds its place free; those that go round come last.
std::vector<Reordered> inOrder(std::vector<Reordered> moves) {
    std::vector<std::pair<BytePath, BytePath>> places;
    for (const auto& move : moves) {
        places.emplace_back(move.from, move.to);
    }
    const auto order = orderOfMoves(places);
    std::vector<Reordered> ordered;
    const auto take = [&](std::span<const std::size_t> some) {
        for (const auto at : some) {
            ordered.push_back(std::move(moves[at]));
        }
    };
    take(order.first);
    for (const auto& round : order.rounds) {
        take(round);
    }
    return ordered;
}

} // namespace

Result<std::vector<Reordered>> reorder(const Catalogue& catalogue, const BytePath& folder,
                                       const std::string& layout) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    TransferRequest request;
    request.to = realPathOf(folder).value_or(folder);
    request.mode = TransferMode::reorder;
    request.layout = layout;
    const auto volume = volumeHolding(*volumes, request.to);
    RETURN_IF_FAILED(volume);
    request.choice.folders = {{(*volume)->id, *relativeTo(request.to, (*volume)->root)}};
    RunControl toTheEnd;
    const auto plan = planTransfer(catalogue, request, toTheEnd);
    RETURN_IF_FAILED(plan);
    if (plan->items.empty()) {
        return Error{Cause::notFound, folder, "Nothing in " + displayPath(folder) + " is in the catalogue."};
    }
    std::vector<HoldingId> ids;
    std::ranges::transform(plan->items, std::back_inserter(ids), &TransferItem::source);
    const auto holdings = Holdings(catalogue).byIds(ids);
    RETURN_IF_FAILED(holdings);
    std::vector<Reordered> moves;
    for (std::size_t i = 0; i < plan->items.size(); ++i) {
        const auto& item = plan->items[i];
        if (item.state == ItemState::waits) {
            moves.push_back({item.source, joinPath((*volume)->root, (*holdings)[i].path),
                             joinPath(plan->place.folder, item.target), item.altered});
        }
    }
    return inOrder(std::move(moves));
}

} // namespace sober
