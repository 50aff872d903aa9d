#include "core/transfer/reorder.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/transfer/filing.h"
#include "core/transfer/move_order.h"

#include <algorithm>
#include <span>
#include <unordered_set>

namespace sober {
namespace {

/// A holding on its way to its new name.
struct Ordered {
    HoldingId id = 0;
    BytePath within; ///< where it lies, relative to the folder that is put in order
    FiledName filed;
};

/// Those that lie where they shall come first, so that of several with one name these keep it: what is in
/// order stays as it is.
std::vector<Ordered> inPlaceFirst(std::span<const Holding> holdings, const BytePath& root,
                                  const Volume& volume, const Layout& layout, const TargetRules& rules) {
    const Filing filing(holdings);
    std::vector<Ordered> all;
    for (const auto& holding : holdings) {
        const auto within = relativeTo(joinPath(volume.root, holding.path), root).value_or(holding.path);
        all.push_back(
            {holding.id, within, filing.nameFor(holding, within, layout, rules, usualReplacements())});
    }
    std::ranges::stable_partition(all, [&](const Ordered& ordered) {
        const auto& name = ordered.filed.name;
        return joinPath(name.folder, fitName(rules, usualReplacements(), name.stem, name.ending).name) ==
               ordered.within;
    });
    return all;
}

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
                                       const Layout& layout) {
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    const auto root = realPathOf(folder).value_or(folder);
    const auto volume = volumeHolding(*volumes, root);
    if (!volume) {
        return volume.error();
    }
    HoldingFilter filter;
    filter.volume = (*volume)->id;
    filter.folder = relativeTo(root, (*volume)->root).value_or(BytePath());
    const auto ids = EvidenceStore(catalogue).meant(filter);
    const auto holdings = ids ? Holdings(catalogue).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
    if (!holdings) {
        return holdings.error();
    }
    if (holdings->empty()) {
        return Error{Cause::notFound, folder, "Nothing in " + displayPath(folder) + " is in the catalogue."};
    }
    const auto& rules = targetRulesFor((*volume)->identity.filesystemType);
    std::vector<TargetName> names;
    std::vector<Reordered> moves;
    std::unordered_set<BytePath> sources;
    for (const auto& holding : inPlaceFirst(*holdings, root, **volume, layout, rules)) {
        names.push_back(holding.filed.name);
        moves.push_back({holding.id, joinPath(root, holding.within), {}, holding.filed.folderAltered});
        sources.insert(holding.within);
    }
    fitAll(rules, usualReplacements(), names, [&](const BytePath& path, std::size_t /*at*/) {
        return !sources.contains(path) && isTaken(joinPath(root, path));
    });
    for (std::size_t at = 0; at < names.size(); ++at) {
        moves[at].to = joinPath(root, pathOf(names[at]));
        moves[at].altered = names[at].fitted.why.empty() ? moves[at].altered : names[at].fitted.why;
    }
    std::erase_if(moves, [](const Reordered& move) { return move.to == move.from; });
    return inOrder(std::move(moves));
}

} // namespace sober
