#include "core/evidence/codec_trace.h"

#include "core/evidence/layer3_grid.h"
#include "core/evidence/mdct_grid.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr double hitStrength = 8;
constexpr double hitShare = 0.01;
constexpr double secondStrength = 12;
constexpr std::size_t nearby = 3; // positions around a peak that belong to it

float medianOf(std::vector<float>& values) {
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::ranges::nth_element(values, middle);
    return *middle;
}

/// The counts less the median of their neighbours on the circle, 3 to 20 positions away.
std::vector<float> excessOf(const std::vector<float>& counts) {
    const std::size_t period = counts.size();
    std::vector<float> excess(period);
    std::vector<float> around;
    for (std::size_t at = 0; at < period; ++at) {
        around.clear();
        for (std::size_t away = 3; away <= 20; ++away) {
            around.push_back(counts[(at + away) % period]);
            around.push_back(counts[(at + period - away) % period]);
        }
        excess[at] = counts[at] - medianOf(around);
    }
    return excess;
}

/// What one unit of strength is: the usual spread between positions, never less than chance.
double spreadOf(const std::vector<float>& counts, const std::vector<float>& excess) {
    double mean = 0;
    for (const float count : counts) {
        mean += static_cast<double>(count);
    }
    mean /= static_cast<double>(counts.size());
    std::vector<float> sizes(excess.size());
    std::ranges::transform(excess, sizes.begin(), [](float value) { return std::abs(value); });
    return std::max(1.4826 * static_cast<double>(medianOf(sizes)), std::sqrt(mean + 1));
}

std::size_t circularDistance(std::size_t a, std::size_t b, std::size_t period) {
    const std::size_t straight = a > b ? a - b : b - a;
    return std::min(straight, period - straight);
}

/// The strongest position of one row of counts, leaving out those around `without`.
TracePeak strongest(const GridCounts& counts, std::size_t threshold,
                    std::optional<std::size_t> without = {}) {
    const auto& row = counts.nearZero[threshold];
    TracePeak peak;
    peak.codec = counts.codec;
    peak.period = counts.period;
    peak.channels = counts.channels;
    peak.threshold = static_cast<double>(traceThresholds[threshold]);
    peak.excess = excessOf(row);
    const double spread = spreadOf(row, peak.excess);
    double most = 0;
    for (std::size_t at = 0; at < counts.period; ++at) {
        if (without && circularDistance(at, *without, counts.period) <= nearby) {
            continue;
        }
        if (static_cast<double>(peak.excess[at]) > most) {
            most = static_cast<double>(peak.excess[at]);
            peak.offset = at;
        }
    }
    peak.strength = most / spread;
    peak.share = counts.coefficients > 0 ? most / static_cast<double>(counts.coefficients) : 0;
    return peak;
}

bool isHit(const TracePeak& peak) {
    return peak.strength >= hitStrength && peak.share >= hitShare;
}

} // namespace

CodecTrace findCodecTrace(std::span<const TraceSegment> segments) {
    CodecTrace trace;
    trace.segments = segments.size();
    if (segments.empty()) {
        return trace;
    }
    LayerIIIGrid layerIII;
    auto mdct = MdctGrid::ofAacAndVorbis();
    for (const auto& segment : segments) {
        layerIII.add(segment);
        mdct.add(segment, 0, mdct.frames());
    }
    std::vector<GridCounts> all(layerIII.counts().begin(), layerIII.counts().end());
    all.insert(all.end(), mdct.counts().begin(), mdct.counts().end());

    for (const auto& counts : all) {
        for (std::size_t threshold = 0; threshold < traceThresholds.size(); ++threshold) {
            auto peak = strongest(counts, threshold);
            if (isHit(peak) && (!trace.last || peak.strength > trace.last->strength)) {
                trace.last = peak;
            }
            if (peak.share >= hitShare && (!trace.highest || peak.strength > trace.highest->strength)) {
                trace.highest = std::move(peak);
            }
        }
    }
    if (!trace.last) {
        return trace;
    }
    // The last encode leaves true zeros, an earlier one larger remains: where the strongest peak of
    // the finest threshold and that of a coarser one lie apart, there were two.
    for (const auto& counts : all) {
        // Vorbis changes its alignment whenever it changes block sizes, so that one encode has several.
        if (counts.codec != trace.last->codec || counts.codec == "vorbis") {
            continue;
        }
        const auto fine = strongest(counts, 0);
        if (!isHit(fine)) {
            continue;
        }
        for (std::size_t threshold = 2; threshold < traceThresholds.size(); ++threshold) {
            auto peak = strongest(counts, threshold, fine.offset);
            if (peak.strength >= secondStrength && peak.share >= hitShare &&
                (!trace.first || peak.strength > trace.first->strength)) {
                trace.first = std::move(peak);
                trace.last = fine;
            }
        }
    }
    return trace;
}

} // namespace sober
