#pragma once

#include "core/evidence/checksums.h"
#include "core/media/byte_source.h"

#include <functional>

namespace sober {

/// Takes the checksums of a file from the bytes that somebody else asks for. What was asked for in
/// order goes by at once; what was left out is read at the end.
class ChecksummingSource final : public ByteSource {
  public:
    /// `onBytes` is handed all bytes once, in order, as they go by.
    ChecksummingSource(ByteSource& source, std::function<void(std::span<const std::uint8_t>)> onBytes)
        : source_(source), checksums_(true), onBytes_(std::move(onBytes)) {}

    std::uint64_t size() const override { return source_.size(); }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override;

    /// Reads what was not asked for; nothing where that fails.
    std::optional<FileChecksums> finish();

  private:
    ByteSource& source_;
    ChecksumPass checksums_;
    std::function<void(std::span<const std::uint8_t>)> onBytes_;
    std::uint64_t next_ = 0; ///< the first byte that has not gone by
};

} // namespace sober
