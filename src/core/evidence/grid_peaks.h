#pragma once

#include "core/evidence/grid_counts.h"

#include <optional>
#include <span>

namespace sober {

/// An excess of coefficients near zero at one position of a lossy encoder's block grid.
struct TracePeak {
    std::string codec;      ///< "mp3", "aac", "vorbis", "opus", "ac3", "wma"
    std::size_t offset = 0; ///< within the period of the grid, in samples
    std::size_t period = 0; ///< 576 of Layer III, 1,024 of AAC and Vorbis, 960 of Opus…
    double strength = 0;    ///< times above chance: excess over the spread between positions
    double share = 0;       ///< excess as a share of the coefficients looked at
    double threshold = 0;   ///< in 16-bit steps: below it a coefficient counts as zero
    std::string channels;   ///< "left/right" or "middle/side"
    int rate = 0;     ///< Hz at which the grid lies: another than the file's where it was resampled since
    double speed = 1; ///< of playing since then: the grid shows at so many times the rate
    std::vector<float> excess; ///< over the positions, for the picture
};

/// The counts of one threshold, less the median of their neighbours on the circle.
class GridRow {
  public:
    GridRow(const GridCounts& counts, std::size_t threshold);

    const std::string& codec() const { return counts_->codec; }
    const std::string& channels() const { return counts_->channels; }
    std::size_t threshold() const { return threshold_; }
    /// The strongest position, leaving out those that one encode at `without` explains.
    TracePeak strongest(std::optional<std::size_t> without = {}) const;
    /// The strongest within 3 positions of one.
    TracePeak strongestNear(std::size_t offset) const;
    /// The strongest that an encode whose position is known beforehand does not explain: what leaks from it
    /// reaches 5 positions.
    TracePeak strongestBeside(std::size_t known) const;

  private:
    template <typename Which>
    TracePeak strongestWhere(const Which& counted) const;

    const GridCounts* counts_;
    std::size_t threshold_;
    std::vector<float> excess_;
    double spread_ = 1; ///< what one unit of strength is
};

std::vector<GridRow> rowsOf(std::span<const GridCounts> counts);

/// Of the coefficients looked at, what an excess has to be to count.
inline constexpr double hitShare = 0.01;

/// The strongest position of all rows that has a share worth counting.
std::optional<TracePeak> strongestOf(const std::vector<GridRow>& rows);

/// Whether one encode at `peak` explains an excess at `position`: within 3 positions of it, or of a place
/// where its shorter blocks fall, every 96 samples in Layer III and every 64 with a period of 1,024.
bool belongsTo(std::size_t position, std::size_t peak, std::size_t period);

} // namespace sober
