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
    FingerprintPass fingerprint;

  private:
    std::array<SampleSink*, 5> all() { return {&levels, &spectrum, &segments, &samples, &fingerprint}; }
};

/// The grids are those of 44.1 and 48 kHz material.
constexpr int highestTraceRate = 48'000;
constexpr int lowestTraceRate = 32'000;

/// Versions of one codec share a grid.
std::string gridCodec(const std::string& codec) {
    return codec.starts_with("wma") ? "wma" : codec == "eac3" ? "ac3" : codec;
}

Evidence evidenceFrom(Listeners& listeners, DecodeReport& decode, const Claims& claims) {
    Evidence evidence;
    evidence.seconds = decode.seconds();
    evidence.problems = std::move(decode.problems);
    evidence.levels = listeners.levels.finish();
    evidence.spectrum = listeners.spectrum.finish();
    evidence.payload = listeners.payload.finish();
    evidence.samplesMd5 = listeners.samples.finish();
    evidence.fingerprint = listeners.fingerprint.finish();
    if (evidence.spectrum) {
        evidence.bandwidth = bandwidthOf(*evidence.spectrum);
    }
    const int rate = decode.format.sampleRate;
    if (rate >= lowestTraceRate && rate <= highestTraceRate) {
        evidence.trace = findCodecTrace(listeners.segments.finish(),
                                        {rate, claims.lossless ? std::string() : gridCodec(claims.codec),
                                         evidence.bandwidth && raisesDoubt(claims, *evidence.bandwidth)});
    }
    if (decode.statedMd5 && evidence.samplesMd5 && decode.statedMd5 != evidence.samplesMd5) {
        evidence.problems.push_back(
            {"checksum-mismatch", 0, "the samples do not have the MD5 that the file states"});
    }
    evidence.verdict = verdictOn(
        {claims, evidence.seconds, evidence.levels, evidence.spectrum, evidence.bandwidth, evidence.trace});
    return evidence;
}

} // namespace

Result<FileRecord> examineFile(const BytePath& path, RunControl& control,
                               const std::function<void(std::uint64_t)>& onBytes) {
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
    ChecksummingSource source(bytes, onBytes);
    std::vector<std::uint8_t> head(std::min<std::uint64_t>(sniffLength, before->size));
    if (source.readAt(0, head) <= 0) {
        return Error{Cause::unreadable, path, "Could not read " + displayPath(path) + "."};
    }
    if (sniff(head) == Sniffed::notAudio) {
        return Error{Cause::notAudio, path, displayPath(path) + " holds no audio."};
    }
    FileRecord record;
    auto probed = probe(source, path);
    if (probed) {
        record.claims = std::move(probed->claims);
        record.tags = std::move(probed->tags);
        Listeners listeners;
        auto decoded = decodeAudio(source, path, listeners, control);
        if (decoded) {
            record.evidence = evidenceFrom(listeners, *decoded, record.claims);
        } else if (decoded.error().cause == Cause::interrupted) {
            return decoded.error();
        } else {
            record.problem = decoded.error().sentence;
        }
    } else if (probed.error().cause == Cause::notAudio) {
        return probed.error();
    } else {
        record.problem = probed.error().sentence;
    }
    auto checksums = source.finish();
    const auto after = stampOf(*file, path);
    if (!checksums || !after || !after->sameContentAs(*before)) {
        return Error{Cause::changed, path, displayPath(path) + " was written to while it was read."};
    }
    record.checksums = std::move(*checksums);
    record.stamp = *after;
    return record;
}

} // namespace sober
