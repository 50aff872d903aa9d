#pragma once

#include "core/disc/track_stats.h"
#include "core/remedy/disc_spool.h"
#include "core/salvage/recogniser.h"
#include "core/work/encode_crew.h"
#include "core/work/plan_rips.h"
#include "core/work/read_disc.h"

#include <chrono>

namespace sober {

/// The work of `readDisc`: read_disc.cpp reads the disc, disc_reading_tracks.cpp does with each track what is
/// to be done once it was read.
class DiscReading {
  public:
    DiscReading(Catalogue& catalogue, const DiscRequest& request, RunControl& control, const DiscHooks& hooks)
        : catalogue_(catalogue), request_(request), control_(control), hooks_(hooks) {}
    Result<DiscRead> run();

  private:
    /// One of the tracks that are to be read.
    struct Chosen {
        int number = 0;
        int first = 0;
        int sectors = 0;
        bool isTaken = false; ///< heard by the register
        bool isSent = false;  ///< to the crew
    };

    RippedDisc& disc() { return result_.disc; }
    Outcome open();
    bool isWanted(int number) const;
    Outcome choose();
    /// Before anything is read.
    Outcome checkRoom();
    Outcome askRegister();
    int begin() const { return result_.disc.contents.audioBegin(); }
    int end() const { return result_.disc.contents.audioEnd(); }
    /// Sectors around a track that an offset may bring into it.
    bool concerns(const Chosen& track, int first, int count) const;
    std::vector<std::pair<int, int>> stretches() const;
    Outcome readAll();
    /// A stretch that was read before is read again where something of it is not known: somebody may have
    /// wiped the disc.
    bool isKnown(int first) const;
    /// What was known of a stretch before, and is not now.
    Outcome keepKnown(AgreedStretch& read) const;
    std::string atWords(int sector) const;
    void tell(int first, std::span<const SectorReading> sectors) const;
    void report();
    bool isRead(const Chosen& track) const;
    static std::int64_t firstSample(const Chosen& track);
    /// What is read whole is heard by the register and, once the offset is known, sent on.
    Outcome finishTracks();
    /// From the first of the chosen to the last, what lies between them too.
    Outcome sendWhole();
    Outcome send(const Chosen& track);
    /// The first track says whether the disc is held; the others are asked together in the end.
    Outcome hearFirst(const Chosen& track, const BytePath& wave);
    void addHeard(int track, const Fingerprint& words);
    Result<std::vector<KnownFind>> recognised();
    /// Names of what is held and only as long are believed once the first track sounds like it.
    void nameBy(const KnownFind& first);
    RippedTrack statsOf(const Chosen& track, const DiscSamples& samples);
    Outcome takeDone();
    Outcome recogniseAll();
    Outcome await();
    Outcome plan();

    Catalogue& catalogue_;
    const DiscRequest& request_;
    RunControl& control_;
    const DiscHooks& hooks_;
    std::vector<RipForm> forms_;
    DiscLook look_;
    bool areNamesSure_ = false;
    std::optional<Tray> tray_;
    std::optional<DiscSpool> spool_;
    std::optional<RegisterCheck> check_;
    std::vector<Chosen> chosen_;
    std::vector<std::pair<int, int>> stretches_;
    std::optional<EncodeCrew> crew_;
    std::vector<Find> heard_;
    bool wasFirstHeard_ = false;
    BytePath firstHeld_; ///< the holding that the first track sounds like
    bool wasWholeSent_ = false;
    std::vector<MadeRip> made_;
    Progress progress_;
    std::uint64_t readBefore_ = 0; ///< bytes of the stretches before
    int reached_ = -1;             ///< the stretch that was come to last
    std::string at_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
    DiscRead result_;
};

} // namespace sober
