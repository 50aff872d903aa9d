#pragma once

#include "core/base/run_control.h"
#include "core/disc/ripped_file.h"
#include "core/evidence/fingerprint.h"
#include "core/media/tag_fields.h"
#include "core/remedy/disc_spool.h"

#include <condition_variable>
#include <deque>
#include <mutex>
#include <thread>

namespace sober {

class EvidenceWorker;

/// Something that is to be made of a track, or heard of it.
struct TrackJob {
    int track = 0;
    BytePath samples; ///< absolute: a WAV file
    std::string form; ///< its words; "" to take the fingerprint alone
    std::string name; ///< of the file in the spool
    TagChange tags = {};
};

struct TrackJobDone {
    TrackJob job;
    std::optional<RippedFile> file;
    std::optional<Fingerprint> heard;
    std::optional<Error> failure;
};

/// Makes files of tracks while others are read: one job at a time on each processor, each in a cage.
class EncodeCrew {
  public:
    EncodeCrew(const DiscSpool& spool, RunControl& control);
    ~EncodeCrew();
    EncodeCrew(const EncodeCrew&) = delete;
    EncodeCrew& operator=(const EncodeCrew&) = delete;

    void add(TrackJob job);
    /// What was done since the last time.
    std::vector<TrackJobDone> done();
    /// Waits a little; false once nothing is left to do.
    bool isBusy();

  private:
    void work();
    TrackJobDone doJob(EvidenceWorker& worker, TrackJob job);
    Result<RippedFile> make(EvidenceWorker& worker, const TrackJob& job);

    const DiscSpool& spool_;
    RunControl& control_;
    std::mutex mutex_;
    std::condition_variable changed_;
    std::deque<TrackJob> waiting_;
    std::vector<TrackJobDone> done_;
    std::size_t going_ = 0;
    bool ends_ = false;
    std::vector<std::thread> hands_;
};

} // namespace sober
