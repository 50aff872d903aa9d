#include "core/evidence/examination.h"

#include "core/base/text.h"
#include "core/evidence/checksumming_source.h"
#include "core/media/sniff.h"

#include <array>

namespace sober {
namespace {

/// Hands one decode to all who listen.
class Listeners final : public SampleSink {
  public:
    void begin(const SampleFormat& format) override {
        for (auto* sink : all()) {
            sink->begin(format);
        }
    }
    void take(const DecodedBlock& block) override {
        for (auto* sink : all()) {
            sink->take(block);
        }
    }

    void takePacket(std::span<const std::uint8_t> packet) override { payload.feed(packet); }

    RunningChecksum payload;
    LevelPass levels;
    SpectrumPass spectrum;
    TraceSegmentPass segments;
    SampleChecksumPass samples;

  private:
    std::array<SampleSink*, 4> all() { return {&levels, &spectrum, &segments, &samples}; }
};

/// The grids are those of 44.1 and 48 kHz material.
constexpr int highestTraceRate = 48'000;
constexpr int lowestTraceRate = 32'000;

} // namespace

Result<Examination> examineFile(const BytePath& path, RunControl& control) {
    const auto file = openForReading(path);
    if (!file) {
        return file.error();
    }
    const auto before = stampOf(*file, path);
    if (!before) {
        return before.error();
    }
    if (before->size == 0) {
        return Error{Cause::notAudio, path, displayPath(path) + " is empty."};
    }
    OpenFileSource bytes(*file, path, before->size);
    ChecksummingSource source(bytes, true);
    std::vector<std::uint8_t> head(std::min<std::uint64_t>(sniffLength, before->size));
    if (source.readAt(0, head) <= 0) {
        return Error{Cause::unreadable, path, "Could not read " + displayPath(path) + "."};
    }
    if (sniff(head) == Sniffed::notAudio) {
        return Error{Cause::notAudio, path, displayPath(path) + " holds no audio."};
    }
    auto probed = probe(source, path);
    if (!probed) {
        return probed.error();
    }
    Examination examination;
    examination.claims = std::move(probed->claims);
    examination.tags = std::move(probed->tags);

    Listeners listeners;
    auto decoded = decodeAudio(source, path, listeners, control);
    if (!decoded) {
        return decoded.error();
    }
    examination.decode = std::move(*decoded);
    examination.problems = examination.decode.problems;
    examination.levels = listeners.levels.finish();
    examination.spectrum = listeners.spectrum.finish();
    examination.payload = listeners.payload.finish();
    examination.samplesMd5 = listeners.samples.finish();
    const auto& format = examination.decode.format;
    if (examination.spectrum) {
        examination.bandwidth = bandwidthOf(*examination.spectrum);
    }
    if (format.sampleRate >= lowestTraceRate && format.sampleRate <= highestTraceRate) {
        examination.trace = findCodecTrace(listeners.segments.finish());
    }
    if (examination.decode.statedMd5 && examination.samplesMd5 &&
        examination.decode.statedMd5 != examination.samplesMd5) {
        examination.problems.push_back(
            {"checksum-mismatch", 0, "the samples do not have the MD5 that the file states"});
    }
    auto checksums = source.finish();
    const auto after = stampOf(*file, path);
    if (!checksums || !after || !after->sameContentAs(*before)) {
        return Error{Cause::changed, path, displayPath(path) + " was written to while it was read."};
    }
    examination.checksums = std::move(*checksums);
    examination.verdict = verdictOn({examination.claims, examination.decode.seconds(), examination.levels,
                                     examination.spectrum, examination.bandwidth, examination.trace});
    return examination;
}

} // namespace sober
