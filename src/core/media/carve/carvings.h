#pragma once

#include "core/media/carve/image_window.h"
#include "core/media/carve/piece.h"

namespace sober {

// What stands at a place, followed by its format's own rules to where they are kept no longer. Nothing where
// it is no such format, or too little of it to be sure.

/// MPEG audio frames (ISO/IEC 11172-3, 13818-3) from the one at `at` on.
std::optional<Piece> carveMpeg(ImageWindow& window, std::uint64_t at);
/// ADTS frames (ISO/IEC 13818-7).
std::optional<Piece> carveAdts(ImageWindow& window, std::uint64_t at);
/// An ID3v2 tag (id3.org, version 2.4.0) and the MPEG audio, ADTS or FLAC behind it.
std::optional<Piece> carveTagged(ImageWindow& window, std::uint64_t at);
/// FLAC (RFC 9639) from its signature, or from a frame on.
std::optional<Piece> carveFlac(ImageWindow& window, std::uint64_t at);
/// Pages of Ogg (RFC 3533).
std::optional<Piece> carveOgg(ImageWindow& window, std::uint64_t at);
/// RIFF WAVE, RF64 and BW64 (EBU Tech 3306).
std::optional<Piece> carveWave(ImageWindow& window, std::uint64_t at);
/// AIFF and AIFF-C.
std::optional<Piece> carveAiff(ImageWindow& window, std::uint64_t at);
/// ISO base media (ISO/IEC 14496-12) that holds sound.
std::optional<Piece> carveBoxes(ImageWindow& window, std::uint64_t at);
/// WavPack blocks (WavPack 4 & 5 Binary File / Block Format).
std::optional<Piece> carveWavPack(ImageWindow& window, std::uint64_t at);
/// Advanced Systems Format (its specification, revision 01.20.05).
std::optional<Piece> carveAsf(ImageWindow& window, std::uint64_t at);
/// Musepack stream version 8 (its specification, trac.musepack.net; from memory).
std::optional<Piece> carveMusepack(ImageWindow& window, std::uint64_t at);

/// The length of an ID3v2 tag with header and footer; 0 where none stands there.
std::uint64_t leadingTagLength(ImageWindow& window, std::uint64_t at);
/// Where the tags end (ID3v1, APEv2) that stand behind the audio at `at`.
std::uint64_t behindTags(ImageWindow& window, std::uint64_t at);
/// Whether nothing but zeros stands from `at` to the end of its sector, or the image ends there.
bool isSlack(ImageWindow& window, std::uint64_t at);

} // namespace sober
