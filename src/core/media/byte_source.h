#pragma once

#include "core/base/file_handle.h"

#include <cstdint>
#include <memory>
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

/// Bytes that lie in several places of another source, one after the other. A range from `nowhere` on stands
/// for what is lost: zeros. One from `elsewhere` on lies in another file than the image (image_files.h).
class ExtentSource final : public ByteSource {
  public:
    static constexpr std::uint64_t nowhere = 1ULL << 62;
    static constexpr std::uint64_t elsewhere = 1ULL << 48;

    ExtentSource(ByteSource& source, std::vector<ByteRange> extents);
    std::uint64_t size() const override { return starts_.back(); }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override;

  private:
    ByteSource& source_;
    std::vector<ByteRange> extents_;
    std::vector<std::uint64_t> starts_; ///< of each extent, and the end of the last
};

/// What one pass over a file has left in memory: its beginning and its end, which is where containers
/// keep what they state. The little that a parser may want from the middle is fetched from the open
/// file.
class PassedOverSource final : public ByteSource {
  public:
    static constexpr std::uint64_t endLimit = 512U << 10;

    PassedOverSource(const FileHandle& file, BytePath path, std::uint64_t size);

    /// The next bytes of the pass, which go by from the first to the last.
    void take(std::uint64_t offset, std::span<const std::uint8_t> bytes);

    std::uint64_t size() const override { return size_; }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override;

  private:
    OpenFileSource rest_;
    std::uint64_t size_;
    std::uint64_t headEnd_;   ///< [0, headEnd_) is kept
    std::uint64_t tailStart_; ///< and [tailStart_, size_)
    std::unique_ptr<std::uint8_t[]> kept_;
};

} // namespace sober
