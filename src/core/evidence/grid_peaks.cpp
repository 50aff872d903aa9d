#include "core/evidence/grid_peaks.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr std::size_t nearest = 3; // neighbours that are compared with, on either side
constexpr std::size_t farthest = 20;

float medianOf(std::vector<float> values) {
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::ranges::nth_element(values, middle);
    return *middle;
}

/// The neighbours of a position in order, kept so from one position to the next.
class SortedNeighbours {
  public:
    void add(float value) {
        std::size_t at = filled_++;
        for (; at > 0 && values_[at - 1] > value; --at) {
            values_[at] = values_[at - 1];
        }
        values_[at] = value;
    }
    void replace(float old, float fresh) {
        // Counted and not searched: no branch depends on the values.
        int from = 0;
        int to = 0;
        for (const float value : values_) {
            from += value < old ? 1 : 0;
            to += value < fresh ? 1 : 0;
        }
        auto* const first = values_.data();
        if (to > from) {
            std::move(first + from + 1, first + to, first + from);
            first[to - 1] = fresh;
        } else {
            std::move_backward(first + to, first + from, first + from + 1);
            first[to] = fresh;
        }
    }
    float median() const { return values_[count / 2]; }

  private:
    static constexpr std::size_t count = 2 * (farthest - nearest + 1);
    std::array<float, count> values_{};
    std::size_t filled_ = 0;
};

std::vector<float> excessOf(const std::vector<float>& counts) {
    const std::size_t period = counts.size();
    // The circle laid out, with what lies around its beginning and end: position p stands at p + farthest.
    std::vector<float> around(period + 2 * farthest + 1);
    for (std::size_t i = 0; i < around.size(); ++i) {
        around[i] = counts[(i + period - farthest) % period];
    }
    SortedNeighbours neighbours;
    for (std::size_t away = nearest; away <= farthest; ++away) {
        neighbours.add(around[farthest + away]);
        neighbours.add(around[farthest - away]);
    }
    std::vector<float> excess(period);
    for (std::size_t here = 0; here < period; ++here) {
        const float* at = around.data() + here + farthest;
        excess[here] = *at - neighbours.median();
        neighbours.replace(*(at - farthest), *(at + 1 - nearest));
        neighbours.replace(*(at + nearest), *(at + 1 + farthest));
    }
    return excess;
}

/// The usual spread between positions, never less than chance.
double spreadOf(const std::vector<float>& counts, const std::vector<float>& excess) {
    double mean = 0;
    for (const float count : counts) {
        mean += static_cast<double>(count);
    }
    mean /= static_cast<double>(counts.size());
    std::vector<float> sizes(excess.size());
    std::ranges::transform(excess, sizes.begin(), [](float value) { return std::abs(value); });
    return std::max(1.4826 * static_cast<double>(medianOf(std::move(sizes))), std::sqrt(mean + 1));
}

/// On the circle.
std::size_t distance(std::size_t a, std::size_t b, std::size_t period) {
    const std::size_t past = (a + period - b) % period;
    return std::min(past, period - past);
}

} // namespace

bool belongsTo(std::size_t position, std::size_t peak, std::size_t period) {
    const std::size_t shorter = period == 576 ? 96 : period == 1024 ? 64 : period;
    return distance(position % shorter, peak % shorter, shorter) <= nearest;
}

GridRow::GridRow(const GridCounts& counts, std::size_t threshold)
    : counts_(&counts),
      threshold_(threshold),
      excess_(excessOf(counts.nearZero[threshold])),
      spread_(spreadOf(counts.nearZero[threshold], excess_)) {}

template <typename Which>
TracePeak GridRow::strongestWhere(const Which& counted) const {
    TracePeak peak;
    peak.codec = counts_->codec;
    peak.period = counts_->period;
    peak.channels = counts_->channels;
    peak.threshold = static_cast<double>(traceThresholds[threshold_]);
    float most = 0;
    for (std::size_t at = 0; at < counts_->period; ++at) {
        if (excess_[at] > most && counted(at)) {
            most = excess_[at];
            peak.offset = at;
        }
    }
    peak.strength = static_cast<double>(most) / spread_;
    peak.share = counts_->coefficients > 0
                     ? static_cast<double>(most) / static_cast<double>(counts_->coefficients)
                     : 0;
    peak.excess = excess_;
    return peak;
}

TracePeak GridRow::strongest(std::optional<std::size_t> without) const {
    return strongestWhere(
        [&](std::size_t at) { return !without || !belongsTo(at, *without, counts_->period); });
}

TracePeak GridRow::strongestNear(std::size_t offset) const {
    return strongestWhere([&](std::size_t at) { return distance(at, offset, counts_->period) <= nearest; });
}

TracePeak GridRow::strongestBeside(std::size_t known) const {
    constexpr std::size_t leaks = 6;
    return strongestWhere([&](std::size_t at) {
        return distance(at, known, counts_->period) > leaks && !belongsTo(at, known, counts_->period);
    });
}

std::vector<GridRow> rowsOf(std::span<const GridCounts> counts) {
    std::vector<GridRow> rows;
    for (const auto& one : counts) {
        for (std::size_t threshold = 0; threshold < traceThresholds.size(); ++threshold) {
            rows.emplace_back(one, threshold);
        }
    }
    return rows;
}

std::optional<TracePeak> strongestOf(const std::vector<GridRow>& rows) {
    std::optional<TracePeak> best;
    for (const auto& row : rows) {
        auto peak = row.strongest();
        if (peak.share >= hitShare && (!best || peak.strength > best->strength)) {
            best = std::move(peak);
        }
    }
    return best;
}

} // namespace sober
