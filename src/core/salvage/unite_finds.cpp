#include "core/salvage/unite_finds.h"

#include "core/base/byte_ranges.h"

#include <algorithm>
#include <map>
#include <set>

namespace sober {
namespace {

/// So much of a piece lies in what was laid together: then it is a part of that, and no find of its own.
constexpr double mostly = 0.9;

bool isPartOf(const Find& find, const Find& whole) {
    if (find.firstByte() == whole.firstByte()) {
        return true;
    }
    const auto within = overlapOf(find.extents, whole.extents);
    return static_cast<double>(within) >= mostly * static_cast<double>(find.bytes);
}

} // namespace

Outcome uniteNames(const SalvageStore& store, std::vector<Find>& finds) {
    std::map<std::uint64_t, Find*> named;
    for (auto& find : finds) {
        if (find.how == FoundHow::entry && !find.extents.empty()) {
            named.emplace(find.firstByte(), &find);
        }
    }
    std::set<FindId> less;
    std::vector<Find> changed;
    for (auto& find : finds) {
        const auto same = find.how == FoundHow::carved ? named.find(find.firstByte()) : named.end();
        if (same == named.end()) {
            continue;
        }
        auto& entry = *same->second;
        const bool carvedIsBetter = entry.sound != true && find.sound == true;
        if (carvedIsBetter) {
            find.name = entry.name;
            find.from = entry.from;
            changed.push_back(find);
        }
        less.insert(carvedIsBetter ? entry.id : find.id);
    }
    const auto updated = store.update(changed);
    const std::vector<FindId> ids(less.begin(), less.end());
    const auto removed = updated ? store.remove(ids) : updated;
    std::erase_if(finds, [&](const Find& find) { return less.contains(find.id); });
    return removed;
}

std::vector<FindId> partsOf(std::span<const Find> finds, std::span<Find> laid) {
    std::vector<FindId> parts;
    for (const auto& find : finds) {
        const auto whole =
            find.recognised == RecognisedBy::bytes
                ? laid.end()
                : std::ranges::find_if(laid, [&](const Find& each) { return isPartOf(find, each); });
        if (whole == laid.end()) {
            continue;
        }
        parts.push_back(find.id);
        if (whole->name.empty() && find.firstByte() == whole->firstByte()) {
            whole->name = find.name;
            whole->from = find.from;
        }
    }
    return parts;
}

} // namespace sober
