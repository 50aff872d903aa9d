#include "core/media/carve/carvings.h"
#include "core/media/push_parser.h"
#include "core/media/tag_lengths.h"

#include <algorithm>

namespace sober {

using namespace std::string_view_literals;

std::uint64_t leadingTagLength(ImageWindow& window, std::uint64_t at) {
    return id3Length(window.at(at, longestTagHead));
}

std::uint64_t behindTags(ImageWindow& window, std::uint64_t at) {
    constexpr std::uint64_t largestTag = 64U << 20; // pictures in it; no source
    while (true) {
        const auto head = window.at(at, longestTagHead);
        if (head.size() >= 3 && beginsWith(head, "TAG"sv) && window.at(at, 128).size() == 128) {
            at += 128;
        } else if (const auto length = apeLength(head); length > 0) {
            at += length <= largestTag ? length : longestTagHead;
        } else {
            return std::min(at, window.size());
        }
    }
}

bool isSlack(ImageWindow& window, std::uint64_t at) {
    const auto left = (sectorBytes - at % sectorBytes) % sectorBytes;
    const auto rest = window.at(at, static_cast<std::size_t>(left));
    return at >= window.size() ||
           (left > 0 && std::ranges::all_of(rest, [](std::uint8_t byte) { return byte == 0; }));
}

std::optional<Piece> carveTagged(ImageWindow& window, std::uint64_t at) {
    const auto tag = leadingTagLength(window, at);
    if (tag == 0 || at + tag >= window.size()) {
        return std::nullopt;
    }
    // Some writers leave room between tag and audio.
    constexpr std::uint64_t mostPadding = 64U << 10;
    auto audio = at + tag;
    while (audio < at + tag + mostPadding) {
        const auto bytes = window.at(audio, 4096);
        const auto begun = std::ranges::find_if(bytes, [](std::uint8_t byte) { return byte != 0; });
        audio += static_cast<std::uint64_t>(begun - bytes.begin());
        if (begun != bytes.end() || bytes.empty()) {
            break;
        }
    }
    auto piece = carveMpeg(window, audio);
    if (!piece) {
        piece = carveAdts(window, audio);
    }
    if (!piece && beginsWith(window.at(audio, 4), "fLaC"sv)) {
        piece = carveFlac(window, audio);
    }
    if (piece) {
        piece->first = at;
        piece->begins = true;
    }
    return piece;
}

} // namespace sober
