#pragma once

#include "core/base/file_handle.h"
#include "core/media/decode.h"
#include "core/media/encoding_form.h"

#include <memory>

namespace sober {

/// Takes a decode from a place on and writes it through an encoder. The form's share and seconds are not
/// looked at.
class EncodingSink final : public SampleSink {
  public:
    /// Into an empty file that is open for writing: from `begins` on, so many seconds (0: all).
    EncodingSink(const BytePath& path, const FileHandle& target, const EncodingForm& form, double begins,
                 double seconds);
    /// All of it into memory; of the forms only those that are written from their beginning to their end
    /// (Opus, Vorbis).
    EncodingSink(const BytePath& path, std::string& bytes, const EncodingForm& form);
    ~EncodingSink() override;

    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    /// Writes what is left. Fails where nothing was taken, or something could not be written in that form.
    Outcome finish();
    double seconds() const; ///< taken so far

  private:
    struct State;
    std::unique_ptr<State> state_;
};

} // namespace sober
