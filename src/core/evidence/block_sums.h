#pragma once

#include "core/evidence/compare_decodes.h"

#include <optional>

namespace sober {

/// Of one block that sounds in both decodes: energies of both and what they share, by band.
struct BlockSums {
    std::array<double, comparedBands> first{}, second{}, shared{}; ///< shared: size of the cross spectrum
    std::array<double, comparedBands> real{};                      ///< its real part, once aligned

    /// Whether the middle bands, 250 Hz to 4 kHz, are one waveform, whatever their gain and phase.
    bool agrees() const;
};

/// The blocks of two decodes that were laid on each other, and what they say together.
class ComparedBlocks {
  public:
    static constexpr std::size_t block = 16'384;  ///< samples
    static constexpr std::size_t hop = 2 * block; ///< every second block is looked at

    /// One in which at least one of both is quiet.
    void addSilent();
    /// One at a place of the second, which lies `lag` samples further on in the first.
    void add(const BlockSums& sums, double place, double lag);
    /// Energies of middle and side of what sounds, of both.
    void addEnergies(std::array<double, 2> middle, std::array<double, 2> side);

    /// Of the first and the last block that sound in both; nothing where none does.
    struct Ends {
        double firstLag, lastLag, lastPlace;
    };
    std::optional<Ends> ends() const;
    /// All but `standsOver`.
    DecodeComparison compared() const;

  private:
    void lagInto(DecodeComparison& comparison) const;
    void gainInto(DecodeComparison& comparison) const;

    std::array<double, 2> middle_{}, side_{};
    std::vector<BlockSums> blocks_;
    std::vector<std::size_t> soundAt_; ///< where each of `blocks_` stands in `overTime_`
    std::vector<float> overTime_;
    std::vector<double> places_, lags_;
};

} // namespace sober
