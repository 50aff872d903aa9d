#pragma once

#include "core/players/entry_index.h"

namespace sober {

/// One entry of a list before and after.
struct ListedChange {
    std::size_t entry = 0;
    std::size_t line = 1; ///< of the list's text, from 1
    std::string before;
    std::string after;
};

/// An entry that cannot be made to lead where it should.
struct Unreachable {
    BytePath place; ///< where it leads
    std::string sentence;
};

struct RewrittenList {
    std::string text;
    std::vector<ListedChange> changes; ///< in the order of the list
    std::vector<Unreachable> unreachable;
};

/// The text of a list with every entry that leads to one of `newPlaces` leading to the new place, written the
/// way it was: absolute, relative, as URI, with backslashes, as the player's device sees it. A relative entry
/// that stays within its volume is not made to leave it: the device would not find the file. With an index of
/// its entries, only those that may lead there are looked at.
Result<RewrittenList> rewrittenList(const ListFile& list, const ReadList& read, const ListContext& context,
                                    Resolver& resolver, std::span<const Volume> volumes,
                                    const NewPlaces& newPlaces, const EntryIndex* index = nullptr);

/// What an entry of a list that leads to `place` has to say to lead to `target`. Cause::refused where its
/// player cannot reach that.
Result<std::string> locationLeadingTo(const BytePath& target, const BytePath& place, std::string_view was,
                                      const ListFile& list, const ListContext& context,
                                      std::span<const Volume> volumes);

} // namespace sober
