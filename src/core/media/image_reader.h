#pragma once

#include "core/media/packed_image.h"

namespace sober {

/// The bytes of an opened image, whatever it lies in, and behind them those of the files that lend to it.
/// What is compressed is foreign bytes: it is unpacked in the cage only.
class ImageReader final : public ByteSource {
  public:
    /// `image` has to outlive it; `units` are asked for where it is compressed (packedUnits).
    ImageReader(const OpenedImage& image, const BytePath& path, std::vector<PackedUnit> units = {});
    ImageReader(const ImageReader&) = delete;
    ImageReader& operator=(const ImageReader&) = delete;

    std::uint64_t size() const override { return whole().size(); }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override {
        return helped_.readAt(offset, into);
    }

  private:
    const ByteSource& whole() const { return packed_ ? static_cast<const ByteSource&>(*packed_) : joined_; }
    ByteSource& whole() { return packed_ ? static_cast<ByteSource&>(*packed_) : joined_; }

    JoinedSource joined_;
    std::optional<PackedImage> packed_;
    HelpedSource helped_;
};

} // namespace sober
