#include "core/audit/sameness.h"
#include "core/base/text.h"
#include "core/report/report_forms.h"

#include <nlohmann/json.hpp>

namespace sober {
namespace {

using Ordered = nlohmann::ordered_json;

Ordered shapeOf(const ReportedHolding& holding) {
    Ordered json{{"holding", holding.number}, {"volume", percentEncodeOffending(holding.volume)}};
    if (!holding.path.empty()) {
        json["path"] = percentEncodeOffending(holding.path);
        if (!isUtf8(holding.path)) {
            json["path_encoding"] = "percent";
        }
    }
    json["bytes"] = holding.size;
    return json;
}

Ordered timeOrNull(Nanoseconds time) {
    return time != 0 ? Ordered(isoUtc(time)) : Ordered();
}

Ordered conditionShape(const Report& report) {
    const auto& condition = report.condition;
    Ordered volumes = Ordered::array();
    for (std::size_t i = 0; i < condition.volumes.size(); ++i) {
        const auto& volume = condition.volumes[i];
        const auto& figures = condition.figures[i];
        volumes.push_back({{"label", percentEncodeOffending(volume.label)},
                           {"at_hand", volume.atHand},
                           {"holdings", figures.holdings},
                           {"bytes", figures.bytes},
                           {"missing", figures.missing},
                           {"held_once", figures.heldOnce},
                           {"surveyed", timeOrNull(volume.surveyedAt)}});
    }
    Ordered findings = Ordered::object();
    for (const auto& [finding, count] : findingCounts(condition)) {
        findings[std::string(finding)] = count;
    }
    return {{"volumes", std::move(volumes)},
            {"holdings", condition.total.holdings},
            {"bytes", condition.total.bytes},
            {"duration", condition.total.duration},
            {"held_once", condition.total.heldOnce},
            {"examined", condition.total.examined},
            {"reclaimable_bytes", condition.reclaimable},
            {"findings", std::move(findings)}};
}

Ordered copiesShape(const Report& report) {
    Ordered sets = Ordered::array();
    for (const auto& set : report.sets) {
        Ordered members = Ordered::array();
        for (const auto& member : set.members) {
            auto json = shapeOf(member.holding);
            json["suggestion"] = word(member.advice);
            json["reasons"] = member.reasons;
            members.push_back(std::move(json));
        }
        sets.push_back({{"sameness", word(set.sameness)},
                        {"members", std::move(members)},
                        {"reclaimable_bytes", set.reclaimable}});
    }
    return sets;
}

Ordered claimsShape(const Report& report) {
    Ordered claims = Ordered::array();
    for (const auto& claim : report.claims) {
        auto json = shapeOf(claim.holding);
        const auto& verdict = claim.verdict;
        json["claimed"] = {{"codec", claim.claims.codec},
                           {"lossless", claim.claims.lossless},
                           {"bitrate", claim.claims.bitrate > 0 ? Ordered(claim.claims.bitrate) : Ordered()},
                           {"sample_rate", claim.claims.sampleRate},
                           {"duration", claim.claims.duration}};
        json["measured"] = {{"cutoff_hz", claim.cutoff > 0 ? Ordered(claim.cutoff) : Ordered()}};
        json["verdict"] = {
            {"class", wordFor(verdict.verdict)},
            {"confidence", verdict.confidence},
            {"source_codec", verdict.sourceCodec.empty() ? Ordered() : Ordered(verdict.sourceCodec)},
            {"source_bitrate", verdict.sourceBitrate > 0 ? Ordered(verdict.sourceBitrate) : Ordered()},
            {"reasons", verdict.reasons}};
        json["accepted"] = claim.accepted;
        claims.push_back(std::move(json));
    }
    return claims;
}

Ordered damageShape(const Report& report) {
    Ordered all = Ordered::array();
    for (const auto& damage : report.damage) {
        auto json = shapeOf(damage.holding);
        json["problems"] = Ordered::array();
        for (const auto& problem : damage.problems) {
            json["problems"].push_back(
                {{"kind", problem.kind}, {"at", problem.at}, {"detail", problem.detail}});
        }
        all.push_back(std::move(json));
    }
    return all;
}

Ordered fixityShape(const Report& report) {
    Ordered read = Ordered::array();
    for (const auto& volume : report.lastRead) {
        read.push_back({{"volume", percentEncodeOffending(volume.volume)},
                        {"within_30_days", volume.holdings[0]},
                        {"within_180_days", volume.holdings[1]},
                        {"within_365_days", volume.holdings[2]},
                        {"longer_ago", volume.holdings[3]}});
    }
    Ordered checks = Ordered::array();
    for (const auto& check : report.checks) {
        const auto volume = std::ranges::find(report.condition.volumes, check.volume, &Volume::id);
        checks.push_back({{"volume", volume != report.condition.volumes.end()
                                         ? Ordered(percentEncodeOffending(volume->label))
                                         : Ordered()},
                          {"began", isoUtc(check.began)},
                          {"ended", timeOrNull(check.ended)},
                          {"checked", check.checked},
                          {"drifted", check.drifted}});
    }
    Ordered all = Ordered::array();
    for (const auto& drift : report.drift) {
        auto json = shapeOf(drift.holding);
        json["kind"] = driftWord(drift.kind);
        json["found"] = isoUtc(drift.found);
        all.push_back(std::move(json));
    }
    return {{"last_read", std::move(read)}, {"checks", std::move(checks)}, {"drift", std::move(all)}};
}

Ordered missingShape(const Report& report) {
    Ordered all = Ordered::array();
    for (const auto& missing : report.missing) {
        auto json = shapeOf(missing.holding);
        json["last_seen"] = timeOrNull(missing.lastSeen);
        json["held_elsewhere"] = missing.elsewhere;
        all.push_back(std::move(json));
    }
    return all;
}

Ordered proofsShape(const Report& report) {
    Ordered all = Ordered::array();
    for (const auto& proof : report.proofs) {
        Ordered json{{"transfer", proof.transfer}, {"proven", isoUtc(proof.proven)}};
        if (!proof.folder.empty()) {
            json["folder"] = percentEncodeOffending(proof.folder);
        }
        all.push_back(std::move(json));
    }
    return all;
}

} // namespace

std::string reportJson(const Report& report) {
    Ordered json{
        {"schema", "sober.report/1"}, {"made", isoUtc(report.made)}, {"paths", report.choices.paths}};
    for (const auto& [part, shape] : {std::pair{ReportPart::condition, &conditionShape},
                                      {ReportPart::copies, &copiesShape},
                                      {ReportPart::claims, &claimsShape},
                                      {ReportPart::damage, &damageShape},
                                      {ReportPart::fixity, &fixityShape},
                                      {ReportPart::missing, &missingShape},
                                      {ReportPart::proofs, &proofsShape}}) {
        if (report.choices.parts.contains(part)) {
            json[std::string(word(part))] = shape(report);
        }
    }
    return json.dump(1) + "\n";
}

std::optional<ReportForm> reportFormOf(std::string_view word) {
    return word == "html"   ? std::optional(ReportForm::html)
           : word == "csv"  ? std::optional(ReportForm::csv)
           : word == "json" ? std::optional(ReportForm::json)
                            : std::nullopt;
}

std::string reportText(const Report& report, ReportForm form) {
    return form == ReportForm::html  ? reportPage(report)
           : form == ReportForm::csv ? reportTable(report)
                                     : reportJson(report);
}

} // namespace sober
