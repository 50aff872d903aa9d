#include "core/evidence/packed_evidence.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <cstring>

namespace sober {
namespace {

using Json = nlohmann::json;
using Bytes = std::vector<std::uint8_t>;

constexpr std::size_t mostPoints = 512;
constexpr float perDecibel = 1.5F; // steps; a byte reaches to 130 dB
constexpr float lowestDecibel = -40;

template <typename Digest>
Json digestShape(const Digest& digest) {
    return Json::binary(Bytes(digest.begin(), digest.end()));
}

template <typename Digest>
Digest digestFrom(const Json& json) {
    const auto& bytes = json.get_binary();
    Digest digest{};
    std::copy_n(bytes.begin(), std::min(bytes.size(), digest.size()), digest.begin());
    return digest;
}

template <typename Digest>
Json optionalDigest(const std::optional<Digest>& digest) {
    return digest ? digestShape(*digest) : Json();
}

template <typename Digest>
std::optional<Digest> optionalDigestFrom(const Json& json) {
    return json.is_null() ? std::nullopt : std::optional(digestFrom<Digest>(json));
}

std::uint8_t inSteps(float level) {
    return static_cast<std::uint8_t>(std::clamp(std::lround((level - lowestDecibel) * perDecibel), 0L, 255L));
}

/// Levels of `each` bins together: the mean power of the mean, the highest of the high.
Json spectrumShape(const Spectrum& spectrum) {
    const std::size_t each = std::max<std::size_t>(1, (spectrum.mean.size() - 1) / mostPoints);
    Bytes mean;
    Bytes high;
    for (std::size_t first = 0; first + each <= spectrum.mean.size(); first += each) {
        float power = 0;
        float most = -999;
        for (std::size_t bin = first; bin < first + each; ++bin) {
            power += std::pow(10.0F, spectrum.mean[bin] / 10);
            most = std::max(most, spectrum.high[bin]);
        }
        mean.push_back(inSteps(10 * std::log10(power / static_cast<float>(each) + 1e-9F)));
        high.push_back(inSteps(most));
    }
    return {{"width", spectrum.binWidth * static_cast<double>(each)},
            {"frames", spectrum.frames},
            {"mean", Json::binary(std::move(mean))},
            {"high", Json::binary(std::move(high))}};
}

std::vector<float> levelsFrom(const Json& json) {
    std::vector<float> levels;
    for (const auto step : json.get_binary()) {
        levels.push_back(static_cast<float>(step) / perDecibel + lowestDecibel);
    }
    return levels;
}

Spectrum spectrumFrom(const Json& json) {
    return {json.at("width"), levelsFrom(json.at("mean")), levelsFrom(json.at("high")), json.at("frames")};
}

/// The row in 127 steps up to its peak; dips are cut off at the same depth.
Json peakShape(const TracePeak& peak) {
    float most = 1e-6F;
    for (const float value : peak.excess) {
        most = std::max(most, value);
    }
    Bytes row;
    for (const float value : peak.excess) {
        row.push_back(
            static_cast<std::uint8_t>(std::clamp(std::lround(value / most * 127), -127L, 127L) + 128));
    }
    return {{"codec", peak.codec},
            {"offset", peak.offset},
            {"period", peak.period},
            {"strength", peak.strength},
            {"share", peak.share},
            {"threshold", peak.threshold},
            {"channels", peak.channels},
            {"rate", peak.rate},
            {"speed", peak.speed},
            {"most", most},
            {"row", Json::binary(std::move(row))}};
}

TracePeak peakFrom(const Json& json) {
    TracePeak peak;
    peak.codec = json.at("codec");
    peak.offset = json.at("offset");
    peak.period = json.at("period");
    peak.strength = json.at("strength");
    peak.share = json.at("share");
    peak.threshold = json.at("threshold");
    peak.channels = json.at("channels");
    peak.rate = json.at("rate");
    peak.speed = json.value("speed", 1.0);
    const float most = json.at("most");
    for (const auto step : json.at("row").get_binary()) {
        peak.excess.push_back((static_cast<float>(step) - 128) / 127 * most);
    }
    return peak;
}

Json optionalPeak(const std::optional<TracePeak>& peak) {
    return peak ? peakShape(*peak) : Json();
}

std::optional<TracePeak> optionalPeakFrom(const Json& json) {
    return json.is_null() ? std::nullopt : std::optional(peakFrom(json));
}

Json notesShape(const std::vector<DecodeProblem>& notes) {
    Json json = Json::array();
    for (const auto& note : notes) {
        json.push_back({note.kind, note.at, note.detail});
    }
    return json;
}

std::vector<DecodeProblem> notesFrom(const Json& json) {
    std::vector<DecodeProblem> notes;
    for (const auto& note : json) {
        notes.push_back({note.at(0), note.at(1), note.at(2)});
    }
    return notes;
}

Json evidenceShape(const Evidence& evidence) {
    const auto& levels = evidence.levels;
    const auto& trace = evidence.trace;
    const auto& verdict = evidence.verdict;
    Json json{{"payload", digestShape(evidence.payload.bytes)},
              {"samples", optionalDigest(evidence.samplesMd5)},
              {"seconds", evidence.seconds},
              {"levels",
               {levels.peak, levels.rms, levels.clipped, levels.effectiveBitDepth, levels.identicalChannels,
                levels.silent, levels.clippedAt}},
              {"spectrum", evidence.spectrum ? spectrumShape(*evidence.spectrum) : Json()},
              {"last", optionalPeak(trace.last)},
              {"first", optionalPeak(trace.first)},
              // The same row is not kept twice.
              {"highest", trace.last ? Json() : optionalPeak(trace.highest)},
              {"segments", trace.segments},
              {"lines", trace.linesPerGranule},
              {"repeats", trace.repeats},
              {"verdict",
               {static_cast<int>(verdict.verdict), verdict.confidence, verdict.sourceCodec,
                verdict.sourceBitrate, verdict.reasons}}};
    if (const auto& width = evidence.bandwidth) {
        json["bandwidth"] = {width->cutoff, width->drop, width->above, width->brickwall};
    }
    json["problems"] = notesShape(evidence.problems);
    json["remarks"] = notesShape(evidence.remarks);
    json["junk"] = evidence.junkBytes;
    return json;
}

Evidence evidenceFrom(const Json& json) {
    Evidence evidence;
    evidence.payload = {digestFrom<std::array<std::uint8_t, 16>>(json.at("payload"))};
    evidence.samplesMd5 = optionalDigestFrom<Md5>(json.at("samples"));
    evidence.seconds = json.at("seconds");
    const auto& levels = json.at("levels");
    evidence.levels = {levels.at(0),
                       levels.at(1),
                       levels.at(2),
                       levels.at(3),
                       levels.at(4),
                       levels.at(5),
                       levels.size() > 6 ? levels.at(6).get<double>() : 0.0};
    if (!json.at("spectrum").is_null()) {
        evidence.spectrum = spectrumFrom(json.at("spectrum"));
    }
    if (json.contains("bandwidth")) {
        const auto& width = json.at("bandwidth");
        evidence.bandwidth = Bandwidth{width.at(0), width.at(1), width.at(2), width.at(3)};
    }
    auto& trace = evidence.trace;
    trace.last = optionalPeakFrom(json.at("last"));
    trace.first = optionalPeakFrom(json.at("first"));
    trace.highest = trace.last ? trace.last : optionalPeakFrom(json.at("highest"));
    trace.segments = json.at("segments");
    trace.linesPerGranule = json.at("lines");
    trace.repeats = json.value("repeats", std::size_t{0});
    const auto& verdict = json.at("verdict");
    evidence.verdict = {static_cast<VerdictClass>(verdict.at(0).get<int>()), verdict.at(1), verdict.at(2),
                        verdict.at(3), verdict.at(4)};
    evidence.problems = notesFrom(json.at("problems"));
    // Evidence of an older method has none.
    if (json.contains("remarks")) {
        evidence.remarks = notesFrom(json.at("remarks"));
        evidence.junkBytes = json.at("junk");
    }
    return evidence;
}

Json recordShape(const FileRecord& record) {
    const auto& stamp = record.stamp;
    const auto& claims = record.claims;
    const auto& tags = record.tags;
    Bytes blocks;
    for (const auto& block : record.checksums.blocks) {
        blocks.insert(blocks.end(), block.bytes.begin(), block.bytes.end());
    }
    const auto& parts = record.checksums.parts;
    const auto* const partBytes = reinterpret_cast<const std::uint8_t*>(parts.data());
    Json json{{"stamp", {stamp.device, stamp.inode, stamp.links, stamp.size, stamp.mtime, stamp.ctime}},
              {"file", digestShape(record.checksums.file.bytes)},
              {"blocks", Json::binary(std::move(blocks))},
              {"parts", Json::binary(Bytes(partBytes, partBytes + parts.size() * sizeof(PartChecksum)))},
              {"sha256", optionalDigest(record.checksums.sha256)},
              {"claims",
               {claims.container, claims.codec, claims.lossless, claims.bitrate, claims.sampleRate,
                claims.channels, claims.bitDepth, claims.duration}},
              {"tags", {tags.title, tags.artist, tags.album, tags.track, tags.date}},
              {"filing",
               {record.filing.albumArtist, record.filing.composer, record.filing.genre, record.filing.disc}},
              {"problem", record.problem}};
    if (record.evidence) {
        json["evidence"] = evidenceShape(*record.evidence);
        const auto words = packFingerprint(record.evidence->fingerprint);
        json["fingerprint"] = Json::binary(Bytes(words.begin(), words.end()));
    }
    if (record.excerpt) {
        const auto& excerpt = *record.excerpt;
        json["excerpt"] = {excerpt.begins,
                           excerpt.seconds,
                           excerpt.whole,
                           Json::binary(Bytes(excerpt.sound.begin(), excerpt.sound.end())),
                           Json::binary(excerpt.outline),
                           Json::binary(Bytes(excerpt.cover.begin(), excerpt.cover.end()))};
    }
    return json;
}

std::string textFrom(const Json& json) {
    const auto& bytes = json.get_binary();
    return {bytes.begin(), bytes.end()};
}

FileRecord recordFrom(const Json& json) {
    FileRecord record;
    const auto& stamp = json.at("stamp");
    record.stamp = {stamp.at(0), stamp.at(1), stamp.at(2), stamp.at(3), stamp.at(4), stamp.at(5)};
    record.checksums.file = {digestFrom<std::array<std::uint8_t, 16>>(json.at("file"))};
    const auto& blocks = json.at("blocks").get_binary();
    for (std::size_t at = 0; at + 16 <= blocks.size(); at += 16) {
        std::copy_n(blocks.begin() + static_cast<std::ptrdiff_t>(at), 16,
                    record.checksums.blocks.emplace_back().bytes.begin());
    }
    const auto& parts = json.at("parts").get_binary();
    record.checksums.parts.resize(parts.size() / sizeof(PartChecksum));
    std::memcpy(record.checksums.parts.data(), parts.data(),
                record.checksums.parts.size() * sizeof(PartChecksum));
    record.checksums.sha256 = optionalDigestFrom<Sha256>(json.at("sha256"));
    const auto& claims = json.at("claims");
    record.claims = {claims.at(0), claims.at(1), claims.at(2), claims.at(3),
                     claims.at(4), claims.at(5), claims.at(6), claims.at(7)};
    const auto& tags = json.at("tags");
    record.tags = {tags.at(0), tags.at(1), tags.at(2), tags.at(3), tags.at(4)};
    const auto& filing = json.at("filing");
    record.filing = {filing.at(0), filing.at(1), filing.at(2), filing.at(3)};
    record.problem = json.at("problem");
    if (json.contains("evidence")) {
        record.evidence = evidenceFrom(json.at("evidence"));
        const auto& words = json.at("fingerprint").get_binary();
        record.evidence->fingerprint =
            unpackFingerprint({reinterpret_cast<const char*>(words.data()), words.size()})
                .value_or(Fingerprint{});
    }
    if (json.contains("excerpt")) {
        const auto& kept = json.at("excerpt");
        record.excerpt = {textFrom(kept.at(3)),    kept.at(0),          kept.at(1), kept.at(2),
                          kept.at(4).get_binary(), textFrom(kept.at(5))};
    }
    return record;
}

std::string asMessage(const Json& json) {
    std::string bytes;
    Json::to_cbor(json, bytes);
    return bytes;
}

/// What is read may be the half of it: the library's exceptions end here.
template <typename Read>
auto guardedRead(std::string_view bytes, Read read) -> std::optional<decltype(read(Json()))> {
    try {
        return read(Json::from_cbor(bytes));
    } catch (const Json::exception&) {
        return std::nullopt;
    }
}

} // namespace

std::string packEvidence(const Evidence& evidence) {
    return asMessage(evidenceShape(evidence));
}

std::optional<Evidence> unpackEvidence(std::string_view bytes) {
    return guardedRead(bytes, evidenceFrom);
}

std::string packRecord(const Result<FileRecord>& record) {
    if (record) {
        return asMessage(recordShape(*record));
    }
    const auto& error = record.error();
    return asMessage({{"cause", static_cast<int>(error.cause)},
                      {"path", Json::binary(Bytes(error.path.begin(), error.path.end()))},
                      {"sentence", error.sentence}});
}

std::optional<Result<FileRecord>> unpackRecord(std::string_view bytes) {
    return guardedRead(bytes, [](const Json& json) -> Result<FileRecord> {
        if (!json.contains("cause")) {
            return recordFrom(json);
        }
        const auto& path = json.at("path").get_binary();
        return Error{static_cast<Cause>(json.at("cause").get<int>()), BytePath(path.begin(), path.end()),
                     json.at("sentence")};
    });
}

} // namespace sober
