#pragma once

#include "core/base/paths.h"
#include "core/evidence/checksums.h"
#include "core/media/encode.h"

#include <cstdint>

namespace sober {

/// A file that was made of a track and waits for its place, as the docket keeps it.
struct RippedFile {
    BytePath file;          ///< absolute
    std::uint64_t size = 0; ///< bytes
    Checksum128 checksum;   ///< of its bytes
    BytePath samples;       ///< absolute: the track as it was read, as a WAV file
    std::string md5;        ///< of the samples that it has to decode to, hexadecimal; "" of a lossy form
    Encoded encoded;        ///< how much of the track it holds
};

std::string packRippedFile(const RippedFile& file);
/// Nothing where the bytes are no such thing.
std::optional<RippedFile> unpackRippedFile(std::string_view packed);

} // namespace sober
