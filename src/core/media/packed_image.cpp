#include "core/media/packed_image.h"

#include "core/base/text.h"
#include "core/media/push_parser.h"

#include <algorithm>
#include <memory>
#include <zlib.h>
#include <zstd.h>

namespace sober {
namespace {

using Bytes = std::span<const std::uint8_t>;

constexpr std::uint64_t largestUnit = 64U << 20;
constexpr std::size_t mostUnits = 4U << 20;
constexpr std::size_t mostHeld = 160U << 20; // two of the largest and some small ones
constexpr std::size_t mostHeldUnits = 256;

Error inOnePiece(const BytePath& path) {
    return {Cause::invalid, path,
            displayPath(path) +
                " was compressed as one stream, in which one cannot look back. Unpack it first."};
}

Error notWhole(const BytePath& path) {
    return {Cause::damaged, path, displayPath(path) + " is not whole: what it was compressed to breaks off."};
}

/// Bytes from a place on, all that are asked for or nothing.
bool fetch(ByteSource& source, std::uint64_t at, std::span<std::uint8_t> into) {
    return source.readAt(at, into) == static_cast<std::int64_t>(into.size());
}

/// Of a block of BGZF its length, of an empty or other one 0; `head` are its first 18 bytes.
std::uint64_t blockLength(Bytes head) {
    const bool isBlock = beginsWith(head, "\x1F\x8B\x08\x04") && littleEndian(head.subspan(10, 2)) >= 6 &&
                         head[12] == 'B' && head[13] == 'C' && littleEndian(head.subspan(14, 2)) == 2;
    return isBlock ? littleEndian(head.subspan(16, 2)) + 1 : 0;
}

Result<std::vector<PackedUnit>> gzipUnits(ByteSource& packed, const BytePath& path) {
    constexpr std::size_t headLength = 18;
    constexpr std::uint64_t mostUnpacked = 65'536;
    std::vector<PackedUnit> units;
    std::uint64_t at = 0;
    for (std::uint64_t place = 0; place < packed.size();) {
        std::uint8_t head[headLength];
        if (!fetch(packed, place, head)) {
            return notWhole(path);
        }
        const auto length = blockLength(head);
        if (length < headLength + 8) {
            return units.empty() ? inOnePiece(path) : notWhole(path);
        }
        std::uint8_t tail[4];
        if (!fetch(packed, place + length - sizeof tail, tail)) {
            return notWhole(path);
        }
        const auto unpacked = littleEndian(tail);
        if (unpacked > mostUnpacked || units.size() == mostUnits) {
            return notWhole(path);
        }
        if (unpacked > 0) {
            units.push_back({place, length, at, unpacked});
        }
        place += length;
        at += unpacked;
    }
    return units;
}

/// One frame of Zstandard, by the headers of its blocks.
struct Frame {
    std::uint64_t past = 0;   ///< one past its last byte
    std::uint64_t length = 0; ///< unpacked, where it states that
    bool isStated = false;
    bool isSkipped = false;
};

std::optional<Frame> frameAt(ByteSource& packed, std::uint64_t at) {
    std::uint8_t head[18]{};
    const auto got = packed.readAt(at, head);
    if (got < 8) {
        return std::nullopt;
    }
    const Bytes bytes(head, static_cast<std::size_t>(got));
    const auto magic = littleEndian(bytes.first(4));
    if ((magic & 0xFFFFFFF0) == 0x184D2A50) {
        return Frame{at + 8 + littleEndian(bytes.subspan(4, 4)), 0, true, true};
    }
    if (magic != 0xFD2FB528) {
        return std::nullopt;
    }
    constexpr std::size_t dictionaryBytes[]{0, 1, 2, 4};
    const auto descriptor = head[4];
    const bool isSingle = (descriptor & 0x20) != 0;
    const std::size_t lengthBytes[]{isSingle ? 1U : 0U, 2, 4, 8};
    const auto fields = 5 + (isSingle ? std::size_t{0} : 1) + dictionaryBytes[descriptor & 3];
    const auto width = lengthBytes[descriptor >> 6];
    Frame frame;
    frame.isStated = width > 0;
    if (fields + width > bytes.size()) {
        return std::nullopt;
    }
    frame.length = frame.isStated ? littleEndian(bytes.subspan(fields, width)) + (width == 2 ? 256 : 0) : 0;
    auto place = at + fields + width;
    for (bool isLast = false; !isLast;) {
        std::uint8_t block[3];
        if (!fetch(packed, place, block)) {
            return std::nullopt;
        }
        const auto header = littleEndian(block);
        isLast = (header & 1) != 0;
        const auto type = header >> 1 & 3;
        if (type == 3) {
            return std::nullopt;
        }
        place += 3 + (type == 1 ? 1 : header >> 3);
    }
    frame.past = place + ((descriptor & 4) != 0 ? 4 : 0);
    return frame.past <= packed.size() ? std::optional(frame) : std::nullopt;
}

using ZstdContext = std::unique_ptr<ZSTD_DCtx, std::size_t (*)(ZSTD_DCtx*)>;

/// What a frame that does not state it unpacks to; nothing where that is too much or breaks off.
std::optional<std::uint64_t> measured(Bytes frame) {
    const ZstdContext context(ZSTD_createDCtx(), ZSTD_freeDCtx);
    std::vector<std::uint8_t> room(ZSTD_DStreamOutSize());
    ZSTD_inBuffer in{frame.data(), frame.size(), 0};
    std::uint64_t length = 0;
    for (std::size_t left = 1; left > 0;) {
        ZSTD_outBuffer out{room.data(), room.size(), 0};
        const auto before = in.pos;
        left = ZSTD_decompressStream(context.get(), &out, &in);
        length += out.pos;
        if (ZSTD_isError(left) != 0 || length > largestUnit ||
            (left > 0 && out.pos == 0 && in.pos == before)) {
            return std::nullopt;
        }
    }
    return length;
}

Result<std::vector<PackedUnit>> zstdUnits(ByteSource& packed, const BytePath& path) {
    std::vector<PackedUnit> units;
    std::uint64_t at = 0;
    std::vector<std::uint8_t> bytes;
    for (std::uint64_t place = 0; place < packed.size();) {
        auto frame = frameAt(packed, place);
        if (!frame || units.size() == mostUnits) {
            return notWhole(path);
        }
        const auto packedLength = frame->past - place;
        if (!frame->isStated) {
            if (packedLength > largestUnit + largestUnit / 16) {
                return inOnePiece(path);
            }
            bytes.resize(static_cast<std::size_t>(packedLength));
            const auto length = fetch(packed, place, bytes) ? measured(bytes) : std::nullopt;
            if (!length) {
                return inOnePiece(path);
            }
            frame->length = *length;
        }
        if (frame->length > largestUnit) {
            return inOnePiece(path);
        }
        if (!frame->isSkipped && frame->length > 0) {
            units.push_back({place, packedLength, at, frame->length});
            at += frame->length;
        }
        place = frame->past;
    }
    return units;
}

bool inflateBlock(Bytes block, std::span<std::uint8_t> into) {
    z_stream stream{};
    constexpr int gzipOnly = 16;
    if (inflateInit2(&stream, MAX_WBITS + gzipOnly) != Z_OK) {
        return false;
    }
    stream.next_in = const_cast<Bytef*>(block.data()); // zlib does not write there
    stream.avail_in = static_cast<uInt>(block.size());
    stream.next_out = into.data();
    stream.avail_out = static_cast<uInt>(into.size());
    const bool whole = inflate(&stream, Z_FINISH) == Z_STREAM_END && stream.avail_out == 0;
    inflateEnd(&stream);
    return whole;
}

bool unpackFrame(Bytes frame, std::span<std::uint8_t> into) {
    return ZSTD_decompress(into.data(), into.size(), frame.data(), frame.size()) == into.size();
}

} // namespace

Result<std::vector<PackedUnit>> packedUnits(ByteSource& packed, ImagePacking packing, const BytePath& path) {
    return packing == ImagePacking::gzip ? gzipUnits(packed, path) : zstdUnits(packed, path);
}

PackedImage::PackedImage(ByteSource& packed, ImagePacking packing, std::vector<PackedUnit> units)
    : packed_(packed), packing_(packing), units_(std::move(units)) {}

std::uint64_t PackedImage::size() const {
    return units_.empty() ? 0 : units_.back().at + units_.back().length;
}

const std::vector<std::uint8_t>* PackedImage::unpacked(std::size_t unit) {
    const auto found = std::ranges::find(held_, unit, &Held::unit);
    if (found != held_.end()) {
        held_.splice(held_.begin(), held_, found);
        return &held_.front().bytes;
    }
    const auto& each = units_[unit];
    std::vector<std::uint8_t> packed(static_cast<std::size_t>(each.packedLength));
    Held fresh{unit, std::vector<std::uint8_t>(static_cast<std::size_t>(each.length))};
    if (!fetch(packed_, each.packedAt, packed) ||
        !(packing_ == ImagePacking::gzip ? inflateBlock(packed, fresh.bytes)
                                         : unpackFrame(packed, fresh.bytes))) {
        return nullptr;
    }
    heldBytes_ += fresh.bytes.size();
    held_.push_front(std::move(fresh));
    while ((heldBytes_ > mostHeld && held_.size() > 1) || held_.size() > mostHeldUnits) {
        heldBytes_ -= held_.back().bytes.size();
        held_.pop_back();
    }
    return &held_.front().bytes;
}

std::int64_t PackedImage::readAt(std::uint64_t offset, std::span<std::uint8_t> into) {
    std::size_t have = 0;
    while (have < into.size() && offset + have < size()) {
        const auto at = offset + have;
        const auto unit = static_cast<std::size_t>(std::ranges::upper_bound(units_, at, {}, &PackedUnit::at) -
                                                   units_.begin()) -
                          1;
        const auto* bytes = unpacked(unit);
        if (bytes == nullptr) {
            return have > 0 ? static_cast<std::int64_t>(have) : -1;
        }
        const auto within = static_cast<std::size_t>(at - units_[unit].at);
        const auto length = std::min(into.size() - have, bytes->size() - within);
        std::copy_n(bytes->begin() + static_cast<std::ptrdiff_t>(within), length,
                    into.begin() + static_cast<std::ptrdiff_t>(have));
        have += length;
    }
    return static_cast<std::int64_t>(have);
}

} // namespace sober
