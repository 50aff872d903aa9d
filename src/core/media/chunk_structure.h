#pragma once

#include "core/media/push_parser.h"

namespace sober {

/// Chunks of RIFF WAVE, RF64 and BW64 (EBU Tech 3306) and of AIFF and AIFF-C: each within the file and within
/// what the whole states, the sound chunk as long as its format says, nothing behind the end.
class ChunkStructure final : public PushParser {
  public:
    enum class Family { riff, aiff };
    ChunkStructure(Family family, std::uint64_t size) : PushParser(size), family_(family) {}
    std::string_view container() const override { return family_ == Family::riff ? "wav" : "aiff"; }

  private:
    std::uint64_t parse(std::span<const std::uint8_t> held, bool atEnd) override;
    void conclude() override;
    std::uint64_t takeForm(std::span<const std::uint8_t> held);
    void takeFormat(std::span<const std::uint8_t> chunk);
    void takeSound(std::uint64_t length);
    std::uint64_t number(std::span<const std::uint8_t> bytes) const;

    Family family_;
    std::uint64_t end_ = 0;         ///< one past the last byte that the whole states; 0 where it does not
    std::uint64_t soundLength_ = 0; ///< bytes, from ds64
    std::uint64_t frames_ = 0;      ///< as AIFF states them
    std::uint64_t frameBytes_ = 0;
    double bytesPerSecond_ = 0;
    bool hasFormat_ = false;
    bool hasSound_ = false;
    bool formed_ = false;
    bool over_ = false;
};

} // namespace sober
