#include "core/evidence/compare_decodes.h"

#include "core/base/text.h"
#include "core/evidence/fourier.h"
#include "core/media/pcm_reader.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <fcntl.h>
#include <numbers>
#include <optional>

namespace sober {
namespace {

constexpr int rate = 44'100; // Hz: both are brought to it
constexpr std::size_t block = 16'384;
constexpr std::size_t hop = 2 * block;   // every second block is looked at
constexpr std::size_t searched = 65'536; // samples in which an offset is looked for
constexpr std::size_t firstMiddle = 2;   // bands from 250 Hz
constexpr std::size_t lastMiddle = 7;    // to 4 kHz
constexpr double mostFollowed = 400;     // samples by which the lag may move from block to block
constexpr double quiet = 10;             // 16-bit steps, RMS of a block that counts as sounding
constexpr std::size_t step = 2'048;      // samples in which an end is looked through
constexpr int mostSearches = 4;          // for what lies elsewhere
constexpr double surelyThere = 0.5;      // of a normalised correlation
constexpr double agrees = 0.3;           // share of energy that may be left in the middle bands

double decibels(double powerRatio) {
    return 10 * std::log10(std::max(powerRatio, 1e-12));
}

double median(std::vector<double> values) {
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::ranges::nth_element(values, middle);
    return *middle;
}

/// A decode from any place, as middle and side, with what was read kept for a while.
class Stream {
  public:
    explicit Stream(PcmReader reader) : reader_(std::move(reader)) {}

    double seconds() const { return reader_.seconds(); }

    void seek(std::int64_t sample) {
        reader_.seek(static_cast<double>(std::max<std::int64_t>(0, sample)) / rate);
        start_ = std::max<std::int64_t>(0, sample);
        middle_.clear();
        side_.clear();
        ended_ = false;
    }

    /// The middle from `sample` on; false where the decode does not reach so far. Places before what is
    /// kept are sought anew.
    bool at(std::int64_t sample, std::size_t count, std::vector<float>& middle,
            double* sideEnergy = nullptr) {
        if (sample < 0) {
            return false;
        }
        if (sample < start_ || sample > start_ + static_cast<std::int64_t>(middle_.size()) + 20 * rate) {
            seek(sample);
        }
        readTo(sample + static_cast<std::int64_t>(count));
        const auto from = static_cast<std::size_t>(sample - start_);
        if (from + count > middle_.size()) {
            return false;
        }
        middle.assign(middle_.begin() + static_cast<std::ptrdiff_t>(from),
                      middle_.begin() + static_cast<std::ptrdiff_t>(from + count));
        if (sideEnergy != nullptr) {
            for (std::size_t i = from; i < from + count; ++i) {
                *sideEnergy += static_cast<double>(side_[i] * side_[i]);
            }
        }
        return true;
    }

  private:
    void readTo(std::int64_t end) {
        constexpr std::size_t frames = 8192;
        constexpr std::size_t kept = std::size_t{4} * rate;
        std::array<std::int16_t, 2 * frames> stereo;
        while (!ended_ && start_ + static_cast<std::int64_t>(middle_.size()) < end) {
            const auto got = reader_.read(stereo);
            for (std::size_t i = 0; i < got; ++i) {
                const auto left = static_cast<float>(stereo[2 * i]);
                const auto right = static_cast<float>(stereo[2 * i + 1]);
                middle_.push_back(0.5F * (left + right));
                side_.push_back(0.5F * (left - right));
            }
            ended_ = got < frames;
            if (middle_.size() > 2 * kept + searched) {
                const auto dropped = middle_.size() - kept - searched;
                middle_.erase(middle_.begin(), middle_.begin() + static_cast<std::ptrdiff_t>(dropped));
                side_.erase(side_.begin(), side_.begin() + static_cast<std::ptrdiff_t>(dropped));
                start_ += static_cast<std::int64_t>(dropped);
            }
        }
    }

    PcmReader reader_;
    std::int64_t start_ = 0; ///< place of the first sample kept
    std::vector<float> middle_;
    std::vector<float> side_;
    bool ended_ = false;
};

double energyOf(std::span<const float> samples) {
    double sum = 0;
    for (const float sample : samples) {
        sum += static_cast<double>(sample * sample);
    }
    return sum;
}

struct Lag {
    double samples = 0;  ///< the second's sample n lies on the first's n + samples
    double strength = 0; ///< normalised correlation
};

/// Where a short run fits best into a longer one that begins `lead` samples before it.
Lag bestLag(std::span<const float> shorter, std::span<const float> longer, std::int64_t lead) {
    std::size_t length = 1;
    while (length < shorter.size() + longer.size()) {
        length *= 2;
    }
    ComplexFourier fourier(length);
    const auto spectrumOf = [&](std::span<const float> samples) {
        const auto input = fourier.input();
        std::ranges::fill(input, std::complex<float>(0, 0));
        // The steps between samples: low notes would otherwise drown where they lie.
        for (std::size_t i = 1; i < samples.size(); ++i) {
            input[i] = samples[i] - samples[i - 1];
        }
        const auto bins = fourier.transform();
        return std::vector<std::complex<float>>(bins.begin(), bins.end());
    };
    const auto a = spectrumOf(shorter);
    const auto b = spectrumOf(longer);
    const auto input = fourier.input();
    // A forward transform of the conjugate is the inverse one's conjugate.
    for (std::size_t k = 0; k < length; ++k) {
        input[k] = std::conj(std::conj(a[k]) * b[k]);
    }
    const auto correlation = fourier.transform();
    std::size_t best = 0;
    for (std::size_t at = 0; at + shorter.size() <= longer.size(); ++at) {
        if (correlation[at].real() > correlation[best].real()) {
            best = at;
        }
    }
    double shortEnergy = 0;
    double longEnergy = 0;
    for (std::size_t i = 1; i < shorter.size(); ++i) {
        const auto s = static_cast<double>(shorter[i] - shorter[i - 1]);
        const auto l = static_cast<double>(longer[best + i] - longer[best + i - 1]);
        shortEnergy += s * s;
        longEnergy += l * l;
    }
    const double scale = std::sqrt(shortEnergy * longEnergy) * static_cast<double>(length);
    return {static_cast<double>(static_cast<std::int64_t>(best) - lead),
            scale > 0 ? static_cast<double>(correlation[best].real()) / scale : 0};
}

/// Sums of a block or of many: energies of both and what they share, by band.
struct Sums {
    std::array<double, comparedBands> first{}, second{}, shared{}; ///< shared: size of the cross spectrum
    std::array<double, comparedBands> real{};                      ///< its real part, once aligned
};

class Comparer {
  public:
    Comparer(Stream first, Stream second, RunControl& control)
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
        auto result = told();
        if (!lags_.empty()) {
            result.standsOver = measureEnds();
        }
        if (control_.isCancelled()) {
            return Error{Cause::interrupted, {}, "Stopped while comparing."};
        }
        return result;
    }

  private:
    /// Where a decode really ends, whatever its container says: read on from a place within it, in samples.
    std::int64_t endOf(Stream& stream, std::int64_t at) const {
        std::vector<float> samples;
        while (control_.proceed() && stream.at(at, step, samples)) {
            at += static_cast<std::int64_t>(step);
        }
        return at;
    }

    /// Seconds that sound of a decode between two places, in samples; all of them where they are many.
    double soundingSeconds(Stream& stream, std::int64_t from, std::int64_t to) const {
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

    double measureEnds() {
        const auto firstLag = static_cast<std::int64_t>(lags_.front());
        const auto lastLag = static_cast<std::int64_t>(lags_.back());
        const auto last = static_cast<std::int64_t>(places_.back());
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
                overTime_.push_back(silentBlock);
                continue;
            }
            if (!second_.at(at, block, b, &secondSide) || !first_.at(there, block, a, &firstSide)) {
                return;
            }
            const double firstEnergy = energyOf(a);
            const double secondEnergy = energyOf(b);
            if (std::min(firstEnergy, secondEnergy) < quiet * quiet * block) {
                overTime_.push_back(silentBlock);
                continue;
            }
            middle_[0] += firstEnergy;
            middle_[1] += secondEnergy;
            side_[0] += firstSide;
            side_[1] += secondSide;
            const double more = look(a, b);
            if (!agreesAtLast() && searches_ < mostSearches) {
                // Where frames were lost to damage the rest lies elsewhere.
                if (const auto found = searchAround(b, there)) {
                    lag = static_cast<double>(*found - at);
                    if (first_.at(*found, block, a)) {
                        forgetLast();
                        lag += look(a, b);
                        places_.push_back(static_cast<double>(at));
                        lags_.push_back(lag);
                        continue;
                    }
                }
            }
            lag = std::round(lag) + more;
            places_.push_back(static_cast<double>(at));
            lags_.push_back(lag);
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

    bool agreesAtLast() const {
        const auto& sums = blocks_.back();
        double left = 0;
        double whole = 0;
        for (std::size_t band = firstMiddle; band <= lastMiddle; ++band) {
            left += leftIn(sums, band);
            whole += sums.second[band];
        }
        return left < agrees * whole;
    }

    /// Energy of a band that a gain and a turn of phase do not explain.
    static double leftIn(const Sums& sums, std::size_t band) {
        const double explained =
            sums.first[band] > 0 ? sums.shared[band] * sums.shared[band] / sums.first[band] : 0;
        return std::max(0.0, sums.second[band] - explained);
    }

    void forgetLast() {
        blocks_.pop_back();
        overTime_.pop_back();
        soundAt_.pop_back();
    }

    /// One block; returns by how many samples the lag moved on.
    double look(std::span<const float> a, std::span<const float> b) {
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
        for (std::size_t k = edges_[0]; k < edges_[lastMiddle + 2]; ++k) {
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
        Sums sums;
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
        blocks_.push_back(sums);
        overTime_.push_back(0);
        soundAt_.push_back(overTime_.size() - 1);
        return shift;
    }

    DecodeComparison told() {
        DecodeComparison told;
        told.blockSeconds = static_cast<double>(hop) / rate;
        if (blocks_.empty()) {
            return told;
        }
        told.compared = static_cast<double>(blocks_.size() * block) / rate;
        told.firstSide = middle_[0] > 0 ? decibels(side_[0] / middle_[0]) : -99;
        told.secondSide = middle_[1] > 0 ? decibels(side_[1] / middle_[1]) : -99;
        tellLag(told);
        tellGain(told);
        Sums all;
        double agreeing = 0;
        double left = 0;
        double whole = 0;
        const double gain = std::pow(10.0, told.gain / 20);
        for (std::size_t i = 0; i < blocks_.size(); ++i) {
            const auto& sums = blocks_[i];
            double middleLeft = 0;
            double middleWhole = 0;
            double blockLeft = 0;
            double blockWhole = 0;
            for (std::size_t band = 0; band < comparedBands; ++band) {
                const double rest = leftIn(sums, band);
                all.first[band] += rest;
                all.second[band] += sums.second[band];
                if (band >= firstMiddle && band <= lastMiddle) {
                    middleLeft += rest;
                    middleWhole += sums.second[band];
                }
                blockLeft += std::max(0.0, gain * gain * sums.first[band] + sums.second[band] -
                                               2 * gain * sums.real[band]);
                blockWhole += sums.second[band];
            }
            agreeing += middleLeft < agrees * middleWhole ? 1 : 0;
            left += blockLeft;
            whole += blockWhole;
            overTime_[soundAt_[i]] =
                static_cast<float>(decibels(blockWhole > 0 ? blockLeft / blockWhole : 0));
        }
        told.agreeing = agreeing / static_cast<double>(blocks_.size());
        told.residual = decibels(whole > 0 ? left / whole : 0);
        for (std::size_t band = 0; band < comparedBands; ++band) {
            told.byBand[band] =
                static_cast<float>(all.second[band] > 0 ? decibels(all.first[band] / all.second[band]) : 0);
        }
        told.overTime = std::move(overTime_);
        return told;
    }

    void tellLag(DecodeComparison& told) const {
        // The straight line through the lags, by the median of slopes between both halves (Theil 1950).
        const std::size_t half = lags_.size() / 2;
        std::vector<double> slopes;
        for (std::size_t i = 0; i < half; ++i) {
            slopes.push_back((lags_[i + half] - lags_[i]) / (places_[i + half] - places_[i]));
        }
        const double slope = slopes.empty() ? 0 : median(slopes);
        std::vector<double> starts;
        for (std::size_t i = 0; i < lags_.size(); ++i) {
            starts.push_back(lags_[i] - slope * places_[i]);
        }
        told.offset = median(starts) / rate;
        told.drift = -slope * 1e6;
    }

    /// The gain of all that the second shares with the first, and how far the bands differ in it.
    void tellGain(DecodeComparison& told) const {
        std::vector<double> gains;
        double shared = 0;
        double first = 0;
        for (std::size_t band = 0; band < comparedBands; ++band) {
            double bandShared = 0;
            double bandFirst = 0;
            double bandSecond = 0;
            for (const auto& sums : blocks_) {
                bandShared += sums.shared[band];
                bandFirst += sums.first[band];
                bandSecond += sums.second[band];
            }
            const double coherence =
                bandFirst > 0 && bandSecond > 0 ? bandShared / std::sqrt(bandFirst * bandSecond) : 0;
            if (coherence > 0.9) {
                gains.push_back(20 * std::log10(bandShared / bandFirst));
            }
            shared += bandShared;
            first += bandFirst;
        }
        told.gain = first > 0 && shared > 0 ? 20 * std::log10(shared / first) : 0;
        if (gains.size() > 1) {
            std::ranges::sort(gains);
            const auto cut = gains.size() / 20;
            told.spread = gains[gains.size() - 1 - cut] - gains[cut];
        }
    }

    static constexpr float silentBlock = -120; ///< dB: nothing to compare

    Stream first_;
    Stream second_;
    RunControl& control_;
    std::vector<float> window_;
    std::vector<std::size_t> edges_; ///< of the bands, in bins
    RealFourier firstFourier_{block};
    RealFourier secondFourier_{block};
    ComplexFourier inverse_{block};
    std::array<double, 2> middle_{}, side_{};
    int searches_ = 0;
    std::vector<Sums> blocks_;
    std::vector<std::size_t> soundAt_; ///< where each of `blocks_` stands in `overTime_`
    std::vector<float> overTime_;
    std::vector<double> places_, lags_;
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
    return Comparer(Stream(std::move(*one)), Stream(std::move(*other)), control).run(coarse);
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
