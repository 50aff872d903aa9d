#pragma once

#include "core/base/result.h"
#include "core/media/byte_source.h"

#include <cstdint>
#include <string>

namespace sober {

/// What a file says of what it holds: well-formed UTF-8, empty where it says nothing.
struct Tags {
    std::string title;
    std::string artist;
    std::string album;
    std::string track;
    std::string date;

    bool operator==(const Tags&) const = default;
    /// How many of the five are filled.
    int filled() const;
};

/// What else a file says that it can be filed by; as it is written there ("2/3").
struct FilingTags {
    std::string albumArtist;
    std::string composer;
    std::string genre;
    std::string disc;

    bool operator==(const FilingTags&) const = default;
};

/// What a file claims of itself. Nothing here was measured from its sound. 0 means "not stated".
struct Claims {
    std::string container;    ///< "flac", "mp3", "wav", "aiff", "mp4", "ogg", "matroska", "asf", …
    std::string codec;        ///< "flac", "mp3", "pcm", "alac", "aac", "vorbis", "opus", …
    bool lossless = false;    ///< what the codec is by nature
    std::int64_t bitrate = 0; ///< bit/s
    int sampleRate = 0;       ///< Hz
    int channels = 0;
    int bitDepth = 0;    ///< bits per sample, lossless codecs only
    double duration = 0; ///< seconds

    bool operator==(const Claims&) const = default;
};

struct Probed {
    Claims claims;
    Tags tags;
    FilingTags filing;
};

/// Reads container, codec and tags without decoding. Cause::notAudio where the file holds no audio
/// or holds moving pictures; Cause::unreadable where it looked like audio and could not be opened.
Result<Probed> probe(ByteSource& source, const BytePath& path);

} // namespace sober
