#include "core/media/chunk_structure.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace sober {
namespace {

using Bytes = std::span<const std::uint8_t>;

constexpr std::uint64_t unstated = 0xFFFF'FFFF; // writers that cannot go back leave this, or 0
constexpr std::size_t longestHead = 64;         // of a chunk, as much as is looked at

/// Forms of AIFF-C whose samples take as many bytes as their depth says; plain AIFF has a tag or the end
/// there.
constexpr std::array<std::string_view, 8> plainForms{"NONE", "sowt", "twos", "fl32",
                                                     "FL32", "fl64", "in24", "in32"};

/// 80-bit IEEE 754 extended precision, as AIFF states its rate.
double extended(Bytes bytes) {
    const int exponent = static_cast<int>(bigEndian(bytes.first(2)) & 0x7FFF) - 16383 - 63;
    return std::ldexp(static_cast<double>(bigEndian(bytes.subspan(2, 8))), exponent);
}

bool isName(Bytes bytes) {
    return std::ranges::all_of(bytes, [](std::uint8_t byte) { return byte >= 0x20 && byte < 0x7F; });
}

} // namespace

std::uint64_t ChunkStructure::number(Bytes bytes) const {
    return family_ == Family::riff ? littleEndian(bytes) : bigEndian(bytes);
}

std::uint64_t ChunkStructure::parse(Bytes held, bool atEnd) {
    if (over_) {
        return std::max<std::uint64_t>(left(), held.size());
    }
    if (held.size() < longestHead && !atEnd && held.size() < left()) {
        return 0;
    }
    if (!formed_) {
        return takeForm(held);
    }
    const bool behind = end_ > 0 && offset() >= end_;
    if (behind || held.size() < 8 || !isName(held.first(4))) {
        over_ = true;
        const auto length = std::max<std::uint64_t>(left(), held.size());
        remark("junk", 0, fmt::format("{} behind the last chunk", counted(length, "byte")));
        junk(length);
        return length;
    }
    ++report_.units;
    auto length = number(held.subspan(4, 4));
    const bool sound = beginsWith(held, family_ == Family::riff ? "data" : "SSND");
    if (beginsWith(held, "ds64") && held.size() >= 24) {
        const auto whole = littleEndian(held.subspan(8, 8));
        end_ = whole > 0 ? whole + 8 : 0;
        soundLength_ = littleEndian(held.subspan(16, 8));
    } else if (beginsWith(held, family_ == Family::riff ? "fmt " : "COMM")) {
        takeFormat(
            held.subspan(8, static_cast<std::size_t>(std::min<std::uint64_t>(length, held.size() - 8))));
    } else if (sound) {
        if (length == unstated && soundLength_ > 0) {
            length = soundLength_;
        }
        takeSound(length);
        if (length == unstated || (length == 0 && left() > 8)) {
            length = left() - 8;
        }
    }
    if (length + 8 > left()) {
        over_ = true;
        if (!sound) {
            problem("truncated", 0, "the file ends within a chunk");
        }
        return std::max<std::uint64_t>(left(), held.size());
    }
    // Chunks begin at even places; some writers forget the byte between.
    return length + 8 + (length % 2 == 1 && length + 8 < left() ? 1 : 0);
}

std::uint64_t ChunkStructure::takeForm(Bytes held) {
    formed_ = true;
    const auto length = held.size() >= 12 ? number(held.subspan(4, 4)) : 0;
    if (length != 0 && length != unstated) {
        end_ = length + 8;
        if (end_ > size() + 1) {
            remark("unstated-length", 0,
                   fmt::format("states {} in all and holds {}", humanBytes(end_), humanBytes(size())));
        }
    }
    return std::min<std::uint64_t>(12, held.size());
}

void ChunkStructure::takeFormat(Bytes chunk) {
    hasFormat_ = true;
    if (family_ == Family::riff && chunk.size() >= 16) {
        bytesPerSecond_ = static_cast<double>(littleEndian(chunk.subspan(8, 4)));
        frameBytes_ = littleEndian(chunk.subspan(12, 2));
    } else if (family_ == Family::aiff && chunk.size() >= 18) {
        const auto channels = bigEndian(chunk.first(2));
        const auto bits = bigEndian(chunk.subspan(6, 2));
        frames_ = bigEndian(chunk.subspan(2, 4));
        // Compressed forms of AIFF-C state the depth that they expand to.
        const bool plain = chunk.size() < 22 || std::ranges::any_of(plainForms, [&](std::string_view form) {
                               return beginsWith(chunk.subspan(18), form);
                           });
        frameBytes_ = plain ? channels * ((bits + 7) / 8) : 0;
        bytesPerSecond_ = extended(chunk.subspan(8, 10)) * static_cast<double>(frameBytes_);
    }
}

/// Sound that the file does not hold to its end is cut where the file ends.
void ChunkStructure::takeSound(std::uint64_t length) {
    hasSound_ = true;
    if (!hasFormat_) {
        problem("damaged", 0, "its format is not stated before the sound");
    }
    if (length == unstated || (length == 0 && left() > 8)) {
        remark("unstated-length", 0, "the length of its sound is not stated");
        return;
    }
    const auto there = left() > 8 ? left() - 8 : 0;
    if (length > there) {
        problem("truncated", bytesPerSecond_ > 0 ? static_cast<double>(there) / bytesPerSecond_ : 0,
                fmt::format("states {} of sound and holds {}", humanBytes(length), humanBytes(there)));
        return;
    }
    constexpr std::uint64_t soundHead = 8; // offset and block size of AIFF
    if (family_ == Family::aiff && frames_ > 0 && frameBytes_ > 0 && length >= soundHead &&
        frames_ * frameBytes_ != length - soundHead) {
        problem(frames_ * frameBytes_ > length - soundHead ? "truncated" : "length-mismatch",
                bytesPerSecond_ > 0 ? static_cast<double>(length - soundHead) / bytesPerSecond_ : 0,
                fmt::format("states {} and holds {}", counted(frames_, "frame"),
                            humanCount((length - soundHead) / frameBytes_)));
    }
    if (family_ == Family::riff && frameBytes_ > 0 && length % frameBytes_ != 0) {
        remark("odd-length", 0, "its sound ends within a sample frame");
    }
}

void ChunkStructure::conclude() {
    if (!hasSound_ && formed_) {
        problem("damaged", 0, "it holds no sound chunk");
    }
}

} // namespace sober
