#include "core/players/entry_index.h"

#include "core/base/text.h"

#include <algorithm>

namespace sober {

EntryIndex::EntryIndex(const Playlist& playlist, const ListContext& context, Resolver& resolver) {
    entries_.reserve(playlist.entries.size() * 2);
    for (std::size_t i = 0; i < playlist.entries.size(); ++i) {
        add(i, playlist.entries[i].location, context, resolver);
    }
}

void EntryIndex::add(std::size_t entry, std::string_view location, const ListContext& context,
                     Resolver& resolver) {
    const auto resolution = resolver.resolve(location, context);
    if (resolution.state == ReferenceState::stream) {
        return;
    }
    auto places = resolver.placesOf(location, context);
    places.push_back(resolution.path);
    places.push_back(resolution.instead);
    std::ranges::sort(places);
    const auto same = std::ranges::unique(places);
    places.erase(same.begin(), same.end());
    for (const auto& place : places) {
        add(entry, place);
    }
}

void EntryIndex::add(std::size_t entry, const BytePath& place) {
    if (!place.empty()) {
        entries_.emplace(std::hash<std::string>()(foldedName(place)), static_cast<std::uint32_t>(entry));
    }
}

std::vector<std::size_t> EntryIndex::mayLeadTo(const NewPlaces& places) const {
    std::vector<std::size_t> entries;
    for (const auto& [from, to] : places) {
        const auto [first, past] = entries_.equal_range(std::hash<std::string>()(foldedName(from)));
        std::transform(first, past, std::back_inserter(entries),
                       [](const auto& each) { return each.second; });
    }
    std::ranges::sort(entries);
    const auto same = std::ranges::unique(entries);
    entries.erase(same.begin(), same.end());
    return entries;
}

} // namespace sober
