#pragma once

#include "core/base/file_handle.h"
#include "core/media/byte_source.h"

namespace sober {

/// How the bytes of an image lie in its files.
enum class ImagePacking {
    none = 0,
    gzip = 1,
    zstd = 2,
};

/// An image of a drive as it lies on a drive of ours: in one file or in parts, as it is or compressed; or a
/// drive itself.
struct OpenedImage {
    std::vector<FileHandle> files;
    std::vector<std::uint64_t> lengths; ///< of each, bytes
    ImagePacking packing = ImagePacking::none;
    /// Bytes of the image. Of what is compressed 0, until somebody has measured it (image_bytes.h).
    std::uint64_t size = 0;
    Nanoseconds mtime = 0; ///< of the newest of them; 0 of a drive
    bool isDevice = false;
    std::vector<FileHandle> others; ///< files that lend what the image has lost (HelpedSource)
    std::vector<std::uint64_t> otherLengths;
};

/// Opens an image or a drive for reading. Where the name ends like the first of several parts (".001",
/// ".000",
/// ".aa", ".aaa"; common practice, no source) those that follow belong to it.
Result<OpenedImage> openImage(const BytePath& path);
/// Opens files that lend to an image.
Outcome openOthers(OpenedImage& image, std::span<const BytePath> paths);

/// The bytes of several files, one after the other.
class JoinedSource final : public ByteSource {
  public:
    JoinedSource(std::span<const FileHandle> files, std::span<const std::uint64_t> lengths, BytePath path);
    std::uint64_t size() const override { return starts_.back(); }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override;

  private:
    std::span<const FileHandle> files_;
    std::vector<std::uint64_t> starts_; ///< of each file, and the end of the last
    BytePath path_;
};

/// An image's bytes and, far behind them, those of other files: file n from ExtentSource::elsewhere * (n + 1)
/// on.
class HelpedSource final : public ByteSource {
  public:
    HelpedSource(ByteSource& image, std::span<const FileHandle> others,
                 std::span<const std::uint64_t> lengths);
    std::uint64_t size() const override { return image_.size(); }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override;

  private:
    ByteSource& image_;
    std::vector<OpenFileSource> others_;
};

} // namespace sober
