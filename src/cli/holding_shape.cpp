#include "cli/holding_shape.h"

#include "cli/answers.h"
#include "core/base/text.h"

namespace sober::cli {
namespace {

Json orNull(bool known, Json value) {
    return known ? std::move(value) : Json();
}

Json traceShape(const CodecTrace& trace) {
    if (!trace.last) {
        return nullptr;
    }
    Json json{{"codec", trace.last->codec},
              {"strength", trace.last->strength},
              {"offset", trace.last->offset},
              {"period", trace.last->period},
              {"rate", trace.last->rate},
              {"speed", trace.last->speed},
              {"lines_kept", orNull(trace.linesPerGranule > 0, trace.linesPerGranule)}};
    if (trace.first) {
        json["earlier"] = {{"codec", trace.first->codec},
                           {"strength", trace.first->strength},
                           {"offset", trace.first->offset}};
    }
    return json;
}

Json notesShape(const std::vector<DecodeProblem>& notes) {
    Json json = Json::array();
    for (const auto& note : notes) {
        json.push_back({{"kind", note.kind}, {"at", note.at}, {"detail", note.detail}});
    }
    return json;
}

} // namespace

Json holdingShape(const BytePath& path, const Claims& claims, const Tags& tags, const Checksum128& file,
                  const std::optional<Sha256>& sha256, const Evidence& evidence) {
    const auto& levels = evidence.levels;
    const auto& verdict = evidence.verdict;
    Json json = withPath(path);
    json["claimed"] = {{"container", claims.container},
                       {"codec", claims.codec},
                       {"lossless", claims.lossless},
                       {"bitrate", orNull(claims.bitrate > 0, claims.bitrate)},
                       {"sample_rate", claims.sampleRate},
                       {"channels", claims.channels},
                       {"bit_depth", orNull(claims.bitDepth > 0, claims.bitDepth)},
                       {"duration", claims.duration}};
    json["measured"] = {
        {"cutoff_hz",
         orNull(evidence.bandwidth.has_value(), evidence.bandwidth ? evidence.bandwidth->cutoff : 0)},
        {"brickwall", evidence.bandwidth && evidence.bandwidth->brickwall},
        {"peak_dbtp", nullptr},
        {"peak_dbfs", levels.peak},
        {"rms_dbfs", levels.rms},
        {"loudness_lufs", nullptr},
        {"effective_bit_depth", orNull(levels.effectiveBitDepth > 0, levels.effectiveBitDepth)},
        {"clipped_samples", levels.clipped},
        {"identical_channels", levels.identicalChannels},
        {"duration", evidence.seconds},
        {"trace", traceShape(evidence.trace)}};
    json["verdict"] = {{"class", wordFor(verdict.verdict)},
                       {"confidence", verdict.confidence},
                       {"source_codec", orNull(!verdict.sourceCodec.empty(), verdict.sourceCodec)},
                       {"source_bitrate", orNull(verdict.sourceBitrate > 0, verdict.sourceBitrate)},
                       {"reasons", verdict.reasons}};
    json["soundness"] = {{"sound", evidence.sound()},
                         {"problems", notesShape(evidence.problems)},
                         {"remarks", notesShape(evidence.remarks)}};
    json["checksums"] = {
        {"file_xxh3", file.hex()},
        {"file_sha256", orNull(sha256.has_value(), sha256 ? Json(toHex(*sha256)) : Json())},
        {"payload_xxh3", evidence.payload.hex()},
        {"samples_md5", orNull(evidence.samplesMd5.has_value(),
                               evidence.samplesMd5 ? Json(toHex(*evidence.samplesMd5)) : Json())}};
    json["tags"] = {{"title", tags.title},
                    {"artist", tags.artist},
                    {"album", tags.album},
                    {"track", tags.track},
                    {"date", tags.date}};
    return json;
}

void printHolding(const Json& holding) {
    const auto& verdict = holding["verdict"];
    say("{}\n  {} ({} {}), {:.0f} % sure\n", displayPath(holding["path"].get<std::string>()),
        verdict["class"].get<std::string>(), holding["claimed"]["codec"].get<std::string>(),
        holding["claimed"]["container"].get<std::string>(), 100 * verdict["confidence"].get<double>());
    for (const auto& reason : verdict["reasons"]) {
        say("  {}\n", reason.get<std::string>());
    }
    for (const char* part : {"problems", "remarks"}) {
        for (const auto& note : holding["soundness"][part]) {
            say("  {} at {:.1f} s: {}\n", note["kind"].get<std::string>(), note["at"].get<double>(),
                note["detail"].get<std::string>());
        }
    }
}

} // namespace sober::cli
