#include "core/audit/found_holding.h"

#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/volumes.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {

Result<std::vector<FoundHolding>> foundHoldings(const Catalogue& catalogue, std::span<const HoldingId> ids) {
    auto holdings = Holdings(catalogue).byIds(ids);
    const auto volumes = Volumes(catalogue).all();
    if (!holdings || !volumes) {
        return holdings ? volumes.error() : holdings.error();
    }
    std::vector<FoundHolding> rows;
    for (auto& holding : *holdings) {
        FoundHolding row;
        if (const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
            volume != volumes->end()) {
            row.volume = *volume;
        }
        row.path = joinPath(row.volume.root, holding.path);
        row.reachable = holding.state == HoldingState::present && row.volume.reaches(holding.path);
        const auto set = Findings(catalogue).setOf(holding.id);
        auto lists = PlayerStore(catalogue).listsNaming(holding.id);
        const auto judged = EvidenceStore(catalogue).judged(holding.id);
        if (!set || !lists) {
            return set ? lists.error() : set.error();
        }
        RETURN_IF_FAILED(judged);
        row.copies = *set && holding.state == HoldingState::present ? (*set)->members - 1 : 0;
        row.lists = std::move(*lists);
        row.sound = holding.problem.empty() && (!*judged || (*judged)->sound);
        if (*judged) {
            row.verdict = (*judged)->verdict;
        }
        row.holding = std::move(holding);
        rows.push_back(std::move(row));
    }
    return rows;
}

std::string reachWords(const FoundHolding& found) {
    const auto& volume = found.volume;
    const std::string on = "on " + volume.label;
    const std::string numbered =
        fmt::format("{} (No. {})", on, volume.id); // by which it is found in a cupboard
    const auto since = [](std::string_view words, Nanoseconds time) {
        return time > 0 ? std::string(words) + localDay(time) : std::string();
    };
    switch (found.holding.state) {
    case HoldingState::retired:
        return "retired from " + volume.label + since(", ", found.holding.lastSeen);
    case HoldingState::writtenOff:
        return "written off; it was " + on;
    case HoldingState::missing:
        return "missing; it was " + on + since(", last seen ", found.holding.lastSeen);
    case HoldingState::leftOut:
        return on + ", left out by its choices";
    case HoldingState::forgotten:
        return "forgotten with " + volume.label;
    case HoldingState::present:
        break;
    }
    return found.reachable        ? on
           : volume.atHand        ? on + ", in a folder whose drive is away"
           : volume.awaySince > 0 ? numbered + ", away since " + localDay(volume.awaySince)
                                  : numbered + ", away" + since("; last surveyed ", volume.surveyedAt);
}

} // namespace sober
