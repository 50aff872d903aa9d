#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace sober {

/// XXH3-128 in its canonical big-endian form (xxHash specification 0.2.0).
struct Checksum128 {
    std::array<std::uint8_t, 16> bytes{};

    auto operator<=>(const Checksum128&) const = default;
    std::string hex() const;
};

using Sha256 = std::array<std::uint8_t, 32>;

/// Blocks are counted from the start of the file; the last may be shorter.
inline constexpr std::size_t checksumBlock = 1U << 20;

/// Parts of a file by which it is found again where nobody knows what lies where: of each part XXH3-64 of its
/// first 4 KiB, to be looked up, and XXH3-64 of those of all its 4 KiB in a row. The last may be shorter.
struct PartChecksum {
    std::uint64_t start = 0;
    std::uint64_t whole = 0;

    bool operator==(const PartChecksum&) const = default;
};
inline constexpr std::size_t partStart = 4096;
/// Bytes of a part: so few that a file has about a hundred, and 64 KiB at most.
std::size_t partLengthFor(std::uint64_t size);
/// What its first 4 KiB are looked up by.
std::uint64_t startChecksumOf(std::span<const std::uint8_t> bytes);
/// Of one part's bytes.
PartChecksum partChecksumOf(std::span<const std::uint8_t> bytes);

struct FileChecksums {
    Checksum128 file;
    std::vector<Checksum128> blocks; ///< one for each 1 MiB block; a single one equals `file`
    std::vector<PartChecksum> parts;
    std::optional<Sha256> sha256; ///< only where it was asked for
};

/// Takes the checksums of a file while it goes by, once.
class ChecksumPass {
  public:
    explicit ChecksumPass(bool withSha256);
    ~ChecksumPass();
    ChecksumPass(ChecksumPass&&) noexcept;
    ChecksumPass& operator=(ChecksumPass&&) noexcept;

    /// The next bytes of the file, in pieces of any size.
    void feed(std::span<const std::uint8_t> bytes);
    FileChecksums finish();

  private:
    struct State;
    std::unique_ptr<State> state_;
};

/// XXH3-128 of bytes that come in pieces.
class RunningChecksum {
  public:
    RunningChecksum();
    ~RunningChecksum();
    RunningChecksum(const RunningChecksum&) = delete;
    RunningChecksum& operator=(const RunningChecksum&) = delete;

    void feed(std::span<const std::uint8_t> bytes);
    Checksum128 finish() const;

  private:
    struct State;
    std::unique_ptr<State> state_;
};

/// XXH3-128 of bytes in memory.
Checksum128 checksumOf(std::span<const std::uint8_t> bytes);
Checksum128 checksumOfText(std::string_view text);

} // namespace sober
