#include "core/work/settle_finds.h"

#include "core/base/presence.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/file_changes.h"
#include "core/salvage/trash_finds.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

/// What stands at its place by these bytes has no need to lie in the trash as well.
Outcome leaveTrash(const Find& find, const BytePath& place) {
    const auto proven = holds(place, *find.checksum);
    const auto same = proven ? holds(find.file, *find.checksum) : proven;
    if (!same) {
        return same;
    }
    Unflushed unflushed;
    const auto note = noteOfTrashed(find.file);
    const auto removed = removeFile(find.file, unflushed);
    const auto noted = removed && !note.empty() ? removeFile(note, unflushed) : removed;
    unflushed.flush();
    return noted;
}

} // namespace

Outcome settleFinds(const Catalogue& catalogue, std::span<const PlannedAction> actions, CarriedOut& carried) {
    const SalvageStore store(catalogue);
    std::vector<Find> changed;
    for (const auto& planned : actions) {
        const auto bytes = planned.action.kind == ActionKind::salvage ? unpackFindBytes(planned.action.change)
                                                                      : std::nullopt;
        const bool wasRefused =
            std::ranges::find(carried.refused, planned.path, &RefusedAction::path) != carried.refused.end();
        if (!bytes || wasRefused || presenceOf(planned.path) != Presence::there) {
            continue;
        }
        auto finds = store.byIds(std::array{bytes->find});
        RETURN_IF_FAILED(finds);
        for (auto& find : *finds) {
            find.taken = planned.path;
            if (find.how == FoundHow::trash) {
                if (const auto left = leaveTrash(find, planned.path); !left) {
                    carried.refused.push_back({find.file, left.error().sentence});
                }
            }
            changed.push_back(std::move(find));
        }
    }
    return changed.empty() ? done() : store.update(changed);
}

Outcome forgetTaken(const Catalogue& catalogue) {
    const SalvageStore store(catalogue);
    auto finds = store.taken();
    RETURN_IF_FAILED(finds);
    std::erase_if(*finds, [](const Find& find) { return presenceOf(find.taken) != Presence::gone; });
    for (auto& find : *finds) {
        find.taken.clear();
    }
    return finds->empty() ? done() : store.update(*finds);
}

} // namespace sober
