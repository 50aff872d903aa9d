#include "app/desks/find/found_rows.h"

#include "app/charts/claims_map.h"
#include "app/desks/find/found_panel.h"
#include "app/words.h"
#include "core/catalogue/docket_store.h"

#include <unordered_map>

namespace sober::app {

std::vector<Column<FoundRow>> foundColumns() {
    return {
        {FoundPanel::tr("State"),
         [](const FoundRow& row) {
             return row.waiting == ActionKind::retire
                        ? Cell{FoundPanel::tr("to retire"), Mark::retire, false, false, {}}
                    : row.waiting == ActionKind::copy
                        ? Cell{FoundPanel::tr("to copy"), Mark::copies, false, false, {}}
                    : row.waiting == ActionKind::move
                        ? Cell{FoundPanel::tr("to move"), Mark::moved, false, false, {}}
                        : Cell{conditionWords(row.found),
                               markOf(row.found),
                               false,
                               row.found.holding.state != HoldingState::present,
                               {}};
         }},
        {FoundPanel::tr("Title"),
         [](const FoundRow& row) {
             const auto& holding = row.found.holding;
             return Cell{holding.tags.title.empty() ? shownPath(BytePath(nameOf(holding.path)))
                                                    : shown(holding.tags.title),
                         Mark::none, false, !row.found.reachable, shown(holding.tags.artist)};
         }},
        {FoundPanel::tr("Volume"),
         [](const FoundRow& row) {
             const auto& volume = row.found.volume;
             return Cell{volumeName(volume), volume.atHand ? Mark::none : Mark::away, false, !volume.atHand,
                         told(reachWords(row.found))};
         }},
        {FoundPanel::tr("Folder"),
         [](const FoundRow& row) {
             return Cell{shownPath(BytePath(parentOf(row.found.holding.path))), Mark::none, true,
                         !row.found.reachable, shownPath(row.found.path)};
         }},
        {FoundPanel::tr("Claims"),
         [](const FoundRow& row) {
             return Cell{claimWords(row.found.holding.claims), Mark::none, false, false, {}};
         }},
        {FoundPanel::tr("Length"),
         [](const FoundRow& row) {
             return Cell{told(humanSeconds(row.found.holding.claims.duration)), Mark::none, false, false, {}};
         },
         true},
        {FoundPanel::tr("Copies"),
         [](const FoundRow& row) {
             return row.found.copies > 0 ? Cell{told(humanCount(row.found.copies)), Mark::copies, false,
                                                false, FoundPanel::tr("Others that carry this recording")}
                                         : Cell{};
         }},
        {FoundPanel::tr("Lists"), [](const FoundRow& row) {
             return Cell{row.found.lists.empty() ? QString() : told(humanCount(row.found.lists.size())),
                         Mark::none,
                         false,
                         false,
                         {}};
         }}};
}

Result<std::vector<FoundRow>> fetchFoundRows(const Catalogue& catalogue, std::span<const HoldingId> ids) {
    auto found = foundHoldings(catalogue, ids);
    RETURN_IF_FAILED(found);
    std::unordered_map<HoldingId, ActionKind> waiting;
    for (const auto kind : {ActionKind::copy, ActionKind::move, ActionKind::retire}) { // the weightiest last
        const auto standing = DocketStore(catalogue).standing(ids, kind);
        RETURN_IF_FAILED(standing);
        for (const auto id : *standing) {
            waiting.insert_or_assign(id, kind);
        }
    }
    std::vector<FoundRow> rows;
    for (auto& each : *found) {
        const auto waits = waiting.find(each.holding.id);
        rows.push_back(
            {std::move(each), waits != waiting.end() ? std::optional(waits->second) : std::nullopt});
    }
    return rows;
}

} // namespace sober::app
