#include "core/disc/disc_positions.h"

#include <cstdlib>
#include <tuple>

namespace sober {
namespace {

constexpr std::size_t shortestSubcode = 10;
constexpr int positionMode = 1;
/// The subcode of a sector reaches the reader a little before or behind its sound; also what is read in place
/// of one that holds no position.
constexpr int mostApart = sectorsPerSecond;
/// Of ten sectors at least nine hold a position, the others the media number or the recording's (IEC 60908,
/// from memory).
constexpr int mostTried = 4;
constexpr int mostIndexes = 99;

/// Two decimal digits in a byte; nothing where they are none.
std::optional<int> fromDigits(std::uint8_t byte) {
    const int tens = byte >> 4;
    const int ones = byte & 15;
    return tens <= 9 && ones <= 9 ? std::optional(10 * tens + ones) : std::nullopt;
}

std::optional<int> asItIs(std::uint8_t byte) {
    return byte <= mostIndexes ? std::optional<int>(byte) : std::nullopt;
}

template <typename Number>
std::optional<DiscPosition> positionBy(std::span<const std::uint8_t> subcode, int asked, Number number) {
    const auto track = number(subcode[1]);
    const auto index = number(subcode[2]);
    const auto minutes = number(subcode[7]);
    const auto seconds = number(subcode[8]);
    const auto sectors = number(subcode[9]);
    if (!track || !index || !minutes || !seconds || !sectors || *track < 1 || *seconds > 59 ||
        *sectors >= sectorsPerSecond) {
        return std::nullopt;
    }
    const int sector = (60 * *minutes + *seconds) * sectorsPerSecond + *sectors - sectorsOfLeadIn;
    return std::abs(sector - asked) <= mostApart ? std::optional(DiscPosition{*track, *index, sector})
                                                 : std::nullopt;
}

class Finder {
  public:
    explicit Finder(const PositionReader& read) : read_(read) {}

    /// The first sector between both that lies at this index of this track or behind it, as its subcode says;
    /// `before` lies ahead of it, `there` does not. Nothing where a place tells nothing.
    std::optional<DiscPosition> first(int before, int there, int track, int index) const {
        auto found = near(there);
        while (found && there - before > 1) {
            const int middle = before + (there - before) / 2;
            const auto position = near(middle);
            if (!position) {
                return std::nullopt;
            }
            if (std::tie(position->track, position->index) >= std::tie(track, index)) {
                there = middle;
                found = position;
            } else {
                before = middle;
            }
        }
        return found;
    }

    std::optional<DiscPosition> near(int sector) const {
        for (int at = sector; at < sector + mostTried; ++at) {
            if (auto position = read_(at)) {
                position->sector -= at - sector;
                return position;
            }
        }
        return std::nullopt;
    }

  private:
    const PositionReader& read_;
};

/// Whether what the subcode says in the middle of a track is this track.
bool isWithin(const DiscTrack& track, const Finder& finder) {
    const auto middle = finder.near(track.firstSector + track.sectors / 2);
    return middle && middle->track == track.number && middle->index >= 1;
}

} // namespace

std::optional<DiscPosition> positionFrom(std::span<const std::uint8_t> subcode, int asked) {
    if (subcode.size() < shortestSubcode || (subcode[0] & 15) != positionMode || subcode[6] != 0) {
        return std::nullopt;
    }
    const auto digits = positionBy(subcode, asked, fromDigits);
    const auto plain = positionBy(subcode, asked, asItIs);
    if (digits && plain) {
        return std::abs(plain->sector - asked) < std::abs(digits->sector - asked) ? plain : digits;
    }
    return digits ? digits : plain;
}

void findPositions(DiscContents& contents, const PositionReader& read) {
    const Finder finder(read);
    auto found = contents;
    for (std::size_t i = 0; i < found.tracks.size(); ++i) {
        auto& track = found.tracks[i];
        if (!track.isAudio) {
            continue;
        }
        if (track.sectors < shortestTrack || !isWithin(track, finder)) {
            return;
        }
        if (i > 0 && found.tracks[i - 1].isAudio) {
            // A drive whose subcode is late says where a track begins only behind that.
            const auto gap = finder.first(found.tracks[i - 1].firstSector, track.firstSector + 2 * mostTried,
                                          track.number, 0);
            if (!gap) {
                return;
            }
            track.gap = gap->track == track.number && gap->index == 0 && gap->sector < track.firstSector
                            ? track.firstSector - gap->sector
                            : 0;
        }
    }
    for (std::size_t i = 0; i < found.tracks.size(); ++i) {
        auto& track = found.tracks[i];
        const int gapBehind = i + 1 < found.tracks.size() ? found.tracks[i + 1].gap : 0;
        // Far enough from what is behind it, whether the subcode is early or its place is taken.
        const int lastSector = track.end() - gapBehind - 3 * mostTried;
        const auto last = track.isAudio ? finder.near(lastSector) : std::nullopt;
        track.marks.clear();
        for (int index = 2; last && last->track == track.number && index <= last->index; ++index) {
            const auto mark = finder.first(track.firstSector, lastSector, track.number, index);
            if (!mark) {
                return;
            }
            track.marks.push_back(mark->sector);
        }
    }
    contents = std::move(found);
}

} // namespace sober
