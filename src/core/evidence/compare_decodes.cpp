#include "core/evidence/compare_decodes.h"

#include "core/base/text.h"
#include "core/evidence/best_lag.h"
#include "core/evidence/block_sums.h"
#include "core/evidence/fourier.h"
#include "core/evidence/mid_side_stream.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <fcntl.h>
#include <numbers>
#include <optional>

namespace sober {
namespace {

constexpr int rate = MidSideStream::rate;
constexpr std::size_t block = ComparedBlocks::block;
constexpr std::size_t hop = ComparedBlocks::hop;
constexpr std::size_t searched = 65'536; // samples in which an offset is looked for
constexpr std::size_t weighed = 9;       // bands, up to 6 kHz, that tell the lag
constexpr double mostFollowed = 400;     // samples by which the lag may move from block to block
constexpr double quiet = 10;             // 16-bit steps, RMS of a block that counts as sounding
constexpr std::size_t step = 2'048;      // samples in which an end is looked through
constexpr int mostSearches = 4;          // for what lies elsewhere
constexpr double surelyThere = 0.5;      // of a normalised correlation

class Comparer {
  public:
    Comparer(MidSideStream first, MidSideStream second, RunControl& control)
        : first_(std::move(first)), second_(std::move(second)), control_(control), window_(block) {
        for (std::size_t i = 0; i < block; ++i) {
            window_[i] = static_cast<float>(
                0.5 - 0.5 * std::cos(2 * std::numbers::pi * static_cast<double>(i) / block));
        }
        for (std::size_t band = 0; band <= comparedBands; ++band) {
            edges_.push_back(static_cast<std::size_t>(
                std::ceil(static_cast<double>(comparedBandEdges[band]) * block / rate)));
        }
    }

    Result<DecodeComparison> run(double coarse) {
        const auto lag = findLag(coarse);
        if (lag) {
            follow(*lag);
        }
        auto result = blocks_.compared();
        if (const auto ends = blocks_.ends()) {
            result.standsOver = measureEnds(*ends);
        }
        if (control_.isCancelled()) {
            return Error{Cause::interrupted, {}, "Stopped while comparing."};
        }
        return result;
    }

  private:
    /// Where a decode really ends, whatever its container says: read on from a place within it, in samples.
    std::int64_t endOf(MidSideStream& stream, std::int64_t at) const {
        std::vector<float> samples;
        while (control_.proceed() && stream.at(at, step, samples)) {
            at += static_cast<std::int64_t>(step);
        }
        return at;
    }

    /// Seconds that sound of a decode between two places, in samples; all of them where they are many.
    double soundingSeconds(MidSideStream& stream, std::int64_t from, std::int64_t to) const {
        constexpr std::int64_t looked = std::int64_t{30} * rate;
        if (to - from > looked) {
            return static_cast<double>(to - from) / rate;
        }
        std::size_t sounding = 0;
        std::vector<float> samples;
        for (auto at = std::max<std::int64_t>(0, from);
             at + static_cast<std::int64_t>(step) <= to && control_.proceed();
             at += static_cast<std::int64_t>(step)) {
            double side = 0;
            if (stream.at(at, step, samples, &side)) {
                sounding += energyOf(samples) + side > quiet * quiet * step ? 1 : 0;
            }
        }
        return static_cast<double>(sounding * step) / rate;
    }

    double measureEnds(const ComparedBlocks::Ends& ends) {
        const auto firstLag = static_cast<std::int64_t>(ends.firstLag);
        const auto lastLag = static_cast<std::int64_t>(ends.lastLag);
        const auto last = static_cast<std::int64_t>(ends.lastPlace);
        const auto endOfFirst = endOf(first_, last + lastLag);
        const auto endOfSecond = endOf(second_, last);
        const double before =
            firstLag > 0 ? soundingSeconds(first_, 0, firstLag) : soundingSeconds(second_, 0, -firstLag);
        const double behind = endOfFirst > endOfSecond + lastLag
                                  ? soundingSeconds(first_, endOfSecond + lastLag, endOfFirst)
                                  : soundingSeconds(second_, endOfFirst - lastLag, endOfSecond);
        return before + behind;
    }

    double overlapSeconds(double offset) const {
        return std::min(first_.seconds(), second_.seconds() + offset) - std::max(0.0, offset);
    }

    /// Looks at several places of the second; the lag that most of them agree on.
    std::optional<double> findLag(double coarse) {
        constexpr int places = 5;
        constexpr std::int64_t reach = rate / 3;
        const double begins = std::max(0.0, -coarse);
        const double length = overlapSeconds(coarse);
        std::vector<Lag> found;
        std::vector<float> shorter;
        std::vector<float> longer;
        for (int place = 0; place < places && control_.proceed(); ++place) {
            const auto at =
                static_cast<std::int64_t>((begins + length * (place + 0.5) / (places + 0.5)) * rate);
            const std::size_t window =
                std::min<std::size_t>(searched, static_cast<std::size_t>(length * rate / 3));
            const auto there = at + static_cast<std::int64_t>(std::llround(coarse * rate)) - reach;
            if (!second_.at(at, window, shorter) ||
                !first_.at(there, window + 2 * static_cast<std::size_t>(reach), longer) ||
                energyOf(shorter) < quiet * quiet * static_cast<double>(window)) {
                continue;
            }
            auto lag = bestLag(shorter, longer, reach);
            lag.samples += std::round(coarse * rate);
            found.push_back(lag);
        }
        if (found.empty()) {
            return std::nullopt;
        }
        std::ranges::sort(found, {}, [](const Lag& lag) { return -lag.strength; });
        // The place that the others support best; they may drift apart a little.
        const Lag* best = &found.front();
        std::size_t most = 0;
        for (const auto& lag : found) {
            const auto near = static_cast<std::size_t>(std::ranges::count_if(
                found, [&](const Lag& other) { return std::abs(other.samples - lag.samples) < 2000; }));
            if (near > most) {
                most = near;
                best = &lag;
            }
        }
        return best->samples;
    }

    void follow(double lag) {
        const auto begin = static_cast<std::int64_t>(std::max(0.0, -lag));
        std::vector<float> a;
        std::vector<float> b;
        first_.seek(std::max<std::int64_t>(0, begin + static_cast<std::int64_t>(lag)));
        second_.seek(begin);
        for (std::int64_t at = begin;; at += static_cast<std::int64_t>(hop)) {
            if (!control_.proceed()) {
                return;
            }
            const auto there = at + static_cast<std::int64_t>(std::llround(lag));
            double firstSide = 0;
            double secondSide = 0;
            if (there < 0) {
                blocks_.addSilent();
                continue;
            }
            if (!second_.at(at, block, b, &secondSide) || !first_.at(there, block, a, &firstSide)) {
                return;
            }
            const double firstEnergy = energyOf(a);
            const double secondEnergy = energyOf(b);
            if (std::min(firstEnergy, secondEnergy) < quiet * quiet * block) {
                blocks_.addSilent();
                continue;
            }
            blocks_.addEnergies({firstEnergy, secondEnergy}, {firstSide, secondSide});
            auto looked = look(a, b);
            if (!looked.sums.agrees() && searches_ < mostSearches) {
                // Where frames were lost to damage the rest lies elsewhere.
                if (const auto found = searchAround(b, there)) {
                    lag = static_cast<double>(*found - at);
                    looked = first_.at(*found, block, a) ? look(a, b) : looked;
                }
            }
            lag = std::round(lag) + looked.shift;
            blocks_.add(looked.sums, static_cast<double>(at), lag);
        }
    }

    /// Where in the first a block of the second lies, within a second of `expected`.
    std::optional<std::int64_t> searchAround(std::span<const float> blockOfSecond, std::int64_t expected) {
        ++searches_;
        const std::int64_t from = std::max<std::int64_t>(0, expected - rate);
        std::vector<float> around;
        if (!first_.at(from, block + 2 * static_cast<std::size_t>(rate), around) &&
            !first_.at(from, block + static_cast<std::size_t>(rate), around)) {
            return std::nullopt;
        }
        const auto lag = bestLag(blockOfSecond, around, 0);
        return lag.strength > surelyThere ? std::optional(from + static_cast<std::int64_t>(lag.samples))
                                          : std::nullopt;
    }

    struct Looked {
        BlockSums sums;
        double shift = 0; ///< samples by which the lag moved on
    };

    Looked look(std::span<const float> a, std::span<const float> b) {
        const auto transformed = [&](RealFourier& fourier, std::span<const float> samples) {
            const auto input = fourier.input();
            for (std::size_t i = 0; i < block; ++i) {
                input[i] = samples[i] * window_[i];
            }
            return fourier.transform();
        };
        const auto first = transformed(firstFourier_, a);
        const auto second = transformed(secondFourier_, b);
        const std::size_t bins = block / 2 + 1;
        // Circular correlation, each frequency counting alike up to where both have something.
        const auto input = inverse_.input();
        std::ranges::fill(input, std::complex<float>(0, 0));
        for (std::size_t k = edges_[0]; k < edges_[weighed]; ++k) {
            const auto cross = std::conj(second[k]) * first[k];
            const float size = std::abs(cross);
            input[k] = size > 0 ? std::conj(cross) / std::sqrt(size) : 0;
        }
        const auto correlation = inverse_.transform();
        const auto at = [&](std::int64_t lag) {
            return static_cast<double>(
                correlation[static_cast<std::size_t>((lag + static_cast<std::int64_t>(block)) %
                                                     static_cast<std::int64_t>(block))]
                    .real());
        };
        std::int64_t best = 0;
        for (std::int64_t lag = -static_cast<std::int64_t>(mostFollowed); lag <= mostFollowed; ++lag) {
            if (at(lag) > at(best)) {
                best = lag;
            }
        }
        const double bend = at(best - 1) - 2 * at(best) + at(best + 1);
        const double peak = bend < 0 ? 0.5 * (at(best - 1) - at(best + 1)) / bend : 0;
        const double shift = static_cast<double>(best) + std::clamp(peak, -0.5, 0.5);
        BlockSums sums;
        for (std::size_t band = 0; band < comparedBands; ++band) {
            std::complex<double> cross = 0;
            for (std::size_t k = edges_[band]; k < std::min(edges_[band + 1], bins); ++k) {
                const double angle = 2 * std::numbers::pi * static_cast<double>(k) * shift / block;
                const std::complex<double> turned(std::cos(angle), std::sin(angle));
                const std::complex<double> one(first[k]);
                const std::complex<double> other(second[k]);
                cross += std::conj(other) * one * turned;
                sums.first[band] += std::norm(one);
                sums.second[band] += std::norm(other);
            }
            sums.shared[band] = std::abs(cross);
            sums.real[band] = cross.real();
        }
        return {sums, shift};
    }

    MidSideStream first_;
    MidSideStream second_;
    RunControl& control_;
    std::vector<float> window_;
    std::vector<std::size_t> edges_; ///< of the bands, in bins
    RealFourier firstFourier_{block};
    RealFourier secondFourier_{block};
    ComplexFourier inverse_{block};
    int searches_ = 0;
    ComparedBlocks blocks_;
};

} // namespace

Result<DecodeComparison> compareOpen(const FileHandle& first, const BytePath& firstPath,
                                     const FileHandle& second, const BytePath& secondPath, double coarse,
                                     RunControl& control) {
    auto one = PcmReader::open(FileHandle(fcntl(first.get(), F_DUPFD_CLOEXEC, 0)), firstPath, rate);
    auto other = PcmReader::open(FileHandle(fcntl(second.get(), F_DUPFD_CLOEXEC, 0)), secondPath, rate);
    if (!one || !other) {
        return one ? other.error() : one.error();
    }
    return Comparer(MidSideStream(std::move(*one)), MidSideStream(std::move(*other)), control).run(coarse);
}

Result<DecodeComparison> compareDecodes(const BytePath& first, const BytePath& second, double coarse,
                                        RunControl& control) {
    const auto one = openForReading(first);
    const auto other = openForReading(second);
    if (!one || !other) {
        return one ? other.error() : one.error();
    }
    return compareOpen(*one, first, *other, second, coarse, control);
}

} // namespace sober
