#include "core/work/waiting_finds.h"

#include "core/base/text.h"
#include "core/catalogue/docket_store.h"

#include <algorithm>

namespace sober {
namespace {

/// An action of the docket that is about a find.
struct Taking {
    ActionId action = 0;
    FindId find = 0;
    ActionKind kind = ActionKind::salvage;
};

Result<std::vector<Taking>> takings(const Catalogue& catalogue) {
    const auto actions = DocketStore(catalogue).all();
    RETURN_IF_FAILED(actions);
    std::vector<Taking> found;
    for (const auto& action : *actions) {
        const bool isFinds = action.kind == ActionKind::salvage || action.kind == ActionKind::discard;
        const auto bytes = isFinds ? unpackFindBytes(action.change) : std::nullopt;
        if (bytes) {
            found.push_back({action.id, bytes->find, action.kind});
        }
    }
    return found;
}

} // namespace

Result<std::map<FindId, ActionKind>> waitingFinds(const Catalogue& catalogue) {
    const auto waiting = takings(catalogue);
    RETURN_IF_FAILED(waiting);
    std::map<FindId, ActionKind> finds;
    for (const auto& taking : *waiting) {
        finds.emplace(taking.find, taking.kind);
    }
    return finds;
}

Outcome leaveFinds(const Catalogue& catalogue, std::span<const FindId> finds) {
    const auto waiting = takings(catalogue);
    RETURN_IF_FAILED(waiting);
    std::vector<ActionId> off;
    for (const auto& taking : *waiting) {
        if (std::ranges::find(finds, taking.find) != finds.end()) {
            off.push_back(taking.action);
        }
    }
    const auto removed = DocketStore(catalogue).removeActions(off);
    return removed ? done() : Outcome(removed.error());
}

Outcome forgetImage(const Catalogue& catalogue, const BytePath& image) {
    const SalvageStore store(catalogue);
    const auto source = store.sourceOf(image);
    const auto waiting =
        source ? waitingFinds(catalogue) : Result<std::map<FindId, ActionKind>>(source.error());
    RETURN_IF_FAILED(waiting);
    if (!*source || image.empty()) {
        return Error{Cause::notFound, image, displayPath(image) + " was not looked through."};
    }
    const auto finds = store.finds((*source)->id);
    RETURN_IF_FAILED(finds);
    if (std::ranges::any_of(*finds, [&](const Find& find) { return waiting->contains(find.id); })) {
        return Error{Cause::invalid, image, "Some of what was found there stands on the docket."};
    }
    return store.forget((*source)->id);
}

} // namespace sober
