#pragma once

#include "core/base/run_control.h"
#include "core/disc/sector_source.h"

#include <functional>
#include <optional>
#include <span>

namespace sober {

/// How a sector came to its samples.
enum class SectorState : std::uint8_t {
    waiting,    ///< not read yet
    agreed,     ///< its first readings were one
    agreedLate, ///< some differed, and then enough were one
    doubtful,   ///< no two readings that count are one: the samples are the likeliest
    unread,     ///< never read: the samples are zeros
};

struct SectorReading {
    SectorState state = SectorState::waiting;
    std::uint8_t readings = 0; ///< that came to it, 255 at most

    bool isKnown() const { return state == SectorState::agreed || state == SectorState::agreedLate; }
};

/// Some sectors in their order.
struct AgreedStretch {
    int first = 0;
    DiscSamples samples;
    std::vector<SectorReading> sectors;
};

struct ReadingEffort {
    int retries = 20; ///< further readings of what does not agree; 50 at most
    /// Sectors that are read elsewhere before anything is read again, so that no cache of a drive (common
    /// practice: up to 2 MiB) answers in its place.
    int distraction = 1'200;
};

/// Reads a disc until readings agree. Two suffice where no other differs and both are anchored: where what
/// they give of a neighbouring sector that is known, and that looks like itself in no other place, is the
/// same. A reading that is found to be displaced against that (jitter) is put right first. Three must be one
/// where any other differs or nothing anchors them (the disc's beginning, behind silence), and five of
/// silence.
class AgreedReader {
  public:
    /// Hears what is known of a stretch, whenever that changes.
    using OnSectors = std::function<void(int first, std::span<const SectorReading> sectors)>;
    /// Hears how many sectors of a stretch have been read as often as a sound one is, and in which round that
    /// is: from the third on it reads again what does not agree.
    using OnRound = std::function<void(int sectors, int round)>;

    /// Of the sectors from `begin` to before `end`.
    AgreedReader(SectorSource& source, int begin, int end, const ReadingEffort& effort, RunControl& control,
                 OnSectors onSectors = {});

    /// The next stretch; what stands before it and was read just before anchors it.
    Result<AgreedStretch> read(int first, int count);
    void onRound(OnRound hear) { onRound_ = std::move(hear); }
    /// What was read earlier, to be gone on with.
    void comesAfter(AgreedStretch before);

  private:
    struct Call {
        int first = 0;
        DiscSamples samples;
        int round = 0;
        int sectors() const { return static_cast<int>(samples.size()) / sectorNumbers; }
    };
    struct Candidate {
        DiscSamples samples;
        int anchored = 0; ///< rounds in which an anchored call said so: within one, a cache may answer twice
        int loose = 0;
        std::uint64_t rounds = 0; ///< that said so, a bit for each
    };
    /// What is known of one sector of the stretch.
    struct Standing {
        std::vector<Candidate> candidates;
        int readings = 0;
        int differing = 0; ///< calls that failed or said something else
    };

    Outcome callFor(int first, int count, bool withCare);
    Outcome callWithin(int first, int count, bool withCare);
    Outcome findBeginning();
    Outcome readRound();
    Outcome readAgain(bool onlyBeginnings, bool withCare);
    bool isNeverRead(int from, int to) const;
    int beginsAtAnchor(int first) const;
    Outcome distract();
    void consider();
    static bool isEnough(const Standing& standing, const Candidate& candidate);
    bool castVotes(const Call& call);
    std::optional<int> displacementAt(const Call& call, int sector, int likeliest) const;
    /// By how many samples a call is displaced, as far as what is known within it tells.
    struct Anchoring {
        bool isAnchored = false;
        bool isMixed = false; ///< its parts are displaced differently
        int by = 0;
    };
    Anchoring anchoringOf(const Call& call) const;
    std::span<const std::int16_t> knownSector(int sector) const;
    std::vector<std::pair<int, int>> openRuns() const;
    bool isOpen(int sector) const;
    void accept(int sector, const Candidate& candidate);
    void tell() const;
    void tellRound(double share) const;
    AgreedStretch finish();

    SectorSource& source_;
    int begin_;
    int end_;
    ReadingEffort effort_;
    RunControl& control_;
    OnSectors onSectors_;
    OnRound onRound_;
    AgreedStretch before_;
    AgreedStretch now_;
    std::vector<Standing> standings_;
    std::vector<Call> calls_;
    int round_ = 0;
    int early_ = 0; ///< rounds that were for the beginning alone
};

} // namespace sober
