#include "app/desks/salvage/salvage_rows.h"

#include "app/desks/salvage/find_evidence.h"
#include "app/desks/salvage/salvage_bands.h"
#include "app/words.h"
#include "core/catalogue/volumes.h"
#include "core/work/waiting_finds.h"

#include <algorithm>
#include <set>
#include <tuple>

namespace sober::app {
namespace {

Mark markOf(FindStanding standing) {
    switch (standing) {
    case FindStanding::missing:
        return Mark::missing;
    case FindStanding::held:
        return Mark::sound;
    case FindStanding::retired:
        return Mark::retire;
    case FindStanding::unknown:
        break;
    }
    return Mark::undetermined;
}

QString standingWords(FindStanding standing) {
    switch (standing) {
    case FindStanding::missing:
        return FindEvidence::tr("missing here");
    case FindStanding::held:
        return FindEvidence::tr("held");
    case FindStanding::retired:
        return FindEvidence::tr("retired");
    case FindStanding::unknown:
        break;
    }
    return FindEvidence::tr("new");
}

/// Of what is new and belongs together the best alone is left, and how many more there are of it.
void putTogether(const std::vector<Find>& finds, const std::vector<KnownFind>& known, SalvageSeen& seen) {
    const auto better = [](const Find& a, const Find& b) {
        return std::tuple(a.isWhole(), a.seconds, a.bytes) > std::tuple(b.isWhole(), b.seconds, b.bytes);
    };
    std::map<FindId, std::vector<const Find*>> groups;
    std::set<FindId> shown(seen.ids.begin(), seen.ids.end());
    for (std::size_t i = 0; i < finds.size(); ++i) {
        if (known[i].standing == FindStanding::unknown && finds[i].kin != 0 && shown.contains(finds[i].id)) {
            groups[finds[i].kin].push_back(&finds[i]);
        }
    }
    std::set<FindId> left;
    for (auto& [kin, members] : groups) {
        std::ranges::stable_sort(members, [&](const Find* a, const Find* b) { return better(*a, *b); });
        if (members.size() > 1) {
            seen.alike[members.front()->id] = members.size() - 1;
        }
        for (std::size_t i = 1; i < members.size(); ++i) {
            left.insert(members[i]->id);
            seen.shownBy[members[i]->id] = members.front()->id;
        }
    }
    std::erase_if(seen.ids, [&](FindId id) { return left.contains(id); });
}

} // namespace

Result<SalvageSeen> lookAtSalvage(const Catalogue& catalogue, const BytePath& source,
                                  const FindNarrowing& narrowing) {
    const SalvageStore store(catalogue);
    auto images = store.images();
    const auto shownSource = store.sourceOf(source);
    if (!images || !shownSource) {
        return images ? shownSource.error() : images.error();
    }
    SalvageSeen seen;
    if (const auto volumes = Volumes(catalogue).all()) {
        const auto atHand = std::ranges::find_if(*volumes, &Volume::atHand);
        seen.near = BytePath(!images->empty()           ? parentOf(images->front().path)
                             : atHand != volumes->end() ? parentOf(atHand->root)
                                                        : std::string_view());
    }
    seen.images = std::move(*images);
    seen.source = *shownSource;
    auto finds = seen.source ? store.finds(seen.source->id) : Result(std::vector<Find>{});
    RETURN_IF_FAILED(finds);
    if (source.empty()) {
        std::ranges::stable_sort(*finds, std::ranges::greater{}, &Find::deleted);
    }
    const auto known = standingsOf(catalogue, *finds);
    RETURN_IF_FAILED(known);
    std::set<std::string> formats;
    for (std::size_t i = 0; i < finds->size(); ++i) {
        const auto& find = (*finds)[i];
        const auto standing = (*known)[i].standing;
        formats.insert(find.format);
        seen.band.pieces.push_back({find.id, findName(find, (*known)[i]), find.extents,
                                    standing == FindStanding::missing   ? SalvageStrip::Ink::missing
                                    : standing == FindStanding::unknown ? SalvageStrip::Ink::fresh
                                                                        : SalvageStrip::Ink::held,
                                    find.isWhole() || !find.examined});
        const bool fits = (narrowing.standing == 0 || narrowing.standing - 1 == static_cast<int>(standing)) &&
                          (narrowing.whole == 0 || (narrowing.whole == 1) == find.isWhole()) &&
                          (narrowing.format.empty() || narrowing.format == find.format);
        if (fits) {
            seen.ids.push_back(find.id);
        }
    }
    if (narrowing.isTogether) {
        putTogether(*finds, *known, seen);
    }
    seen.formats.assign(formats.begin(), formats.end());
    if (source.empty()) {
        layTrash(seen.band, *finds);
    } else if (seen.source) {
        layImage(seen.band, *seen.source);
        if (const auto unread = unreadOf(source)) {
            seen.band.unread = *unread;
        }
    } else if (const auto map = mapOf(source); map && *map) {
        seen.band = bandOf(**map); // made, and not looked through yet
    }
    return seen;
}

Result<std::vector<FindRow>> fetchFindRows(const Catalogue& catalogue, std::span<const std::int64_t> ids) {
    auto finds = SalvageStore(catalogue).byIds(ids);
    auto known = finds ? standingsOf(catalogue, *finds) : Result<std::vector<KnownFind>>(finds.error());
    const auto waiting =
        known ? waitingFinds(catalogue) : Result<std::map<FindId, ActionKind>>(known.error());
    RETURN_IF_FAILED(waiting);
    std::vector<FindRow> rows;
    for (std::size_t i = 0; i < finds->size(); ++i) {
        const auto waits = waiting->find((*finds)[i].id);
        rows.push_back({(*finds)[i], (*known)[i],
                        waits == waiting->end() ? std::nullopt : std::optional(waits->second)});
    }
    return rows;
}

std::vector<Column<FindRow>> findColumns(std::function<std::size_t(FindId)> othersLike) {
    return {
        {FindEvidence::tr("It is"),
         [](const FindRow& row) {
             return row.waits == ActionKind::discard
                        ? Cell{FindEvidence::tr("to be let go of"), Mark::retire, false, false, {}}
                    : row.waits ? Cell{FindEvidence::tr("to be taken"), Mark::moved, false, false, {}}
                    : !row.find.taken.empty()
                        ? Cell{FindEvidence::tr("taken"), Mark::keep, false, true, shownPath(row.find.taken)}
                        : Cell{standingWords(row.known.standing),
                               markOf(row.known.standing),
                               false,
                               false,
                               {}};
         }},
        {FindEvidence::tr("Name"),
         [othersLike = std::move(othersLike)](const FindRow& row) {
             const auto others = othersLike(row.find.id);
             const auto name = findName(row.find, row.known);
             return Cell{others == 0 ? name : FindEvidence::tr("%1, and %2 more").arg(name).arg(others),
                         Mark::none,
                         false,
                         false,
                         {}};
         }},
        {FindEvidence::tr("How whole"),
         [](const FindRow& row) {
             return Cell{
                 wholeWords(row.find), row.find.isWhole() ? Mark::sound : Mark::damaged, false, false, {}};
         }},
        {FindEvidence::tr("Format"),
         [](const FindRow& row) {
             return Cell{told(row.find.format), Mark::none, false, false, {}};
         }},
        {FindEvidence::tr("Length"),
         [](const FindRow& row) {
             return Cell{row.find.seconds > 0 ? told(humanSeconds(row.find.seconds)) : QStringLiteral("–"),
                         Mark::none,
                         false,
                         false,
                         {}};
         },
         true},
        {FindEvidence::tr("Size"),
         [](const FindRow& row) {
             return Cell{told(humanBytes(row.find.bytes)), Mark::none, false, false, {}};
         },
         true},
        {FindEvidence::tr("Its place"), [](const FindRow& row) {
             const auto& place =
                 row.known.standing != FindStanding::unknown ? row.known.place : row.find.from;
             return place.empty() ? Cell{FindEvidence::tr("not known"), Mark::none, false, true, {}}
                                  : Cell{shownPath(place), Mark::none, true, false, shownPath(place)};
         }}};
}

} // namespace sober::app
