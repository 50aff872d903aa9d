#include "core/media/carve/carvings.h"
#include "core/media/push_parser.h"

#include <algorithm>
#include <cctype>
#include <cmath>

namespace sober {
namespace {

using namespace std::string_view_literals;

bool isChunkName(std::span<const std::uint8_t> bytes) {
    return std::ranges::all_of(bytes.first(4), [](std::uint8_t byte) { return byte >= 0x20 && byte < 0x7F; });
}

/// What the chunks of a WAVE or AIFF file say, as far as they are there.
struct Sounding {
    std::uint64_t dataFirst = 0;
    std::uint64_t dataLength = 0;
    std::uint64_t past = 0; ///< of the last chunk that is there by its length
    double bytesPerSecond = 0;
    double seconds = 0; ///< where it is stated
    bool hasFormat = false;
    bool hasData = false;
};

/// A number of IEEE 754's 80-bit form, as AIFF has its rate.
double extendedNumber(std::span<const std::uint8_t> bytes) {
    const int exponent = static_cast<int>(bigEndian(bytes.first(2)) & 0x7FFF) - 16383 - 63;
    return std::ldexp(static_cast<double>(bigEndian(bytes.subspan(2, 8))), exponent);
}

class ChunkWalk {
  public:
    ChunkWalk(ImageWindow& window, bool littleEnd) : window_(window), littleEnd_(littleEnd) {}

    /// The chunks from `at` up to `past`.
    Sounding walk(std::uint64_t at, std::uint64_t past) {
        constexpr int mostChunks = 1'000;
        Sounding found;
        found.past = at;
        for (int i = 0; i < mostChunks && at + 8 <= past; ++i) {
            const auto head = window_.at(at, 64);
            if (head.size() < 8 || !isChunkName(head)) {
                break;
            }
            auto length = number(head.subspan(4, 4));
            if (beginsWith(head, "ds64"sv) && head.size() >= 24) {
                longData_ = littleEndian(head.subspan(16, 8));
            } else if (beginsWith(head, "fmt "sv) && head.size() >= 24) {
                found.hasFormat = true;
                found.bytesPerSecond = static_cast<double>(number(head.subspan(16, 4)));
            } else if (beginsWith(head, "COMM"sv) && head.size() >= 26) {
                found.hasFormat = true;
                const double rate = extendedNumber(head.subspan(16, 10));
                found.seconds = rate > 0 ? static_cast<double>(number(head.subspan(10, 4))) / rate : 0;
            } else if (beginsWith(head, "data"sv) || beginsWith(head, "SSND"sv)) {
                if (length == 0xFFFFFFFFU && longData_ > 0) {
                    length = longData_;
                }
                found.hasData = true;
                found.dataFirst = at + 8;
                found.dataLength = length;
            }
            at += 8 + length + (length & 1);
            found.past = std::min(at, past);
            if (at <= found.dataFirst) {
                break; // its length wraps
            }
        }
        return found;
    }

    std::uint64_t number(std::span<const std::uint8_t> bytes) const {
        return littleEnd_ ? littleEndian(bytes) : bigEndian(bytes);
    }
    std::uint64_t longData() const { return longData_; }

  private:
    ImageWindow& window_;
    bool littleEnd_;
    std::uint64_t longData_ = 0;
};

std::optional<Piece> carveForm(ImageWindow& window, std::uint64_t at, bool littleEnd) {
    const auto head = window.at(at, 48);
    if (head.size() < 12) {
        return std::nullopt;
    }
    ChunkWalk walk(window, littleEnd);
    auto length = walk.number(head.subspan(4, 4));
    if (length == 0xFFFFFFFFU && beginsWith(head.subspan(12), "ds64"sv) && head.size() >= 28) {
        length = littleEndian(head.subspan(20, 8));
    }
    // A recorder that was cut off has not written how long it became.
    constexpr std::uint64_t neverTold = 0xFFFFFF00U;
    const bool isOpen = length <= 36 || (length >= neverTold && length <= 0xFFFFFFFFU);
    const auto size = window.size();
    const auto past = isOpen || length > size - at - 8 ? size : at + 8 + length;
    const auto found = walk.walk(at + 12, past);
    if (!found.hasFormat || !found.hasData) {
        return std::nullopt;
    }
    Piece piece;
    piece.kind = littleEnd ? PieceKind::wav : PieceKind::aiff;
    piece.first = at;
    piece.ends = !isOpen && at + 8 + length <= size;
    piece.past = piece.ends ? at + 8 + length : size;
    const auto sound = std::min(found.dataLength, piece.past - found.dataFirst);
    piece.seconds = found.seconds > 0          ? found.seconds
                    : found.bytesPerSecond > 0 ? static_cast<double>(sound) / found.bytesPerSecond
                                               : 0;
    return piece;
}

} // namespace

std::optional<Piece> carveWave(ImageWindow& window, std::uint64_t at) {
    const auto head = window.at(at, 12);
    const bool isWave =
        (beginsWith(head, "RIFF"sv) || beginsWith(head, "RF64"sv) || beginsWith(head, "BW64"sv)) &&
        head.size() == 12 && beginsWith(head.subspan(8), "WAVE"sv);
    return isWave ? carveForm(window, at, true) : std::nullopt;
}

std::optional<Piece> carveAiff(ImageWindow& window, std::uint64_t at) {
    const auto head = window.at(at, 12);
    const bool isAiff = beginsWith(head, "FORM"sv) && head.size() == 12 &&
                        (beginsWith(head.subspan(8), "AIFF"sv) || beginsWith(head.subspan(8), "AIFC"sv));
    return isAiff ? carveForm(window, at, false) : std::nullopt;
}

} // namespace sober
