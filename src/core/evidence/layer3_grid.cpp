#include "core/evidence/layer3_grid.h"

#include "core/base/wide.h"
#include "core/evidence/layer3_window.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <numbers>

namespace sober {
namespace {

constexpr double pi = std::numbers::pi;
constexpr std::size_t taps = 512;
constexpr std::size_t fold = 64;     // the cosine repeats after so many taps
constexpr std::size_t halfFold = 32; // and is symmetric about 16, antisymmetric about 48
constexpr std::size_t slots = 32;    // samples between two outputs of the polyphase filter
constexpr std::size_t lines = 18;    // of one granule and subband
constexpr std::size_t firstCounted = 6;
constexpr std::size_t counted = 24;
constexpr std::size_t most = 32; // bands

/// Alias reduction, ISO/IEC 11172-3 table 3-B.9.
constexpr std::array<double, 8> butterflies{-0.6, -0.535, -0.33, -0.185, -0.095, -0.041, -0.0142, -0.0037};

constexpr std::size_t slotsFor(std::size_t granules) {
    return lines - 1 + lines * (granules - 1) + 2 * lines;
}

/// Subband samples of both channels beside each other: those of the right follow those of the left.
constexpr std::size_t width = 2 * most;

constexpr std::size_t sixteen = 16;
constexpr std::size_t eight = 8;
using Eight = float __attribute__((vector_size(32)));
using EightAnywhere = float __attribute__((vector_size(32), aligned(4), may_alias));
#define SOBER_EIGHT_AT(at) (*reinterpret_cast<const EightAnywhere*>(at))

/// One output slot of the polyphase filter: window, fold to 64, fold to 32, matrix.
SOBER_WIDE void filterSlot(const float* newest, const float* window, const float* matrix, std::size_t count,
                           float* row) {
    float sums[fold] = {};
    const float* oldest = newest - (taps - 1);
    for (std::size_t run = 0; run < taps; run += fold) {
        for (std::size_t n = 0; n < fold; ++n) {
            sums[n] += oldest[run + n] * window[run + n];
        }
    }
    // The window is stored backwards, so that sums[63 - n] belongs to tap n of each run.
    float folded[halfFold];
    folded[0] = sums[fold - 1 - 16];
    for (std::size_t j = 1; j <= 16; ++j) {
        folded[j] = sums[fold - 1 - (16 + j)] + sums[fold - 1 - (16 - j)];
    }
    for (std::size_t j = 1; j < 16; ++j) {
        folded[16 + j] = sums[fold - 1 - (48 - j)] - sums[fold - 1 - (48 + j)];
    }
    for (std::size_t band = 0; band < count; band += eight) {
        Eight sum{};
        Eight other{};
        for (std::size_t j = 0; j < halfFold; j += 2) {
            sum += folded[j] * SOBER_EIGHT_AT(matrix + j * most + band);
            other += folded[j + 1] * SOBER_EIGHT_AT(matrix + (j + 1) * most + band);
        }
        sum += other;
        std::memcpy(row + band, &sum, sizeof sum);
    }
}

/// The 36-point MDCT of all bands, folded to 18 inputs: `subbands` [slot][width] of 36 slots, `odd` the
/// sign of each band in odd slots, `out` [line][count].
SOBER_WIDE void transformGranule(const float* subbands, const float* odd, const float* window,
                                 const float* matrix, std::size_t count, float* out) {
    float turned[lines * width];
    for (std::size_t n = 0; n < lines; ++n) {
        // cos(pi/72 (2n + 19)(2i + 1)): over the first half antisymmetric about 8.5, over the second
        // symmetric about 26.5.
        const bool second = n >= lines / 2;
        const std::size_t a = second ? n + lines / 2 : n;
        const std::size_t b = second ? 2 * lines - 1 - (n - lines / 2) : lines - 1 - n;
        const float sign = second ? 1.0F : -1.0F;
        // One of both slots is odd.
        const float* evenSlot = subbands + (a % 2 == 0 ? a : b) * width;
        const float* oddSlot = subbands + (a % 2 == 0 ? b : a) * width;
        const float evenWindow = a % 2 == 0 ? window[a] : sign * window[b];
        const float oddWindow = a % 2 == 0 ? sign * window[b] : window[a];
        for (std::size_t band = 0; band < count; ++band) {
            turned[n * width + band] = evenWindow * evenSlot[band] + oddWindow * odd[band] * oddSlot[band];
        }
    }
    constexpr std::size_t atOnce = 6; // lines whose sums stay in registers
    for (std::size_t band = 0; band < count; band += sixteen) {
        for (std::size_t i = 0; i < lines; i += atOnce) {
            Sixteen sums[atOnce] = {};
            for (std::size_t n = 0; n < lines; ++n) {
                const Sixteen from = SOBER_SIXTEEN_AT(turned + n * width + band);
                const float* factors = matrix + n * lines + i;
                sums[0] += factors[0] * from;
                sums[1] += factors[1] * from;
                sums[2] += factors[2] * from;
                sums[3] += factors[3] * from;
                sums[4] += factors[4] * from;
                sums[5] += factors[5] * from;
            }
            for (std::size_t line = 0; line < atOnce; ++line) {
                SOBER_PUT_SIXTEEN(out + (i + line) * count + band, sums[line]);
            }
        }
    }
}

/// Of one channel's bands in rows of `row` bands.
SOBER_WIDE void reduceAlias(std::size_t channelBands, std::size_t row, float* out) {
    for (std::size_t i = 0; i < butterflies.size(); ++i) {
        const double c = butterflies[i];
        const auto cs = static_cast<float>(1 / std::sqrt(1 + c * c));
        const auto ca = static_cast<float>(c / std::sqrt(1 + c * c));
        float* upper = out + (lines - 1 - i) * row;
        float* lower = out + i * row;
        for (std::size_t band = 0; band + 1 < channelBands; ++band) {
            const float a = upper[band];
            const float b = lower[band + 1];
            upper[band] = a * cs + b * ca;
            lower[band + 1] = b * cs - a * ca;
        }
    }
}

/// Lines of both channels, or of their middle and side where those are fewer, that are not zero.
int fewestKept(const float* spectrum) {
    constexpr float kept = 1.5F;
    constexpr float half = std::numbers::sqrt2_v<float> / 2;
    int apart = 0;
    int together = 0;
    for (std::size_t line = 0; line < lines; ++line) {
        const float* left = spectrum + line * width;
        const float* right = left + most;
        for (std::size_t band = 0; band < most; ++band) {
            apart += (std::abs(left[band]) >= kept ? 1 : 0) + (std::abs(right[band]) >= kept ? 1 : 0);
            together += (half * std::abs(left[band] + right[band]) >= kept ? 1 : 0) +
                        (half * std::abs(left[band] - right[band]) >= kept ? 1 : 0);
        }
    }
    return std::min(apart, together);
}

} // namespace

LayerIIIGrid::LayerIIIGrid()
    : matrix_(halfFold * most),
      transform_(lines * lines),
      window_(2 * lines),
      counts_{GridCounts("mp3", "left/right", slots * lines),
              GridCounts("mp3", "middle/side", slots * lines)} {
    for (std::size_t band = 0; band < most; ++band) {
        const double k = static_cast<double>(band);
        const auto cosine = [&](std::size_t n) {
            return std::cos((2 * k + 1) * (static_cast<double>(n) - 16) * pi / 64);
        };
        double norm = 0;
        for (std::size_t n = 0; n < taps; ++n) {
            // The window's table carries the sign of each run of 64, so that the cosine repeats.
            const double tap = layerIIIWindow[n] * cosine(n % fold);
            norm += tap * tap;
        }
        for (std::size_t j = 0; j < halfFold; ++j) {
            const std::size_t n = j <= 16 ? 16 + j : 48 - (j - 16);
            matrix_[j * most + band] = static_cast<float>(cosine(n) / std::sqrt(norm));
        }
    }
    for (std::size_t n = 0; n < 2 * lines; ++n) {
        window_[n] = static_cast<float>(std::sin(pi / 36 * (static_cast<double>(n) + 0.5)));
    }
    for (std::size_t n = 0; n < lines; ++n) {
        const std::size_t slot = n >= lines / 2 ? n + lines / 2 : n;
        for (std::size_t i = 0; i < lines; ++i) {
            transform_[n * lines + i] = static_cast<float>(
                std::sqrt(2.0 / lines) *
                std::cos(pi / 72 * (2 * static_cast<double>(slot) + 19) * (2 * static_cast<double>(i) + 1)));
        }
    }
}

/// Subband samples [slot][width]. The standard runs its buffer backwards: x[0] is the newest sample.
void LayerIIIGrid::polyphase(const float* left, const float* right, std::size_t slotCount,
                             std::size_t firstBand, std::size_t count, std::vector<float>& out) const {
    static const std::vector<float> backwards = [] {
        std::vector<float> window(taps);
        for (std::size_t n = 0; n < taps; ++n) {
            window[taps - 1 - n] = static_cast<float>(layerIIIWindow[n]);
        }
        return window;
    }();
    out.resize(slotCount * width);
    for (std::size_t slot = 0; slot < slotCount; ++slot) {
        float* row = out.data() + slot * width;
        for (const float* samples : {left, right}) {
            filterSlot(samples + slot * slots + taps - 1, backwards.data(), matrix_.data() + firstBand, count,
                       row);
            row += count;
        }
    }
}

/// Both channels' spectrum of one granule, [line][2 count], those of the right after those of the left.
void LayerIIIGrid::granule(const float* subbands, std::size_t firstBand, std::size_t count,
                           float* out) const {
    // Odd slots of odd subbands are inverted in frequency.
    std::array<float, width> odd{};
    for (std::size_t band = 0; band < count; ++band) {
        odd[band] = odd[count + band] = (firstBand + band) % 2 == 1 ? -1.0F : 1.0F;
    }
    transformGranule(subbands, odd.data(), window_.data(), transform_.data(), 2 * count, out);
    reduceAlias(count, 2 * count, out);
    reduceAlias(count, 2 * count, out + count);
}

void LayerIIIGrid::add(const TraceSegment& segment, std::size_t from, std::size_t to) {
    static_assert((slotsFor(mostUnits()) - 1) * slots + taps - 1 + slots <= traceBlock * traceBlocks);
    static_assert(2 * counted % sixteen == 0);
    std::vector<float> subbands;
    std::vector<float> spectrum(lines * 2 * counted);
    std::array<std::vector<float>, 2> channels{std::vector<float>(lines * counted),
                                               std::vector<float>(lines * counted)};
    const std::size_t skipped = from * lines * slots;
    for (std::size_t phase = 0; phase < slots; ++phase) {
        polyphase(segment.left.data() + skipped + phase, segment.right.data() + skipped + phase,
                  slotsFor(to - from), firstCounted, counted, subbands);
        for (std::size_t alignment = 0; alignment < lines; ++alignment) {
            const std::size_t position = positionInGrid(segment, alignment * slots + phase, slots * lines);
            for (std::size_t at = 0; at < to - from; ++at) {
                granule(subbands.data() + (alignment + at * lines) * width, firstCounted, counted,
                        spectrum.data());
                for (std::size_t line = 0; line < lines; ++line) {
                    const float* row = spectrum.data() + line * 2 * counted;
                    std::copy_n(row, counted, channels[0].data() + line * counted);
                    std::copy_n(row + counted, counted, channels[1].data() + line * counted);
                }
                countNearZero(channels[0].data(), channels[1].data(), lines * counted, position, counts_[0],
                              counts_[1]);
            }
        }
    }
    for (auto& counts : counts_) {
        counts.coefficients += 2 * (to - from) * lines * counted;
    }
}

double LayerIIIGrid::linesKept(std::span<const TraceSegment> segments, std::size_t position) const {
    constexpr std::size_t period = slots * lines;
    std::vector<float> subbands;
    std::vector<float> spectrum(lines * width);
    double sum = 0;
    std::size_t granules = 0;
    for (const auto& segment : segments) {
        const std::size_t first =
            (position + period - static_cast<std::size_t>(segment.start) % period) % period;
        const std::size_t length = segment.left.size();
        for (std::size_t at = first; at + (2 * lines - 1) * slots + taps <= length; at += period) {
            polyphase(segment.left.data() + at, segment.right.data() + at, 2 * lines, 0, bands, subbands);
            granule(subbands.data(), 0, bands, spectrum.data());
            sum += fewestKept(spectrum.data()) / 2.0;
            ++granules;
        }
    }
    return granules > 0 ? sum / static_cast<double>(granules) : 0;
}

} // namespace sober
