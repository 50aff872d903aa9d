#include "core/media/carve/carvings.h"
#include "core/media/push_parser.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

using namespace std::string_view_literals;

constexpr auto asfHeader = "\x30\x26\xB2\x75\x8E\x66\xCF\x11\xA6\xD9\x00\xAA\x00\x62\xCE\x6C"sv;
constexpr auto asfFile = "\xA1\xDC\xAB\x8C\x47\xA9\xCF\x11\x8E\xE4\x00\xC0\x0C\x20\x53\x65"sv;
constexpr auto asfStream = "\x91\x07\xDC\xB7\xB7\xA9\xCF\x11\x8E\xE6\x00\xC0\x0C\x20\x53\x65"sv;
constexpr auto asfAudio = "\x40\x9E\x69\xF8\x4D\x5B\xCF\x11\xA8\xFD\x00\x80\x5F\x5C\x44\x2B"sv;
constexpr auto asfVideo = "\xC0\xEF\x19\xBC\x4D\x5B\xCF\x11\xA8\xFD\x00\x80\x5F\x5C\x44\x2B"sv;
constexpr auto asfData = "\x36\x26\xB2\x75\x8E\x66\xCF\x11\xA6\xD9\x00\xAA\x00\x62\xCE\x6C"sv;
constexpr auto asfSimpleIndex = "\x90\x08\x00\x33\xB1\xE5\xCF\x11\x89\xF4\x00\xA0\xC9\x03\x49\xCB"sv;
constexpr auto asfIndex = "\xD3\x29\xE2\xD6\xDA\x35\xD1\x11\x90\x34\x00\xA0\xC9\x03\x49\xBE"sv;

/// A number of Musepack's packets: seven bits a byte, the highest first.
std::pair<std::uint64_t, std::size_t> variableNumber(std::span<const std::uint8_t> bytes) {
    std::uint64_t value = 0;
    for (std::size_t i = 0; i < bytes.size() && i < 9; ++i) {
        value = value << 7 | (bytes[i] & 127U);
        if ((bytes[i] & 128) == 0) {
            return {value, i + 1};
        }
    }
    return {0, 0};
}

/// The header's objects: how long it lasts, and what streams there are.
void readAsfHeader(ImageWindow& window, std::uint64_t at, std::uint64_t past, Piece& piece, bool& sounds) {
    constexpr int mostObjects = 1'000;
    for (int i = 0; i < mostObjects && at + 24 <= past; ++i) {
        const auto object = window.at(at, 104);
        if (object.size() < 24) {
            return;
        }
        const auto length = littleEndian(object.subspan(16, 8));
        if (length < 24 || length > past - at) {
            return;
        }
        if (beginsWith(object, asfFile) && object.size() >= 88) {
            constexpr double ticks = 1e7; // a second
            const auto played = static_cast<double>(littleEndian(object.subspan(64, 8))) / ticks;
            const auto preroll = static_cast<double>(littleEndian(object.subspan(80, 8))) / 1000;
            piece.seconds = std::max(0.0, played - preroll);
        } else if (beginsWith(object, asfStream)) {
            sounds = sounds || beginsWith(object.subspan(24), asfAudio);
            piece.isVideo = piece.isVideo || beginsWith(object.subspan(24), asfVideo);
        }
        at += length;
    }
}

} // namespace

std::optional<Piece> carveWavPack(ImageWindow& window, std::uint64_t at) {
    constexpr unsigned rates[]{6'000,  8'000,  9'600,  11'025, 12'000, 16'000, 22'050,  24'000,
                               32'000, 44'100, 48'000, 64'000, 88'200, 96'000, 192'000, 0};
    Piece piece;
    piece.kind = PieceKind::wavpack;
    piece.first = at;
    piece.past = at;
    unsigned rate = 0;
    std::uint64_t samples = 0;
    std::uint64_t total = 0;
    std::uint64_t blocks = 0;
    auto last = at; // beginning of the last block
    while (true) {
        const auto head = window.at(piece.past, 32);
        if (head.size() < 32 || !beginsWith(head, "wvpk"sv) || head[9] != 4) {
            break;
        }
        const auto length = littleEndian(head.subspan(4, 4)) + 8;
        const auto index = littleEndian(head.subspan(16, 4)) | static_cast<std::uint64_t>(head[10]) << 32;
        const auto count = littleEndian(head.subspan(20, 4));
        if (length < 32 || length > ImageWindow::longest || piece.past + length > window.size()) {
            break;
        }
        if (blocks > 0 && index == 0 && samples > 0 && piece.past % sectorBytes == 0 && samples >= total) {
            break; // another file, side by side with this one
        }
        if (blocks == 0) {
            piece.begins = index == 0;
            piece.firstUnit = index;
            rate = rates[littleEndian(head.subspan(24, 4)) >> 23 & 15];
            const auto stated = littleEndian(head.subspan(12, 4));
            total = piece.begins && stated != 0xFFFFFFFFU
                        ? stated | static_cast<std::uint64_t>(head[11]) << 32
                        : 0;
        } else if (count > 0 && index != samples && index + count != samples) {
            break; // blocks of one moment, for more channels, have one index
        }
        samples = std::max(samples, index + count);
        last = piece.past;
        piece.past += length;
        ++blocks;
    }
    constexpr std::uint64_t fewestBlocks = 2;
    if (blocks == 0 || (!piece.begins && blocks < fewestBlocks)) {
        return std::nullopt;
    }
    piece.stated = total;
    piece.nextUnit = samples;
    piece.seconds = rate > 0 ? static_cast<double>(samples - piece.firstUnit) / rate : 0;
    piece.ends = total > 0 ? samples >= total : isSlack(window, piece.past);
    // A block that no other follows is whole only where it is the last.
    piece.past = piece.ends ? behindTags(window, piece.past) : last;
    return piece.past > at ? std::optional(piece) : std::nullopt;
}

std::optional<Piece> carveAsf(ImageWindow& window, std::uint64_t at) {
    const auto head = window.at(at, 30);
    if (head.size() < 30 || !beginsWith(head, asfHeader)) {
        return std::nullopt;
    }
    Piece piece;
    piece.kind = PieceKind::asf;
    piece.first = at;
    const auto headLength = littleEndian(head.subspan(16, 8));
    if (headLength < 30 || headLength > window.size() - at) {
        return std::nullopt;
    }
    bool sounds = false;
    readAsfHeader(window, at + 30, at + headLength, piece, sounds);
    bool hasData = false;
    piece.past = at + headLength;
    while (piece.past < window.size()) {
        const auto object = window.at(piece.past, 24);
        const bool isData = !hasData && beginsWith(object, asfData);
        if (object.size() < 24 ||
            (!isData && !beginsWith(object, asfSimpleIndex) && !beginsWith(object, asfIndex))) {
            break;
        }
        const auto length = littleEndian(object.subspan(16, 8));
        if (length < 24 || length > window.size() - piece.past) {
            piece.past = isData ? window.size() : piece.past;
            return sounds ? std::optional(piece) : std::nullopt;
        }
        hasData = hasData || isData;
        piece.past += length;
    }
    piece.ends = hasData;
    return (sounds || piece.isVideo) && hasData ? std::optional(piece) : std::nullopt;
}

std::optional<Piece> carveMusepack(ImageWindow& window, std::uint64_t at) {
    if (!beginsWith(window.at(at, 4), "MPCK"sv)) {
        return std::nullopt;
    }
    constexpr std::array<double, 4> rates{44'100, 48'000, 37'800, 32'000};
    constexpr int mostPackets = 1'000'000;
    Piece piece;
    piece.kind = PieceKind::musepack;
    piece.first = at;
    piece.past = at + 4;
    bool hasHeader = false;
    for (int i = 0; i < mostPackets && !piece.ends; ++i) {
        const auto head = window.at(piece.past, 40);
        if (head.size() < 3 || !std::ranges::all_of(head.first(2), [](std::uint8_t letter) {
                return letter >= 'A' && letter <= 'Z';
            })) {
            break;
        }
        const auto [length, digits] = variableNumber(head.subspan(2));
        if (digits == 0 || length < 2 + digits || length > window.size() - piece.past) {
            break;
        }
        if (beginsWith(head, "SH"sv) && head.size() > 2 + digits + 5) {
            const auto content = head.subspan(2 + digits + 5);
            const auto [samples, used] = variableNumber(content);
            const auto [silence, more] = variableNumber(content.subspan(used));
            hasHeader = used > 0 && content.size() > used + more;
            if (hasHeader) {
                piece.seconds = static_cast<double>(samples - std::min(samples, silence)) /
                                rates[std::min<std::size_t>(content[used + more] >> 5, 3)];
            }
        }
        piece.ends = beginsWith(head, "SE"sv);
        piece.past += length;
    }
    if (piece.ends) {
        piece.past = behindTags(window, piece.past);
    }
    return hasHeader ? std::optional(piece) : std::nullopt;
}

} // namespace sober
