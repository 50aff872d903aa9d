#pragma once

#include "core/base/result.h"
#include "core/media/image_files.h"

#include <list>

namespace sober {

/// A stretch that was compressed by itself.
struct PackedUnit {
    std::uint64_t packedAt = 0; ///< byte of the compressed image
    std::uint64_t packedLength = 0;
    std::uint64_t at = 0; ///< byte of the image itself
    std::uint64_t length = 0;
};

/// Where an image that was compressed stretch by stretch can be read from: blocks of BGZF (SAM/BAM format
/// specification, section 4.1) and frames of Zstandard (RFC 8878) of 64 MiB at most. Cause::invalid where it
/// was compressed as one stream, in which one cannot look back, or is no such thing.
Result<std::vector<PackedUnit>> packedUnits(ByteSource& packed, ImagePacking packing, const BytePath& path);

/// The bytes of such an image.
class PackedImage final : public ByteSource {
  public:
    PackedImage(ByteSource& packed, ImagePacking packing, std::vector<PackedUnit> units);
    std::uint64_t size() const override;
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override;

  private:
    struct Held {
        std::size_t unit = 0;
        std::vector<std::uint8_t> bytes;
    };
    const std::vector<std::uint8_t>* unpacked(std::size_t unit);

    ByteSource& packed_;
    ImagePacking packing_;
    std::vector<PackedUnit> units_;
    std::list<Held> held_; ///< the last that were asked for, newest first
    std::size_t heldBytes_ = 0;
};

} // namespace sober
