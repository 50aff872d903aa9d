#pragma once

#include "core/disc/agreed_reading.h"
#include "core/disc/disc_lookup.h"
#include "core/disc/rip_register.h"

namespace sober {

/// What became of one track.
struct RippedTrack {
    int number = 0; ///< 0: what is hidden before the first
    std::string title;
    int sectors = 0;
    std::uint32_t crc = 0;                     ///< CRC-32 (zlib's) of all its samples
    int readings = 0;                          ///< of the sector that was read most often
    int late = 0;                              ///< sectors that agreed only after some readings differed
    std::vector<std::pair<int, int>> doubtful; ///< first and last sector of each place, as on the disc
    int unread = 0;                            ///< sectors of these that no reading gave
    double peak = 0;                           ///< of full scale
    bool preEmphasis = false;
    std::optional<RegisterWord> word; ///< none: no register was asked
    std::vector<BytePath> files;      ///< absolute: where they stand, or shall
    std::string heldAs;               ///< the holding that it sounds like; "" for none

    bool agreed() const { return doubtful.empty(); }
};

struct RippedDisc {
    std::string id;
    DiscContents contents;
    DiscNames names;
    int offset = 0;              ///< samples that the drive reads late, as taken into account
    bool isOffsetProven = false; ///< by the register
    int missing = 0;             ///< samples at an end of the disc that the drive does not reach: zeros
    std::vector<RippedTrack> tracks;
    std::string registerAddress; ///< "" where none was asked
    std::string problem;         ///< of the register, where it did not answer
    std::int64_t when = 0;       ///< nanoseconds since 1970
};

/// For a person.
std::string reportText(const RippedDisc& disc);
/// "sober.disc-read/1" of the contract, with all that the text says.
std::string reportJson(const RippedDisc& disc);

} // namespace sober
