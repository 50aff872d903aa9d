#pragma once

#include "core/base/file_handle.h"
#include "core/base/result.h"
#include "core/media/byte_source.h"

#include <cstdint>
#include <memory>
#include <span>

namespace sober {

/// Decodes a file as it is listened to: 16-bit stereo frames at a rate that the device takes, from any
/// place.
class PcmReader {
  public:
    /// `rate` in Hz; 0 takes the file's own. `path` is for sentences.
    static Result<PcmReader> open(FileHandle file, const BytePath& path, int rate = 0);
    static Result<PcmReader> open(const BytePath& path, int rate = 0);
    static Result<PcmReader> open(std::unique_ptr<ByteSource> bytes, const BytePath& path, int rate = 0);
    ~PcmReader();
    PcmReader(PcmReader&&) noexcept;
    PcmReader& operator=(PcmReader&&) noexcept;

    int rate() const;
    double seconds() const; ///< as stated; 0 where it is not
    /// Fills interleaved stereo; returns the frames that were there, fewer only at the end.
    std::size_t read(std::span<std::int16_t> stereo);
    /// Goes to the place nearest before `seconds` that the format allows, then drops what lies before it.
    void seek(double seconds);

  private:
    struct State;
    explicit PcmReader(std::unique_ptr<State> state);
    std::unique_ptr<State> state_;
};

} // namespace sober
