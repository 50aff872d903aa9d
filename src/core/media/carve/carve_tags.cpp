#include "core/media/carve/carvings.h"
#include "core/media/push_parser.h"

#include <algorithm>

namespace sober {

using namespace std::string_view_literals;

std::uint64_t leadingTagLength(ImageWindow& window, std::uint64_t at) {
    const auto head = window.at(at, 10);
    if (head.size() < 10 || !beginsWith(head, "ID3"sv) || head[3] == 0xFF || head[4] == 0xFF) {
        return 0;
    }
    std::uint64_t length = 0;
    for (std::size_t i = 6; i < 10; ++i) {
        if (head[i] > 127) {
            return 0;
        }
        length = length << 7 | head[i];
    }
    return length + 10 + ((head[5] & 0x10) != 0 ? 10 : 0);
}

std::uint64_t behindTags(ImageWindow& window, std::uint64_t at) {
    constexpr std::uint64_t largestTag = 64U << 20; // pictures in it; no source
    while (true) {
        const auto head = window.at(at, 32);
        if (head.size() >= 3 && beginsWith(head, "TAG"sv) && window.at(at, 128).size() == 128) {
            at += 128;
        } else if (head.size() == 32 && beginsWith(head, "APETAGEX"sv)) {
            const auto length = littleEndian(head.subspan(12, 4));
            const bool isHeader = (head[23] & 0x20) != 0;
            at += isHeader && length <= largestTag ? length + 32 : 32;
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
