#pragma once

#include "core/base/result.h"
#include "core/disc/sector_source.h"

#include <map>
#include <optional>
#include <span>

namespace sober {

/// By how many samples a drive may read beside the place, and by how many a pressing may differ from another.
inline constexpr int farthestOffset = 5 * samplesPerSector;

/// What others got from one pressing of a disc.
struct RegisteredDisc {
    struct Track {
        int number = 0;
        std::uint32_t crc = 0; ///< CRC-32 of its samples without the first and last five sectors
        int reported = 0;      ///< how many got that
    };
    std::vector<Track> tracks;
};

/// An answer of a register, as JSON:
///
///     {"schema": "sober.register/1", "disc": "…", "pressings": [{"tracks": [{"number": 1,
///      "crc32": "8f3a00b2", "reported": 12}]}]}
///
/// Cause::damaged where it is no such thing.
Result<std::vector<RegisteredDisc>> registerFrom(std::string_view text);

/// What a register says of a track.
struct RegisterWord {
    bool isKnown = false; ///< it has something of this track
    int agree = 0;        ///< how many got the same
    int offset = 0;       ///< samples by which the drive reads late
};

/// Holds tracks against a register, and finds by it how far off the drive reads. One track that agrees at the
/// expected place proves that place; elsewhere, where there are 5,881 places for chance, two have to agree
/// at the same one, or the only one that is read.
class RegisterCheck {
  public:
    RegisterCheck(std::vector<RegisteredDisc> pressings, int tracks, int expectedOffset)
        : pressings_(std::move(pressings)), tracks_(tracks), expected_(expectedOffset) {}

    /// A track's samples with `farthestOffset` before and behind.
    void take(int number, std::span<const std::int16_t> samples);

    /// A track's own samples, once the offset is proven: held against that place alone.
    void takeAt(int number, std::span<const std::int16_t> samples, int offset);

    /// Once it is proven.
    std::optional<int> offset() const { return proven_; }
    /// At the proven offset, else at the expected one.
    RegisterWord wordFor(int number) const;

  private:
    struct Heard {
        std::map<int, int> agreeing; ///< offset: how many reported that
    };
    std::map<std::uint32_t, int> reportedOf(int number) const;
    void settle();

    std::vector<RegisteredDisc> pressings_;
    int tracks_;
    int expected_;
    std::map<int, Heard> heard_;
    std::optional<int> proven_;
};

/// "12 others got the same".
std::string registerWords(const RegisterWord& word);

} // namespace sober
