#include "core/transfer/choice_words.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {

Result<std::string> wordsOf(const Catalogue& catalogue, const TransferChoice& choice,
                            std::span<const Volume> volumes) {
    const auto players = PlayerStore(catalogue).all();
    RETURN_IF_FAILED(players);
    std::vector<std::string> words;
    for (const auto& list : choice.lists) {
        words.push_back("the list " + displayPath(nameOf(list)));
    }
    for (const auto& player : *players) {
        if (std::ranges::find(choice.players, player.id) != choice.players.end()) {
            words.push_back("all that " + player.name + " knows");
        }
    }
    const auto labelOf = [&](VolumeId id) {
        const auto volume = std::ranges::find(volumes, id, &Volume::id);
        return volume == volumes.end() ? std::string() : volume->label;
    };
    for (const auto volume : choice.volumes) {
        words.push_back("all of " + labelOf(volume));
    }
    for (const auto& [volume, folder] : choice.folders) {
        words.push_back(displayPath(joinPath(labelOf(volume), folder)));
    }
    for (const auto& [name, filter] : choice.filters) {
        words.push_back(name);
    }
    if (choice.andUnlisted) {
        words.emplace_back("what no list names");
    }
    return fmt::format("{}{}", fmt::join(words, ", "),
                       choice.keepersOnly ? "; of copies only the keepers" : "");
}

} // namespace sober
