#include "app/desks/whereabouts/relink_known.h"

#include "app/desks/whereabouts/relink_panel.h"
#include "app/words.h"
#include "core/catalogue/docket_store.h"

#include <algorithm>

namespace sober::app {

Result<RelinkKnown> relinkKnown(const Catalogue& catalogue) {
    const PlayerStore store(catalogue);
    auto volumes = Volumes(catalogue).all();
    auto players = store.all();
    auto figures = store.figures();
    const auto lists = store.lists();
    const auto actions = DocketStore(catalogue).aboutPlaces();
    if (!volumes || !players || !figures) {
        return !volumes ? volumes.error() : !players ? players.error() : figures.error();
    }
    if (!lists || !actions) {
        return lists ? actions.error() : lists.error();
    }
    RelinkKnown known;
    for (const auto& list : *lists) {
        for (const auto& player : *players) {
            if (std::ranges::find(list.players, player.id) != list.players.end()) {
                known.owners[list.id].push_back(player.name);
            }
        }
    }
    for (const auto& action : *actions) {
        known.waiting[action.place] = action.kind;
    }
    known.volumes = std::move(*volumes);
    known.players = std::move(*players);
    known.figures = std::move(*figures);
    return known;
}

std::span<const std::string> RelinkKnown::namesOf(ListFileId list) const {
    const auto of = owners.find(list);
    return of != owners.end() ? std::span(of->second) : std::span<const std::string>();
}

std::string RelinkKnown::playersOf(const Relinking& found, std::size_t lost) const {
    std::vector<std::string> names;
    for (const auto index : found.brokenOf[lost]) {
        for (const auto& name : namesOf(found.broken[index].list)) {
            if (std::ranges::find(names, name) == names.end()) {
                names.push_back(name);
            }
        }
    }
    std::string joined;
    for (const auto& name : names) {
        joined += joined.empty() ? "" : ", ";
        joined += name;
    }
    return joined;
}

QString RelinkKnown::placeText(const BytePath& path) const {
    for (const auto& volume : volumes) {
        if (const auto within = relativeTo(path, volume.root)) {
            return shownPath(joinPath(volume.label, *within));
        }
    }
    return shownPath(path);
}

QStringList RelinkKnown::figureWords(const Relinking& found) const {
    std::map<std::string, std::uint64_t> mended;
    for (const auto& link : found.links) {
        for (const auto index : found.brokenOf[link.lost]) {
            for (const auto& name : namesOf(found.broken[index].list)) {
                ++mended[name];
            }
        }
    }
    QStringList words;
    for (std::size_t i = 0; i < players.size() && i < figures.size(); ++i) {
        const auto& name = players[i].name;
        const auto& of = figures[i];
        const auto all = told(counted(of.references, "reference"));
        const auto after = of.broken - std::min(of.broken, mended[name]);
        words << (of.broken == 0 && of.away > 0
                      ? RelinkPanel::tr("%1: %2 of %3 lead to a file, %4 to drives that are away")
                            .arg(shown(name), told(humanCount(of.resolved)), all, told(humanCount(of.away)))
                  : of.broken == 0 ? RelinkPanel::tr("%1: all of %2 lead to a file").arg(shown(name), all)
                  : after == of.broken
                      ? RelinkPanel::tr("%1: %2 of %3 broken")
                            .arg(shown(name), told(humanCount(of.broken)), all)
                      : RelinkPanel::tr("%1: %2 of %3 broken, %4 after this")
                            .arg(shown(name), told(humanCount(of.broken)), all, told(humanCount(after))));
    }
    return words;
}

} // namespace sober::app
