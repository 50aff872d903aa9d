#pragma once

#include "core/base/file_handle.h"
#include "core/media/decode.h"

#include <memory>

namespace sober {

/// What the structure of a file shows, without decoding it.
struct StructureReport {
    std::vector<DecodeProblem> problems; ///< audio is lost or in doubt; of many alike only the first hundred
    std::vector<DecodeProblem> remarks;  ///< odd, and no audio is lost by it
    std::vector<ByteRange> junk;         ///< bytes that belong neither to the audio nor to a tag
    std::uint64_t units = 0;             ///< frames, pages, chunks or boxes that were recognised
};

/// Looks at the structure of a file while its bytes go by, once, from the first to the last.
class StructureCheck {
  public:
    virtual ~StructureCheck() = default;
    virtual void feed(std::span<const std::uint8_t> bytes) = 0;
    virtual StructureReport finish() = 0;
    /// The container whose structure this is, in the word of Claims.
    virtual std::string_view container() const = 0;
};

/// The check for a file that begins like this (as much as `sniff` wants to see) and has so many bytes; null
/// where its format has no structure that we look at: FLAC proves itself frame by frame while decoding.
std::unique_ptr<StructureCheck> structureCheckFor(std::span<const std::uint8_t> head, std::uint64_t size);

} // namespace sober
