#pragma once

#include <cstdint>
#include <span>

namespace sober {

/// What the first bytes of a file say it is, whatever it is called.
enum class Sniffed {
    audio,    ///< the signature of an audio format
    perhaps,  ///< a container that holds audio, video or both: only its tables of contents tell
    notAudio, ///< anything else
};

/// How many leading bytes `sniff` wants to see; fewer are allowed where the file is shorter.
inline constexpr std::size_t sniffLength = 64 << 10;

/// Signatures from ISO/IEC 11172-3 and 13818-7 (frame sync, checked over consecutive frames),
/// RFC 9639 (fLaC), RFC 3533 (OggS), the RIFF, AIFF, ISO base media, Matroska and ASF formats.
Sniffed sniff(std::span<const std::uint8_t> head);

} // namespace sober
