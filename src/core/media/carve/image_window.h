#pragma once

#include "core/media/byte_source.h"

#include <vector>

namespace sober {

/// Where files begin in an image: file systems hand out sectors or several of them.
inline constexpr std::uint64_t sectorBytes = 512;

/// The bytes of an image around where one looks, read in large steps.
class ImageWindow {
  public:
    explicit ImageWindow(ByteSource& source) : source_(source) {}

    std::uint64_t size() const { return source_.size(); }
    /// Bytes from a place on, valid until the next call; fewer than asked for at the end of the image and
    /// before what cannot be read. At most `longest`.
    std::span<const std::uint8_t> at(std::uint64_t offset, std::size_t length);

    static constexpr std::size_t longest = 1U << 20;

  private:
    ByteSource& source_;
    std::vector<std::uint8_t> held_;
    std::uint64_t from_ = 0;
};

} // namespace sober
