#pragma once

#include "core/base/result.h"

#include <string>
#include <string_view>

namespace sober {

/// A form in which audio is written anew: "mp3:V2", "mp3:192", "aac:160", "opus:96", "vorbis:q6", "flac",
/// "wav"; and, where only a part is wanted, "@30" (seconds) or "@20%" after it, "@30 loudest" for its
/// liveliest part.
struct EncodingForm {
    enum class Codec { mp3, aac, opus, vorbis, flac, wav };
    Codec codec = Codec::mp3;
    double quality =
        2;           ///< of a variable rate: V0 to V9 of MP3, q0 to q10 of Vorbis; the level of FLAC, 0 to 8
    int bitrate = 0; ///< bit/s; 0: by quality
    double seconds = 0; ///< of an excerpt; 0: all
    double share = 0;   ///< of an excerpt, 0 to 1; 0: all
    bool loudest = false;

    bool isLossless() const { return codec == Codec::flac || codec == Codec::wav; }
    bool isExcerpt() const { return seconds > 0 || share > 0; }
};

/// Cause::invalid with what is right.
Result<EncodingForm> encodingFormFrom(std::string_view text);

/// "m4a": the ending of its files.
std::string_view endingOf(const EncodingForm& form);

/// How many bytes a recording will take, about: by the rate or, for variable ones and FLAC, by common
/// practice (no source): V0 245 kbit/s and 15 to 30 less for each step, Vorbis q5 160 and 32 a step, FLAC six
/// tenths of its samples.
std::uint64_t estimatedBytes(const EncodingForm& form, double seconds, int sampleRate, int channels,
                             int bitDepth);

} // namespace sober
