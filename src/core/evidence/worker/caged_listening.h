#pragma once

#include "core/base/byte_ranges.h"
#include "core/evidence/worker/worker_process.h"

#include <cstdint>
#include <memory>
#include <span>

namespace sober {

/// A file as it is listened to, decoded in a process of its own: 16-bit stereo frames at a rate that the
/// device takes, from any place. Where the process dies of the file, the sound ends there.
class CagedListening {
  public:
    /// `rate` in Hz; 0 takes the file's own.
    static Result<CagedListening> open(const BytePath& path, int rate = 0);
    /// The same of what lies in several places of an image.
    static Result<CagedListening> openPart(const PlacedBytes& part, int rate = 0);

    /// The same of bytes that are no file; `name` says whose they are.
    static Result<CagedListening> openBytes(std::string_view bytes, const BytePath& name, int rate = 0);

    int rate() const { return rate_; }
    double seconds() const { return seconds_; } ///< as stated; 0 where it is not
    /// Fills interleaved stereo; returns the frames that were there, fewer only at the end.
    std::size_t read(std::span<std::int16_t> stereo);
    /// Goes to a place, as exactly as the format allows.
    void seek(double seconds);

  private:
    static Result<CagedListening> ask(std::string_view question, std::span<const FileHandle* const> files,
                                      const BytePath& path);
    explicit CagedListening(std::unique_ptr<WorkerProcess> process) : process_(std::move(process)) {}
    bool fetch();

    std::unique_ptr<WorkerProcess> process_;
    int rate_ = 0;
    double seconds_ = 0;
    std::string fetched_; ///< decoded and not read yet
    std::size_t used_ = 0;
};

} // namespace sober
