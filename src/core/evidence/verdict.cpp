#include "core/evidence/verdict.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace sober {
namespace {

constexpr double certainStrength = 12;
constexpr double certainShare = 0.02;
constexpr double shortest = 2;   // seconds
constexpr double dullLevel = 22; // dB at 8 to 12 kHz
/// Hz: 24 kHz of a 48 kHz original and what a resampler's slope leaves above it.
constexpr double highestOfLess = 28'000;
constexpr int highestCdLikeRate = 48'000;

std::string codecWord(const std::string& codec) {
    return codec == "mp3"      ? "an MP3"
           : codec == "aac"    ? "an AAC"
           : codec == "vorbis" ? "a Vorbis"
           : codec == "opus"   ? "an Opus"
           : codec == "ac3"    ? "an AC-3"
           : codec == "wma"    ? "a WMA"
                               : "a " + codec;
}

/// Mean of the 95th percentile over a range, in dB.
double levelBetween(const Spectrum& spectrum, double from, double to) {
    double sum = 0;
    int count = 0;
    for (std::size_t bin = 0; bin < spectrum.high.size(); ++bin) {
        const double hertz = static_cast<double>(bin) * spectrum.binWidth;
        if (hertz >= from && hertz < to) {
            sum += static_cast<double>(spectrum.high[bin]);
            ++count;
        }
    }
    return count > 0 ? sum / count : -999;
}

/// Bitrates of MPEG Layer III and what an encoder of each usually leaves: bandwidth in Hz and lines of a
/// granule and channel up to which the class reaches. Medians and the middles between them, of libmp3lame
/// on pieces of bench/trace-accuracy.
struct BitrateClass {
    std::int64_t bitrate;
    double bandwidth;
    double mostLines;
};
constexpr std::array<BitrateClass, 7> bitrateClasses{{{64'000, 11'100, 98},
                                                      {96'000, 15'300, 142},
                                                      {128'000, 16'500, 184},
                                                      {160'000, 17'300, 226},
                                                      {192'000, 18'800, 281},
                                                      {256'000, 19'500, 343},
                                                      {320'000, 20'200, 577}}};

const BitrateClass* classByBandwidth(double cutoff) {
    return std::ranges::min_element(
        bitrateClasses, {}, [&](const BitrateClass& each) { return std::abs(each.bandwidth - cutoff); });
}

/// Bandwidth names the class, a dead stop more surely than where quiet sound ends. Where the lines that
/// were kept speak for quite another, they do: an encoder may be told to cut off more than its bitrate asks
/// for, and another keeps 20 kHz at any.
std::int64_t layerIIIBitrate(const std::optional<Bandwidth>& bandwidth, double linesPerGranule) {
    constexpr double softly = 300; // Hz: how near to a usual bandwidth quiet sound has to end
    const auto* byBandwidth = bandwidth ? classByBandwidth(bandwidth->cutoff) : bitrateClasses.end();
    std::ptrdiff_t mostApart = 2;
    if (bandwidth && !bandwidth->brickwall) {
        mostApart = 1;
        if (std::abs(byBandwidth->bandwidth - bandwidth->cutoff) > softly) {
            byBandwidth = bitrateClasses.end();
        }
    }
    const auto* byLines =
        linesPerGranule > 0
            ? std::ranges::find_if(
                  bitrateClasses, [&](const BitrateClass& each) { return linesPerGranule <= each.mostLines; })
            : bitrateClasses.end();
    if (byLines == bitrateClasses.end()) {
        return byBandwidth != bitrateClasses.end() && bandwidth->brickwall ? byBandwidth->bitrate : 0;
    }
    const bool agree = byBandwidth != bitrateClasses.end() && std::abs(byBandwidth - byLines) <= mostApart;
    return agree ? byBandwidth->bitrate : byLines->bitrate;
}

/// Whether sound ends where a recording made at a lower, common sampling rate ends, what a resampler's slope
/// leaves above it included.
std::optional<int> lowerRateThatEndsAt(double cutoff) {
    struct Range {
        int rate;
        double from, to; ///< Hz
    };
    for (const auto& [rate, from, to] : {Range{22'050, 10'500, 12'800}, Range{32'000, 15'500, 16'300}}) {
        if (cutoff >= from && cutoff <= to) {
            return rate;
        }
    }
    return std::nullopt;
}

/// A lossy file that states much more than an encoder needs for the sound that is in it.
bool claimsTooMuch(const Claims& claims, const Bandwidth& bandwidth) {
    constexpr std::int64_t highBitrate = 250'000;
    constexpr double lowCutoff = 17'000;
    return bandwidth.brickwall && claims.bitrate >= highBitrate && bandwidth.cutoff < lowCutoff;
}

std::string wallSentence(const Bandwidth& bandwidth) {
    return fmt::format("stops dead at {:.1f} kHz, by {:.0f} dB, as lossy encoders do",
                       bandwidth.cutoff / 1000, bandwidth.drop);
}

std::string gridSentence(const TracePeak& peak, std::string_view which) {
    return fmt::format("{}block grid of {} encoder found at {} of {}, {:.0f} times above chance", which,
                       codecWord(peak.codec), peak.offset, peak.period, peak.strength);
}

std::string speedSentence(double speed) {
    const double percent = std::abs(speed - 1) * 100;
    return speed > 1 ? fmt::format("it runs about {:.2f} % faster than when it was encoded", percent)
                     : fmt::format("it runs about {:.2f} % slower than when it was encoded", percent);
}

void nameSource(Verdict& verdict, const TracePeak& peak, const VerdictEvidence& evidence) {
    verdict.sourceCodec = peak.codec;
    if (peak.codec == "mp3") {
        verdict.sourceBitrate = layerIIIBitrate(evidence.bandwidth, evidence.trace.linesPerGranule);
    }
}

Verdict undetermined(std::string reason) {
    return {VerdictClass::undetermined, 0, {}, 0, {std::move(reason)}};
}

/// The grid that accuses: any in a lossless file; in a lossy one an earlier encode, or another codec's.
const TracePeak* accusing(const VerdictEvidence& evidence) {
    const auto& trace = evidence.trace;
    if (trace.first) {
        return &*trace.first;
    }
    if (trace.last && evidence.claims.lossless) {
        return &*trace.last;
    }
    return nullptr;
}

Verdict onLossless(const VerdictEvidence& evidence) {
    const auto& bandwidth = *evidence.bandwidth;
    Verdict verdict;
    if (evidence.claims.sampleRate > highestCdLikeRate && bandwidth.cutoff > 0 &&
        bandwidth.cutoff <= highestOfLess) {
        verdict = {VerdictClass::doubtful, 0.9, {}, 0, {}};
        verdict.reasons.push_back(fmt::format(
            "holds nothing above {:.1f} kHz: a rate of {} Hz was not needed, it was made from less",
            bandwidth.cutoff / 1000, evidence.claims.sampleRate));
        return verdict;
    }
    if (const auto rate = lowerRateThatEndsAt(bandwidth.cutoff); rate && bandwidth.brickwall) {
        verdict = undetermined(wallSentence(bandwidth));
        verdict.reasons.push_back(fmt::format(
            "recordings made at {} Hz end there too, and no block grid of an encoder was found", *rate));
        return verdict;
    }
    if (bandwidth.brickwall) {
        verdict = {VerdictClass::doubtful, 0.5, {}, 0, {wallSentence(bandwidth)}};
        verdict.reasons.emplace_back(
            "no block grid of an encoder was found, so this may be the recording's own limit");
        return verdict;
    }
    verdict = {VerdictClass::genuine, 0.95, {}, 0, {}};
    verdict.reasons.push_back(fmt::format(
        "no trace of an earlier encoder, no dead stop; sound reaches {:.1f} kHz", bandwidth.cutoff / 1000));
    return verdict;
}

Verdict onLossy(const VerdictEvidence& evidence) {
    const auto& bandwidth = *evidence.bandwidth;
    if (claimsTooMuch(evidence.claims, bandwidth)) {
        Verdict verdict{VerdictClass::doubtful, 0.6, {}, 0, {wallSentence(bandwidth)}};
        verdict.reasons.push_back(
            fmt::format("its {} kbit/s would carry more", evidence.claims.bitrate / 1000));
        return verdict;
    }
    Verdict verdict{VerdictClass::genuine, 0.75, {}, 0, {}};
    verdict.reasons.emplace_back("no trace of an earlier encode below its own");
    return verdict;
}

} // namespace

std::string_view wordFor(VerdictClass verdict) {
    switch (verdict) {
    case VerdictClass::genuine:
        return "genuine";
    case VerdictClass::doubtful:
        return "doubtful";
    case VerdictClass::transcoded:
        return "transcoded";
    case VerdictClass::undetermined:
        break;
    }
    return "undetermined";
}

std::optional<VerdictClass> verdictOf(std::string_view word) {
    const auto found = std::ranges::find(everyVerdict, word, wordFor);
    return found != everyVerdict.end() ? std::optional(*found) : std::nullopt;
}

bool raisesDoubt(const Claims& claims, const Bandwidth& bandwidth) {
    constexpr double someDrop = 20; // dB
    // Opus ends at 20 kHz (RFC 6716, table 1), however little there is.
    const bool endsLikeOpus = bandwidth.cutoff >= 19'800 && bandwidth.cutoff <= 20'400;
    return claims.lossless ? bandwidth.drop >= someDrop || endsLikeOpus : claimsTooMuch(claims, bandwidth);
}

Verdict verdictOn(const VerdictEvidence& evidence) {
    if (evidence.levels.silent) {
        return undetermined("it is silent, so nothing can be told of its making");
    }
    if (evidence.seconds < shortest || !evidence.spectrum || !evidence.bandwidth) {
        return undetermined(fmt::format("{:.1f} s are too short to tell", evidence.seconds));
    }
    if (const auto* peak = accusing(evidence)) {
        // A bandwidth that speaks against the claim by itself needs less of a grid to be believed.
        const bool supported =
            !evidence.claims.lossless && claimsTooMuch(evidence.claims, *evidence.bandwidth);
        // What stands out at one speed among many is no chance.
        const bool atOtherSpeed = peak->speed != 1;
        const bool certain =
            supported || atOtherSpeed || (peak->strength >= certainStrength && peak->share >= certainShare);
        Verdict verdict{
            certain ? VerdictClass::transcoded : VerdictClass::doubtful, certain ? 0.98 : 0.6, {}, 0, {}};
        nameSource(verdict, *peak, evidence);
        if (evidence.bandwidth->brickwall) {
            verdict.reasons.push_back(wallSentence(*evidence.bandwidth));
        }
        verdict.reasons.push_back(gridSentence(*peak, evidence.trace.first ? "an earlier " : ""));
        if (atOtherSpeed) {
            verdict.reasons.push_back(speedSentence(peak->speed));
        }
        return verdict;
    }
    if (evidence.trace.repeats > 0) {
        return undetermined(fmt::format(
            "it repeats itself exactly every {} samples, as electronic tones do: an encoder's block "
            "grid cannot be told from that",
            evidence.trace.repeats));
    }
    if (levelBetween(*evidence.spectrum, 8000, 12'000) < dullLevel) {
        return undetermined("there is too little sound above 8 kHz to tell; dull recordings are not accused");
    }
    return evidence.claims.lossless ? onLossless(evidence) : onLossy(evidence);
}

} // namespace sober
