#include "core/media/layer3_frame.h"

#include "core/media/bit_reader.h"
#include "core/media/push_parser.h"

#include <algorithm>

namespace sober {
std::uint16_t mpegCrc(std::span<const std::uint8_t> bytes, std::uint16_t crc) {
    for (const auto byte : bytes) {
        crc = static_cast<std::uint16_t>(crc ^ (byte << 8));
        for (int bit = 0; bit < 8; ++bit) {
            crc = static_cast<std::uint16_t>((crc << 1) ^ ((crc & 0x8000) != 0 ? 0x8005 : 0));
        }
    }
    return crc;
}

bool hasMpegCrc(std::span<const std::uint8_t> frame) {
    return (frame[1] & 1) == 0;
}

std::size_t mpegHeaderLength(std::span<const std::uint8_t> frame) {
    return hasMpegCrc(frame) ? 6 : 4;
}

std::size_t sideInfoLength(const MpegFrame& frame) {
    return frame.version == 1 ? (frame.channels == 1 ? 17 : 32) : (frame.channels == 1 ? 9 : 17);
}

SideInfo readSideInfo(const MpegFrame& frame, std::span<const std::uint8_t> bytes) {
    constexpr int lengthBits = 12;
    BitReader reader(bytes);
    SideInfo info;
    const bool first = frame.version == 1;
    info.mainDataBegin = reader.take(first ? 9 : 8);
    reader.pass(first ? (frame.channels == 1 ? 5 : 3) + 4 * static_cast<std::size_t>(frame.channels)
                      : static_cast<std::size_t>(frame.channels));
    const int granules = first ? 2 : 1;
    for (int i = 0; i < granules * frame.channels; ++i) {
        info.bits += reader.take(lengthBits);
        reader.pass((first ? 59 : 63) - lengthBits);
    }
    return info;
}

std::optional<StatedFrames> readStatedFrames(const MpegFrame& frame, std::span<const std::uint8_t> bytes) {
    if (frame.layer != 3 || bytes.size() < 4) {
        return std::nullopt;
    }
    const auto info = bytes.subspan(std::min(mpegHeaderLength(bytes) + sideInfoLength(frame), bytes.size()));
    if (beginsWith(info, "Xing") || beginsWith(info, "Info")) {
        StatedFrames stated;
        const auto flags = info.size() >= 8 ? info[7] : 0;
        if ((flags & 1) != 0 && info.size() >= 12) {
            stated.frames = bigEndian(info.subspan(8, 4));
        }
        const std::size_t encoder = 8 + ((flags & 1) != 0 ? 4 : 0) + ((flags & 2) != 0 ? 4 : 0) +
                                    ((flags & 4) != 0 ? 100 : 0) + ((flags & 8) != 0 ? 4 : 0);
        if (info.size() >= encoder + 24 && info[encoder] != 0) {
            const auto ends = bigEndian(info.subspan(encoder + 21, 3));
            stated.delay = static_cast<int>(ends >> 12);
            stated.padding = static_cast<int>(ends & 0xFFF);
        }
        return stated;
    }
    const auto vbri = bytes.subspan(std::min<std::size_t>(36, bytes.size()));
    if (beginsWith(vbri, "VBRI") && vbri.size() >= 18) {
        return StatedFrames{bigEndian(vbri.subspan(14, 4)), 0, 0};
    }
    return std::nullopt;
}

} // namespace sober
