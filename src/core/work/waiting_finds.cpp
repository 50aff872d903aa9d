#include "core/work/waiting_finds.h"

#include "core/base/text.h"
#include "core/catalogue/docket_store.h"

#include <algorithm>

namespace sober {
namespace {

/// Actions of the docket and the find that each takes.
Result<std::vector<std::pair<ActionId, FindId>>> takings(const Catalogue& catalogue) {
    const auto actions = DocketStore(catalogue).all();
    if (!actions) {
        return actions.error();
    }
    std::vector<std::pair<ActionId, FindId>> found;
    for (const auto& action : *actions) {
        const bool isFinds = action.kind == ActionKind::salvage || action.kind == ActionKind::discard;
        const auto bytes = isFinds ? unpackFindBytes(action.change) : std::nullopt;
        if (bytes) {
            found.emplace_back(action.id, bytes->find);
        }
    }
    return found;
}

} // namespace

Result<std::set<FindId>> waitingFinds(const Catalogue& catalogue) {
    const auto waiting = takings(catalogue);
    if (!waiting) {
        return waiting.error();
    }
    std::set<FindId> ids;
    for (const auto& [action, find] : *waiting) {
        ids.insert(find);
    }
    return ids;
}

Outcome leaveFinds(const Catalogue& catalogue, std::span<const FindId> finds) {
    const auto waiting = takings(catalogue);
    if (!waiting) {
        return waiting.error();
    }
    std::vector<ActionId> off;
    for (const auto& [action, find] : *waiting) {
        if (std::ranges::find(finds, find) != finds.end()) {
            off.push_back(action);
        }
    }
    const auto removed = DocketStore(catalogue).removeActions(off);
    return removed ? done() : Outcome(removed.error());
}

Outcome forgetImage(const Catalogue& catalogue, const BytePath& image) {
    const SalvageStore store(catalogue);
    const auto source = store.sourceOf(image);
    const auto waiting = source ? waitingFinds(catalogue) : Result<std::set<FindId>>(source.error());
    if (!waiting) {
        return waiting.error();
    }
    if (!*source || image.empty()) {
        return Error{Cause::notFound, image, displayPath(image) + " was not looked through."};
    }
    const auto finds = store.finds((*source)->id);
    if (!finds) {
        return finds.error();
    }
    if (std::ranges::any_of(*finds, [&](const Find& find) { return waiting->contains(find.id); })) {
        return Error{Cause::invalid, image, "Some of what was found there stands on the docket."};
    }
    return store.forget((*source)->id);
}

} // namespace sober
