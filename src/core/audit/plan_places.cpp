#include "core/audit/plan_places.h"

#include "core/base/file_handle.h"
#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/volumes.h"
#include "core/players/resolver.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <unistd.h>
#include <unordered_set>

namespace sober {
namespace {

/// Absolute, links resolved as far as it exists; what another machine wrote stays as it is.
BytePath canonicalOf(const BytePath& given) {
    const auto meaning = meaningOf(given, false, realPathOf(".").value_or("/"));
    return meaning.paths.empty() || meaning.kind != LocationKind::file
               ? given
               : Resolver({}).canonical(meaning.paths.front());
}

/// A path as a person names it, whatever a list would make of its letters: absolute, links above its name
/// resolved as far as it exists.
BytePath placeNamed(const BytePath& given) {
    auto path = given;
    while (path.size() > 1 && path.ends_with('/')) {
        path.pop_back();
    }
    return placeOf(path).value_or(
        Resolver({}).canonical(path.starts_with('/') ? path : joinPath(realPathOf(".").value_or("/"), path)));
}

DocketAction placedAt(ActionKind kind, HoldingId holding, const BytePath& target, const std::string& reason) {
    DocketAction action;
    action.kind = kind;
    action.holding = holding;
    action.reason = reason;
    action.added = timeNow();
    action.target = target;
    return action;
}

Outcome addPlace(const Catalogue& catalogue, ActionKind kind, const BytePath& place, const BytePath& target,
                 const std::string& reason) {
    const auto leading = PlayerStore(catalogue).leadingTo(std::array{place});
    RETURN_IF_FAILED(leading);
    if (leading->empty()) {
        return Error{Cause::invalid, place,
                     fmt::format("No list of a player points at {}.", displayPath(place))};
    }
    DocketAction action;
    action.kind = kind;
    action.reason = reason;
    action.added = timeNow();
    action.place = place;
    action.target = target;
    return DocketStore(catalogue).add(std::array{action});
}

} // namespace

Outcome planRepoint(const Catalogue& catalogue, const BytePath& place, const BytePath& target,
                    const std::string& reason) {
    return addPlace(catalogue, ActionKind::repoint, canonicalOf(place), canonicalOf(target), reason);
}

Outcome planWriteOffPlace(const Catalogue& catalogue, const BytePath& place, const std::string& reason) {
    return addPlace(catalogue, ActionKind::writeOff, canonicalOf(place), {}, reason);
}

Outcome planMove(const Catalogue& catalogue, const BytePath& path, const BytePath& target,
                 const std::string& reason, ActionKind kind) {
    const auto to = placeNamed(target);
    return planMoveAs(catalogue, path,
                      isFolder(to) || target.ends_with('/') ? joinPath(to, nameOf(placeNamed(path))) : to,
                      reason, kind);
}

Outcome planMoveAs(const Catalogue& catalogue, const BytePath& path, const BytePath& target,
                   const std::string& reason, ActionKind kind) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto from = placeNamed(path);
    const auto to = placeNamed(target);
    const auto volume = volumeHolding(*volumes, from);
    RETURN_IF_FAILED(volume);
    if (isWithin(to, from)) {
        return Error{Cause::invalid, from,
                     displayPath(from) + (from == to
                                              ? " is there already."
                                              : fmt::format(" cannot be {} into itself.", pastOf(kind)))};
    }
    std::vector<DocketAction> actions;
    const auto walked = Holdings(catalogue).eachPresent([&](PresentHolding&& holding) {
        const auto place = joinPath((*volume)->root, holding.path);
        const auto below = holding.volume == (*volume)->id ? relativeTo(place, from) : std::nullopt;
        if (below && !isInsideArchive(*below)) { // those stay with their archive
            actions.push_back(placedAt(kind, holding.id, joinPath(to, *below), reason));
        }
    });
    if (!walked) {
        return walked;
    }
    if (actions.empty()) {
        return Error{Cause::notFound, from, fmt::format("{} is not in the catalogue.", displayPath(from))};
    }
    return DocketStore(catalogue).add(actions);
}

Outcome planMovesTo(const Catalogue& catalogue, std::span<const std::pair<HoldingId, BytePath>> targets,
                    const std::string& reason) {
    std::vector<HoldingId> ids;
    std::ranges::transform(targets, std::back_inserter(ids), [](const auto& each) { return each.first; });
    const auto holdings = Holdings(catalogue).byIds(ids);
    RETURN_IF_FAILED(holdings);
    std::unordered_set<HoldingId> inside;
    for (const auto& holding : *holdings) {
        if (isInsideArchive(holding.path)) {
            inside.insert(holding.id);
        }
    }
    std::vector<DocketAction> actions;
    for (const auto& [holding, target] : targets) {
        const auto kind = inside.contains(holding) ? ActionKind::copy : ActionKind::move;
        actions.push_back(placedAt(kind, holding, target, reason));
    }
    return DocketStore(catalogue).add(actions);
}

Outcome planMoveInto(const Catalogue& catalogue, std::span<const HoldingId> holdings, const BytePath& folder,
                     const std::string& reason) {
    const auto found = Holdings(catalogue).byIds(holdings);
    const auto volumes = Volumes(catalogue).all();
    if (!found || !volumes) {
        return found ? volumes.error() : found.error();
    }
    const auto into = placeNamed(folder);
    std::vector<std::pair<HoldingId, BytePath>> targets;
    for (const auto& holding : *found) {
        const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
        const auto target = joinPath(into, nameOf(holding.path));
        if (holding.state == HoldingState::present && volume != volumes->end() &&
            joinPath(volume->root, holding.path) != target) {
            targets.emplace_back(holding.id, target);
        }
    }
    if (targets.empty()) {
        return Error{Cause::invalid, into,
                     fmt::format("Nothing of these is there to be moved into {}.", displayPath(into))};
    }
    return planMovesTo(catalogue, targets, reason);
}

} // namespace sober
