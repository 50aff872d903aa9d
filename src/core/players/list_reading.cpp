#include "core/players/list_reading.h"

#include "core/base/text.h"

#include <algorithm>
#include <array>

namespace sober {

bool isListName(const BytePath& path) {
    constexpr std::array<std::string_view, 5> endings{"m3u", "m3u8", "pls", "xspf", "cue"};
    return std::ranges::find(endings, endingOf(path)) != endings.end();
}

Result<ReadList> readList(const BytePath& path) {
    const auto before = stampAt(path);
    auto text = before ? wholeFile(path, largestList) : Result<std::string>(before.error());
    RETURN_IF_FAILED(text);
    const auto after = stampAt(path);
    if (!after || !(*after == *before) || text->size() != after->size) {
        return Error{Cause::busy, path, displayPath(path) + " is being written by its player now."};
    }
    auto playlist = parsePlaylist(*text, path);
    RETURN_IF_FAILED(playlist);
    return ReadList{std::move(*text), std::move(*playlist), *after};
}

ListContext contextOf(const ListFile& list, std::span<const Player> players) {
    ListContext context{BytePath(parentOf(list.path)), list.asUri, {}, {}};
    for (const auto owner : list.players) {
        const auto player = std::ranges::find(players, owner, &Player::id);
        if (player != players.end() && !player->writtenPrefix.empty()) {
            context.writtenPrefix = player->writtenPrefix;
            context.standsFor = player->standsFor;
            break;
        }
    }
    return context;
}

} // namespace sober
