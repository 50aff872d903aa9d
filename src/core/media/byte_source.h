#pragma once

#include "core/base/file_handle.h"

#include <cstdint>
#include <span>
#include <vector>

namespace sober {

/// Random access to a file's bytes, however they are held.
class ByteSource {
  public:
    virtual ~ByteSource() = default;
    virtual std::uint64_t size() const = 0;
    /// Bytes placed in `into`, fewer than asked for only at the end; negative where reading failed.
    virtual std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) = 0;
};

/// The bytes of an open file, fetched as they are asked for.
class OpenFileSource final : public ByteSource {
  public:
    OpenFileSource(const FileHandle& file, BytePath path, std::uint64_t size)
        : file_(file), path_(std::move(path)), size_(size) {}
    std::uint64_t size() const override { return size_; }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override;

  private:
    const FileHandle& file_;
    BytePath path_;
    std::uint64_t size_;
};

/// What one pass over a file has left in memory: all of a file up to `wholeLimit`, of a larger one
/// its beginning and its end, which is where containers keep what they state. The little that a
/// parser may want from the middle of a larger file is fetched from the open file.
class PassedOverSource final : public ByteSource {
  public:
    static constexpr std::uint64_t wholeLimit = 8U << 20;
    static constexpr std::uint64_t endLimit = wholeLimit / 2;
    static constexpr std::uint64_t passBlock = 1U << 20;

    PassedOverSource(const FileHandle& file, BytePath path, std::uint64_t size);

    /// Where the next bytes of the pass belong: room for `length` bytes at `offset`, which must be
    /// a multiple of `passBlock`; `length` is `passBlock` except at the end of the file.
    std::span<std::uint8_t> roomFor(std::uint64_t offset, std::size_t length);

    std::uint64_t size() const override { return size_; }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override;

  private:
    OpenFileSource rest_;
    std::uint64_t size_;
    std::vector<std::uint8_t> head_;
    std::vector<std::uint8_t> tail_;
    std::uint64_t tailStart_;
    std::vector<std::uint8_t> between_;
};

} // namespace sober
