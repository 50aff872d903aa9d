#pragma once

#include "core/media/structure.h"

namespace sober {

/// A structure check that is handed its bytes from where it stands: what it is done with goes, what it cannot
/// tell yet is held until more have come.
class PushParser : public StructureCheck {
  public:
    void feed(std::span<const std::uint8_t> bytes) final;
    StructureReport finish() final;

  protected:
    explicit PushParser(std::uint64_t size) : size_(size) {}

    /// Looks at the bytes from `offset()` on and yields how many are done with, which may be more than are
    /// held: the others are passed over. 0 where more are needed; at the end of the file none follow.
    virtual std::uint64_t parse(std::span<const std::uint8_t> held, bool atEnd) = 0;
    /// After the last byte.
    virtual void conclude() = 0;

    std::uint64_t offset() const { return offset_; }
    std::uint64_t size() const { return size_; } ///< of the file, as it was when the reading began
    std::uint64_t left() const { return size_ > offset_ ? size_ - offset_ : 0; }
    void problem(std::string kind, double at, std::string detail);
    void remark(std::string kind, double at, std::string detail);
    /// Counts so many bytes from `offset()` on as junk.
    void junk(std::uint64_t length);

    StructureReport report_;

  private:
    std::size_t run(std::span<const std::uint8_t> bytes, bool atEnd);

    std::uint64_t size_;
    std::uint64_t offset_ = 0;
    std::uint64_t skip_ = 0; ///< bytes to come that are done with already
    std::vector<std::uint8_t> held_;
};

/// Unsigned numbers of one to eight bytes, as containers hold them.
std::uint64_t littleEndian(std::span<const std::uint8_t> bytes);
std::uint64_t bigEndian(std::span<const std::uint8_t> bytes);
/// True where the bytes begin with these.
bool beginsWith(std::span<const std::uint8_t> bytes, std::string_view signature);

} // namespace sober
