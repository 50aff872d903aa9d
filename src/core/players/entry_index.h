#pragma once

#include "core/players/list_reading.h"
#include "core/players/resolver.h"

#include <cstdint>
#include <unordered_map>

namespace sober {

/// From where references lead to where they are to lead, absolute. A place that leads to itself: what finds
/// it only nearly is written exactly.
using NewPlaces = std::unordered_map<BytePath, BytePath>;

/// Which entries of a list may lead to a place: by where they led when they were added, and by all that they
/// can be read as. With it a long list that is changed often, a few entries at a time, is looked through
/// once. It stands for the entries in their order, and holds while these are the same.
class EntryIndex {
  public:
    EntryIndex() = default;
    EntryIndex(const Playlist& playlist, const ListContext& context, Resolver& resolver);

    /// An entry that says this now; what it said before is still found, and looked at for nothing.
    void add(std::size_t entry, std::string_view location, const ListContext& context, Resolver& resolver);
    /// In the order of the list: all that may lead to one of the places, and perhaps others.
    std::vector<std::size_t> mayLeadTo(const NewPlaces& places) const;

  private:
    void add(std::size_t entry, const BytePath& place);

    std::unordered_multimap<std::size_t, std::uint32_t> entries_; ///< by the hash of a place's folded name
};

} // namespace sober
