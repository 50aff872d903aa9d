#include "core/evidence/speed_change.h"

#include "core/evidence/exact_repeats.h"
#include "core/evidence/layer3_grid.h"
#include "core/evidence/mdct_grid.h"
#include "core/evidence/sinc_resampling.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr double farthest = 0.005;
/// What a grid has to stand out by among speeds. Honest recordings were measured to reach 2.2, three quarters
/// of encodes more than 8.
constexpr double leastAbove = 5;

constexpr std::array<double, 2> bothPhases{0, 0.5};
constexpr std::span<const double> onePhase = std::span(bothPhases).first(1);

/// How much of the segments is looked at.
struct Look {
    std::size_t eachSegment; ///< 1: every one, 2: every second…
    std::size_t units;       ///< granules or frames of each
    std::span<const double> phases;
};

struct Speed {
    double ratio = 1;             ///< what the rate is multiplied by
    std::vector<TracePeak> peaks; ///< the strongest of each segment
    double above = 0;             ///< mean of their strengths above what is usual, see rank
};

template <typename Grid>
Speed lookAt(std::span<const TraceSegment> segments, double ratio, const Grid& grid, const Look& look) {
    const SincResampling resampling(1, ratio);
    Speed speed{ratio, {}, 0};
    for (std::size_t i = 0; i < segments.size(); i += look.eachSegment) {
        TracePeak best;
        for (const double phase : look.phases) {
            auto counting = grid;
            counting.add(resampledSegment(segments[i], resampling, ratio, phase), 0, look.units);
            auto peak = strongestOf(rowsOf(counting.counts()));
            if (peak && peak->strength > best.strength) {
                best = std::move(*peak);
            }
        }
        speed.peaks.push_back(std::move(best));
    }
    return speed;
}

/// What stands out most comes first: a segment's sound may look like a grid by itself, but then does so at
/// most speeds.
void rank(std::vector<Speed>& speeds) {
    const auto segments = speeds.front().peaks.size();
    for (std::size_t i = 0; i < segments; ++i) {
        std::vector<double> strengths;
        for (const auto& speed : speeds) {
            strengths.push_back(speed.peaks[i].strength);
        }
        const auto usual = strengths.begin() + static_cast<std::ptrdiff_t>(strengths.size() / 2);
        std::ranges::nth_element(strengths, usual);
        for (auto& speed : speeds) {
            speed.above += (speed.peaks[i].strength - *usual) / static_cast<double>(segments);
        }
    }
    std::ranges::sort(speeds, std::ranges::greater(), &Speed::above);
}

/// How a grid is looked for.
template <typename Grid>
struct Search {
    Grid grid;
    double step;          ///< between two speeds
    double worthwhile;    ///< what a quick look has to show for a closer one
    std::size_t segments; ///< that a quick look takes: every second, every fourth
};

template <typename Grid>
std::optional<TracePeak> standingOut(std::span<const TraceSegment> segments, const Search<Grid>& search) {
    constexpr std::size_t quickUnits = 3;
    std::vector<Speed> speeds;
    for (double away = -farthest; away <= farthest; away += search.step) {
        speeds.push_back(lookAt(segments, 1 + away, search.grid, {search.segments, quickUnits, onePhase}));
    }
    rank(speeds);
    if (speeds.front().above < search.worthwhile) {
        return std::nullopt;
    }
    std::vector<Speed> closer;
    constexpr std::size_t likeliest = 3;
    for (const auto& speed : std::span(speeds).first(likeliest)) {
        for (const double fine : {-0.5, 0.0, 0.5}) {
            closer.push_back(lookAt(segments, speed.ratio + fine * search.step, search.grid,
                                    {1, search.grid.units(), bothPhases}));
        }
    }
    rank(closer);
    const auto& best = closer.front();
    if (best.above * std::sqrt(static_cast<double>(segments.size())) < leastAbove) {
        return std::nullopt;
    }
    // A tone whose period is a multiple of a grid's at that speed.
    const SincResampling resampling(1, best.ratio);
    std::vector<TraceSegment> then;
    for (const auto& segment : segments) {
        then.push_back(resampledSegment(segment, resampling, best.ratio, 0));
    }
    if (exactRepeats(then) > 0) {
        return std::nullopt;
    }
    auto peak = *std::ranges::max_element(best.peaks, {}, &TracePeak::strength);
    // Nearer than this it is its own: of pieces put together, say, each with a grid of its own.
    peak.speed = std::abs(best.ratio - 1) < search.step ? 1 : best.ratio;
    return peak;
}

} // namespace

std::optional<TracePeak> findGridAtOtherSpeed(std::span<const TraceSegment> segments) {
    if (segments.empty()) {
        return std::nullopt;
    }
    auto peak = standingOut(segments, Search<LayerIIIGrid>{{}, 2e-4, 0.6, 2});
    return peak ? std::move(peak)
                : standingOut(segments, Search<MdctGrid>{MdctGrid::ofAacAndVorbis(), 1e-4, 0.9, 4});
}

} // namespace sober
