#include "core/evidence/examination.h"

#include "core/base/text.h"
#include "core/evidence/checksumming_source.h"
#include "core/evidence/held_samples.h"
#include "core/media/attached_picture.h"
#include "core/media/excerpt_pass.h"
#include "core/media/small_picture.h"
#include "core/media/sniff.h"
#include "core/media/structure.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace sober {
namespace {

/// Hands one decode to all who listen.
class Listeners final : public SampleSink {
  public:
    void begin(const SampleFormat& format) override {
        for (auto* sink : all()) {
            sink->begin(format);
        }
        if (excerpt) {
            excerpt->begin(format);
        }
    }
    void take(const DecodedBlock& block) override {
        for (auto* sink : all()) {
            sink->take(block);
        }
        if (excerpt) {
            excerpt->take(block);
        }
    }

    void takePacket(std::span<const std::uint8_t> packet) override { payload.feed(packet); }

    RunningChecksum payload;
    LevelPass levels;
    SpectrumPass spectrum;
    TraceSegmentPass segments;
    SampleChecksumPass samples;
    FingerprintPass fingerprint;
    HeldSamplesPass held;
    std::optional<ExcerptPass> excerpt;

  private:
    std::array<SampleSink*, 6> all() {
        return {&levels, &spectrum, &segments, &samples, &fingerprint, &held};
    }
};

/// The grids are those of 44.1 and 48 kHz material.
constexpr int highestTraceRate = 48'000;
constexpr int lowestTraceRate = 32'000;

/// Versions of one codec share a grid.
std::string gridCodec(const std::string& codec) {
    return codec.starts_with("wma") ? "wma" : codec == "eac3" ? "ac3" : codec;
}

/// Silence, and clipping of more than this share of all samples, are told; no source.
constexpr double muchClipped = 0.005;

/// What is odd in the samples.
void addSoundRemarks(Evidence& evidence, std::vector<DecodeProblem> held, const SampleFormat& format) {
    const auto& levels = evidence.levels;
    if (levels.silent) {
        evidence.remarks.push_back({"silence", 0, "nothing above -80 dBFS from beginning to end"});
    }
    const double samples = evidence.seconds * format.sampleRate * format.channels;
    if (static_cast<double>(levels.clipped) > muchClipped * samples) {
        evidence.remarks.push_back({"clipped", levels.clippedAt,
                                    fmt::format("{:.1f} % of all samples stand at full scale",
                                                100 * static_cast<double>(levels.clipped) / samples)});
    }
    std::ranges::move(held, std::back_inserter(evidence.remarks));
}

/// Adds what the structure shows and the decode has not told already: the same kind at nearly the same place
/// is the same fault.
void addStructure(Evidence& evidence, StructureReport report) {
    constexpr double near = 0.2; // seconds
    // Sound of unstated length ends where the file ends.
    if (std::ranges::find(report.remarks, "unstated-length", &DecodeProblem::kind) != report.remarks.end()) {
        std::erase_if(evidence.problems, [](const DecodeProblem& other) {
            return other.kind == "truncated" || other.kind == "length-mismatch";
        });
    }
    // What a decoder stumbles over behind the audio is no fault of the audio.
    for (const auto& remark : report.remarks) {
        std::erase_if(evidence.problems, [&](const DecodeProblem& other) {
            return remark.kind == "junk" && remark.at > 0 && other.kind == "damaged" &&
                   other.at > remark.at - near;
        });
    }
    const auto known = evidence.problems;
    for (auto& problem : report.problems) {
        const bool told = std::ranges::any_of(known, [&](const DecodeProblem& other) {
            return other.kind == problem.kind &&
                   (problem.kind == "truncated" || std::abs(other.at - problem.at) < near);
        });
        if (!told) {
            evidence.problems.push_back(std::move(problem));
        }
    }
    for (const auto& [first, past] : report.junk) {
        evidence.junkBytes += past - first;
    }
    std::ranges::stable_sort(evidence.problems, {}, &DecodeProblem::at);
    std::ranges::move(report.remarks, std::back_inserter(evidence.remarks));
    std::ranges::stable_sort(evidence.remarks, {}, &DecodeProblem::at);
}

Evidence evidenceFrom(Listeners& listeners, DecodeReport& decode, const Claims& claims) {
    Evidence evidence;
    evidence.seconds = decode.seconds();
    evidence.problems = std::move(decode.problems);
    evidence.remarks = std::move(decode.remarks);
    evidence.levels = listeners.levels.finish();
    evidence.spectrum = listeners.spectrum.finish();
    evidence.payload = listeners.payload.finish();
    evidence.samplesMd5 = listeners.samples.finish();
    evidence.fingerprint = listeners.fingerprint.finish();
    addSoundRemarks(evidence, listeners.held.finish(), decode.format);
    if (evidence.spectrum) {
        evidence.bandwidth = bandwidthOf(*evidence.spectrum);
    }
    const int rate = decode.format.sampleRate;
    if (rate >= lowestTraceRate && rate <= highestTraceRate) {
        TraceQuestion question;
        question.rate = rate;
        question.ownCodec = claims.lossless ? std::string() : gridCodec(claims.codec);
        question.everything = evidence.bandwidth && raisesDoubt(claims, *evidence.bandwidth);
        question.wall = evidence.bandwidth && evidence.bandwidth->brickwall;
        question.ownFrames = listeners.segments.blocksBegan();
        evidence.trace = findCodecTrace(listeners.segments.finish(), question);
    }
    if (decode.statedMd5 && evidence.samplesMd5 && decode.statedMd5 != evidence.samplesMd5) {
        evidence.problems.push_back(
            {"checksum-mismatch", 0, "the samples do not have the MD5 that the file states"});
    }
    evidence.verdict = verdictOn(
        {claims, evidence.seconds, evidence.levels, evidence.spectrum, evidence.bandwidth, evidence.trace});
    return evidence;
}

std::string smallCoverOf(ByteSource& source) {
    const auto picture = attachedPictureOf(source);
    const auto small = picture.empty() ? Result(std::string()) : jpegOf(picture, Excerpt::coverPixels);
    return small ? *small : std::string();
}

Error changedMeanwhile(const BytePath& path) {
    return {Cause::changed, path, displayPath(path) + " was written to while it was read."};
}

} // namespace

Result<FileRecord> examineFile(const BytePath& path, RunControl& control,
                               const std::function<void(std::uint64_t)>& onBytes) {
    const auto file = openForReading(path);
    return file ? examineOpen(*file, path, control, onBytes) : Result<FileRecord>(file.error());
}

Result<FileRecord> examineOpen(const FileHandle& file, const BytePath& path, RunControl& control,
                               const std::function<void(std::uint64_t)>& onBytes, bool withExcerpt) {
    const auto before = stampOf(file, path);
    RETURN_IF_FAILED(before);
    OpenFileSource bytes(file, path, before->size);
    auto record = examineBytes(bytes, path, control, onBytes, withExcerpt);
    const auto after = stampOf(file, path);
    if (record && (!after || !after->sameContentAs(*before))) {
        return changedMeanwhile(path);
    }
    if (record) {
        record->stamp = *after;
    }
    return record;
}

Result<FileRecord> examineBytes(ByteSource& bytes, const BytePath& path, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes, bool withExcerpt) {
    const auto size = bytes.size();
    if (size == 0) {
        return Error{Cause::notAudio, path, displayPath(path) + " is empty."};
    }
    std::unique_ptr<StructureCheck> structure;
    bool begun = false;
    ChecksummingSource source(bytes, [&](std::span<const std::uint8_t> fresh) {
        if (!std::exchange(begun, true)) {
            structure = structureCheckFor(fresh, size);
        }
        if (structure) {
            structure->feed(fresh);
        }
        onBytes(fresh.size());
    });
    std::vector<std::uint8_t> head(std::min<std::uint64_t>(sniffLength, size));
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
        record.filing = std::move(probed->filing);
        Listeners listeners;
        if (withExcerpt) {
            listeners.excerpt.emplace();
        }
        auto decoded = decodeAudio(source, path, listeners, control);
        if (decoded) {
            record.evidence = evidenceFrom(listeners, *decoded, record.claims);
            if (listeners.excerpt) {
                record.excerpt = listeners.excerpt->finish(path);
                record.excerpt->cover = smallCoverOf(source);
            }
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
    if (!checksums) {
        return changedMeanwhile(path);
    }
    if (structure && record.evidence && structure->container() == record.claims.container) {
        addStructure(*record.evidence, structure->finish());
    }
    record.checksums = std::move(*checksums);
    return record;
}

} // namespace sober
