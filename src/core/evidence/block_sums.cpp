#include "core/evidence/block_sums.h"

#include "core/evidence/mid_side_stream.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr std::size_t firstMiddle = 2; // bands from 250 Hz
constexpr std::size_t lastMiddle = 7;  // to 4 kHz
constexpr double mostLeft = 0.3;       // share of energy that may be left in the middle bands
constexpr float silentBlock = -120;    // dB: nothing to compare

double decibels(double powerRatio) {
    return 10 * std::log10(std::max(powerRatio, 1e-12));
}

double median(std::vector<double> values) {
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::ranges::nth_element(values, middle);
    return *middle;
}

/// Energy of a band that a gain and a turn of phase do not explain.
double leftIn(const BlockSums& sums, std::size_t band) {
    const double explained =
        sums.first[band] > 0 ? sums.shared[band] * sums.shared[band] / sums.first[band] : 0;
    return std::max(0.0, sums.second[band] - explained);
}

} // namespace

bool BlockSums::agrees() const {
    double left = 0;
    double whole = 0;
    for (std::size_t band = firstMiddle; band <= lastMiddle; ++band) {
        left += leftIn(*this, band);
        whole += second[band];
    }
    return left < mostLeft * whole;
}

void ComparedBlocks::addSilent() {
    overTime_.push_back(silentBlock);
}

void ComparedBlocks::add(const BlockSums& sums, double place, double lag) {
    blocks_.push_back(sums);
    soundAt_.push_back(overTime_.size());
    overTime_.push_back(0);
    places_.push_back(place);
    lags_.push_back(lag);
}

void ComparedBlocks::addEnergies(std::array<double, 2> middle, std::array<double, 2> side) {
    for (std::size_t i = 0; i < middle.size(); ++i) {
        middle_[i] += middle[i];
        side_[i] += side[i];
    }
}

std::optional<ComparedBlocks::Ends> ComparedBlocks::ends() const {
    return lags_.empty() ? std::nullopt : std::optional(Ends{lags_.front(), lags_.back(), places_.back()});
}

DecodeComparison ComparedBlocks::compared() const {
    DecodeComparison result;
    result.blockSeconds = static_cast<double>(hop) / MidSideStream::rate;
    if (blocks_.empty()) {
        return result;
    }
    result.compared = static_cast<double>(blocks_.size() * block) / MidSideStream::rate;
    result.firstSide = middle_[0] > 0 ? decibels(side_[0] / middle_[0]) : -99;
    result.secondSide = middle_[1] > 0 ? decibels(side_[1] / middle_[1]) : -99;
    lagInto(result);
    gainInto(result);
    result.overTime = overTime_;
    BlockSums all;
    double agreeing = 0;
    double left = 0;
    double whole = 0;
    const double gain = std::pow(10.0, result.gain / 20);
    for (std::size_t i = 0; i < blocks_.size(); ++i) {
        const auto& sums = blocks_[i];
        double blockLeft = 0;
        double blockWhole = 0;
        for (std::size_t band = 0; band < comparedBands; ++band) {
            const double rest = leftIn(sums, band);
            all.first[band] += rest;
            all.second[band] += sums.second[band];
            blockLeft += std::max(0.0, gain * gain * sums.first[band] + sums.second[band] -
                                           2 * gain * sums.real[band]);
            blockWhole += sums.second[band];
        }
        agreeing += sums.agrees() ? 1 : 0;
        left += blockLeft;
        whole += blockWhole;
        result.overTime[soundAt_[i]] =
            static_cast<float>(decibels(blockWhole > 0 ? blockLeft / blockWhole : 0));
    }
    result.agreeing = agreeing / static_cast<double>(blocks_.size());
    result.residual = decibels(whole > 0 ? left / whole : 0);
    for (std::size_t band = 0; band < comparedBands; ++band) {
        result.byBand[band] =
            static_cast<float>(all.second[band] > 0 ? decibels(all.first[band] / all.second[band]) : 0);
    }
    return result;
}

void ComparedBlocks::lagInto(DecodeComparison& comparison) const {
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
    comparison.offset = median(starts) / MidSideStream::rate;
    comparison.drift = -slope * 1e6;
}

/// The gain of all that the second shares with the first, and how far the bands differ in it.
void ComparedBlocks::gainInto(DecodeComparison& comparison) const {
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
    comparison.gain = first > 0 && shared > 0 ? 20 * std::log10(shared / first) : 0;
    if (gains.size() > 1) {
        std::ranges::sort(gains);
        const auto cut = gains.size() / 20;
        comparison.spread = gains[gains.size() - 1 - cut] - gains[cut];
    }
}

} // namespace sober
