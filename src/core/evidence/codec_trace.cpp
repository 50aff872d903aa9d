#include "core/evidence/codec_trace.h"

#include "core/evidence/celt_grid.h"
#include "core/evidence/exact_repeats.h"
#include "core/evidence/layer3_grid.h"
#include "core/evidence/mdct_grid.h"
#include "core/evidence/sinc_resampling.h"
#include "core/evidence/speed_change.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr double hitStrength = 8;
constexpr double certainStrength = 12;
constexpr double certainShare = 0.02;
/// Of an earlier grid, where the bandwidth speaks against the claim by itself.
constexpr double supportedStrength = 7;
/// Between these, more coefficients may decide.
constexpr double faintStrength = 5.5;
constexpr double clearStrength = 14;
/// A part of the coefficients suffices to accept this much.
constexpr double plainStrength = 20;
/// Opus leaves a fainter grid, whose chance peaks are higher.
constexpr double celtStrength = 15;

bool isHit(const TracePeak& peak) {
    return peak.strength >= hitStrength && peak.share >= hitShare;
}

bool isCertain(const TracePeak& peak) {
    return peak.strength >= certainStrength && peak.share >= certainShare;
}

bool isFaint(double strength) {
    return strength >= faintStrength && strength < clearStrength;
}

enum class Care {
    quick,  ///< a sixth of the coefficients, whatever they show
    staged, ///< more while in doubt
    whole,
};

/// The grid's counts, taken with as much care as they need.
template <typename Grid>
std::vector<GridRow> searched(Grid& grid, std::span<const TraceSegment> segments, Care care) {
    const auto addEach = [&](std::size_t first, std::size_t step, std::size_t from, std::size_t to) {
        for (std::size_t i = first; i < segments.size(); i += step) {
            grid.add(segments[i], from, to);
        }
    };
    const auto plain = [](const std::optional<TracePeak>& best) {
        return best && best->strength >= plainStrength && best->share >= certainShare;
    };
    addEach(0, 2, 0, grid.quickUnits());
    if (care != Care::whole) {
        auto rows = rowsOf(grid.counts());
        if (care == Care::quick || plain(strongestOf(rows))) {
            return rows;
        }
    }
    addEach(1, 2, 0, grid.quickUnits());
    if (care != Care::whole) {
        auto rows = rowsOf(grid.counts());
        const auto best = strongestOf(rows);
        if (plain(best)) {
            return rows;
        }
    }
    addEach(0, 1, grid.quickUnits(), grid.units());
    auto rows = rowsOf(grid.counts());
    const auto best = strongestOf(rows);
    if (care == Care::staged && best && isFaint(best->strength)) {
        addEach(0, 1, grid.units(), grid.mostUnits());
        return rowsOf(grid.counts());
    }
    return rows;
}

/// The last encode leaves true zeros, an earlier one by the same method larger remains: where the
/// strongest peak of the finest threshold and that of a coarser one lie apart, there were two.
void lookBelow(const std::vector<GridRow>& rows, double least, CodecTrace& trace) {
    // Vorbis changes its alignment whenever it changes block sizes, so that one encode has several.
    if (!trace.last || trace.last->codec == "vorbis") {
        return;
    }
    for (const auto& fine : rows) {
        if (fine.threshold() != 0 || fine.codec() != trace.last->codec) {
            continue;
        }
        auto last = fine.strongest();
        if (!isHit(last)) {
            continue;
        }
        for (const auto& coarse : rows) {
            if (coarse.threshold() < 2 || coarse.codec() != fine.codec() ||
                coarse.channels() != fine.channels()) {
                continue;
            }
            auto peak = coarse.strongest(last.offset);
            if (peak.strength >= least && peak.share >= hitShare &&
                (!trace.first || peak.strength > trace.first->strength)) {
                trace.first = std::move(peak);
                trace.last = last;
            }
        }
    }
}

/// The same where it is known where the own grid lies: every other is an earlier encode's. Beside that the
/// own may be faint.
void lookBeside(const std::vector<GridRow>& rows, std::size_t own, double least, CodecTrace& trace) {
    std::optional<TracePeak> last;
    for (const auto& row : rows) {
        if (auto peak = row.strongestNear(own); !last || peak.strength > last->strength) {
            last = std::move(peak);
        }
        auto peak = row.strongestBeside(own);
        if (peak.strength >= least && peak.share >= hitShare &&
            (!trace.first || peak.strength > trace.first->strength)) {
            trace.first = std::move(peak);
        }
    }
    trace.last = last && (trace.first || isHit(*last)) ? std::move(last) : std::nullopt;
}

/// A grid of another codec than the file's own, below it. A window much like the own codec's shows the
/// own grid too.
void lookForOthers(const std::vector<GridRow>& rows, const std::string& ownCodec, CodecTrace& trace) {
    std::optional<TracePeak> own;
    for (const auto& row : rows) {
        if (row.codec() == ownCodec) {
            auto peak = row.strongest();
            if (!own || peak.strength > own->strength) {
                own = std::move(peak);
            }
        }
    }
    const auto ownOffset = own ? std::optional(own->offset) : std::nullopt;
    for (const auto& row : rows) {
        if (row.codec() == ownCodec) {
            continue;
        }
        auto peak = row.strongest(ownOffset);
        if (isCertain(peak) && (!trace.first || peak.strength > trace.first->strength)) {
            trace.first = std::move(peak);
        }
    }
}

/// An earlier encode by the own codec's method; `own`: where its grid lies, where that is known.
void lookForEarlier(const std::vector<GridRow>& rows, std::optional<std::size_t> own, double least,
                    CodecTrace& trace) {
    if (own) {
        lookBeside(rows, *own, least, trace);
    } else {
        lookBelow(rows, least, trace);
    }
}

/// Looks at more of an own codec's grid where an earlier one by the same method shows faintly.
template <typename Grid>
void deepen(Grid& grid, std::span<const TraceSegment> segments, std::optional<std::size_t> own,
            std::vector<GridRow>& rows) {
    CodecTrace found;
    found.last = strongestOf(rows);
    lookForEarlier(rows, own, faintStrength, found);
    if (found.first && isFaint(found.first->strength)) {
        for (const auto& segment : segments) {
            grid.add(segment, grid.units(), grid.mostUnits());
        }
        rows = rowsOf(grid.counts());
    }
}

void keepHighest(const std::vector<GridRow>& rows, CodecTrace& trace) {
    auto best = strongestOf(rows);
    if (best && (!trace.highest || best->strength > trace.highest->strength)) {
        trace.highest = std::move(best);
    }
}

/// What both grids of the common codecs show.
class CommonGrids {
  public:
    CommonGrids(std::span<const TraceSegment> segments, const std::string& ownCodec,
                std::optional<std::size_t> ownFrames, bool hurried)
        : ownCodec_(ownCodec) {
        if (ownCodec == "mp3" && ownFrames) {
            ownPosition_ = LayerIIIGrid::positionOfFrames(*ownFrames);
        }
        const bool ownMdct = ownCodec == "aac" || ownCodec == "vorbis";
        const Care usual = hurried ? Care::quick : Care::staged;
        layerIIIRows_ = searched(layerIII_, segments, ownCodec == "mp3" ? Care::whole : usual);
        const auto plain = strongestOf(layerIIIRows_);
        const bool found = ownCodec.empty() && plain && plain->strength >= plainStrength;
        mdctRows_ = searched(mdct_, segments, ownMdct ? Care::whole : found ? Care::quick : usual);
        if (ownCodec == "mp3") {
            deepen(layerIII_, segments, ownPosition_, layerIIIRows_);
        } else if (ownMdct) {
            deepen(mdct_, segments, {}, mdctRows_);
        }
    }

    /// `doubted`: something else speaks against the claim, so that a fainter earlier grid counts.
    void tell(CodecTrace& trace, bool doubted) const {
        for (const auto* rows : {&layerIIIRows_, &mdctRows_}) {
            keepHighest(*rows, trace);
            for (const auto& row : *rows) {
                if (!ownCodec_.empty() && row.codec() != ownCodec_) {
                    continue;
                }
                auto peak = row.strongest();
                if (isHit(peak) && (!trace.last || peak.strength > trace.last->strength)) {
                    trace.last = std::move(peak);
                }
            }
        }
        const double least = doubted ? supportedStrength : certainStrength;
        lookForEarlier(layerIIIRows_, ownPosition_, least, trace);
        lookBelow(mdctRows_, least, trace);
        if (!ownCodec_.empty()) {
            lookForOthers(layerIIIRows_, ownCodec_, trace);
            // The longer window of WMA leaves a fainter grid in the shorter ones.
            if (ownCodec_ != "wma") {
                lookForOthers(mdctRows_, ownCodec_, trace);
            }
        }
    }

    double linesKept(std::span<const TraceSegment> segments, const TracePeak& peak) const {
        return layerIII_.linesKept(segments, peak.offset);
    }

  private:
    std::string ownCodec_;
    std::optional<std::size_t> ownPosition_; ///< of an MP3's own grid
    LayerIIIGrid layerIII_;
    MdctGrid mdct_ = MdctGrid::ofAacAndVorbis();
    std::vector<GridRow> layerIIIRows_, mdctRows_;
};

/// The segments as they were before they were resampled from `toRate`, in one of two phases.
std::vector<TraceSegment> resampledTo(int toRate, int rate, double phase,
                                      std::span<const TraceSegment> segments) {
    const SincResampling resampling(rate, toRate);
    const double ratio = static_cast<double>(toRate) / rate;
    std::vector<TraceSegment> out;
    for (const auto& segment : segments) {
        out.push_back(resampledSegment(segment, resampling, ratio, phase));
    }
    return out;
}

void keepHit(const std::vector<GridRow>& rows, double least, int rate, const TraceQuestion& question,
             CodecTrace& trace) {
    auto best = strongestOf(rows);
    if (!best || best->strength < least || best->codec == question.ownCodec) {
        return;
    }
    auto& place = question.ownCodec.empty() ? trace.last : trace.first;
    if (!place || best->strength > place->strength) {
        best->rate = rate;
        place = trace.highest = std::move(best);
    }
}

/// Grids that are seldom met, and common ones at the other of the two usual rates.
void lookFurther(std::span<const TraceSegment> segments, const TraceQuestion& question, CodecTrace& trace) {
    const double least = question.ownCodec.empty() ? hitStrength : certainStrength;
    auto wma = MdctGrid::ofWma();
    keepHit(searched(wma, segments, Care::staged), least, question.rate, question, trace);
    const int other = question.rate == 44'100 ? 48'000 : 44'100;
    for (const double phase : {0.0, 0.5}) {
        const auto then = resampledTo(other, question.rate, phase, segments);
        const CommonGrids common(then, "", {}, true);
        CodecTrace found;
        common.tell(found, false);
        if (found.last && isCertain(*found.last)) {
            found.last->rate = other;
            auto& place = question.ownCodec.empty() ? trace.last : trace.first;
            if (!place || found.last->strength > place->strength) {
                place = trace.highest = found.last;
            }
        }
        if (other == CeltGrid::rate) {
            CeltGrid celt;
            keepHit(searched(celt, then, Care::staged), celtStrength, other, question, trace);
        }
    }
    if (question.rate == CeltGrid::rate) {
        CeltGrid celt;
        keepHit(searched(celt, segments, Care::staged), celtStrength, question.rate, question, trace);
    }
}

CodecTrace findGrids(std::span<const TraceSegment> segments, const TraceQuestion& question) {
    CodecTrace trace;
    trace.segments = segments.size();
    if (segments.empty()) {
        return trace;
    }
    const CommonGrids common(segments, question.ownCodec, question.ownFrames, false);
    common.tell(trace, !question.ownCodec.empty() && question.everything);
    for (auto* peak : {&trace.last, &trace.first, &trace.highest}) {
        if (*peak) {
            (*peak)->rate = question.rate;
        }
    }
    if (question.ownCodec.empty() && trace.last && trace.last->codec == "aac") {
        // A window of twice the length leaves a fainter grid in the shorter one's transform, too.
        auto wma = MdctGrid::ofWma();
        keepHit(searched(wma, segments, Care::quick), plainStrength, question.rate, question, trace);
    }
    const bool accused = trace.first || (question.ownCodec.empty() && trace.last);
    if (!accused && question.ownCodec.empty()) {
        auto ac3 = MdctGrid::ofAc3(); // takes a twentieth of the time of the others
        keepHit(searched(ac3, segments, Care::staged), hitStrength, question.rate, question, trace);
    }
    // Little music is made at 48 kHz: much that is so now was resampled, or is what Opus decodes to.
    const bool unusual = question.ownCodec.empty() && question.rate == CeltGrid::rate;
    if (!accused && (question.everything || unusual)) {
        lookFurther(segments, question, trace);
    }
    if (question.wall && question.ownCodec.empty() && !trace.last) {
        if (auto peak = findGridAtOtherSpeed(segments)) {
            peak->rate = question.rate;
            trace.last = trace.highest = std::move(peak);
        }
    }
    if (question.ownCodec.empty() && trace.last && !trace.first && trace.last->codec == "mp3" &&
        trace.last->rate == question.rate && trace.last->speed == 1) {
        trace.linesPerGranule = common.linesKept(segments, *trace.last);
    }
    return trace;
}

} // namespace

CodecTrace findCodecTrace(std::span<const TraceSegment> segments, const TraceQuestion& question) {
    auto trace = findGrids(segments, question);
    const bool isLossless = question.ownCodec.empty();
    if (trace.first || (isLossless && trace.last)) {
        trace.repeats = exactRepeats(segments);
    }
    if (trace.repeats > 0) {
        trace.first.reset();
        trace.linesPerGranule = 0;
        if (isLossless) {
            trace.last.reset();
        }
    }
    return trace;
}

} // namespace sober
