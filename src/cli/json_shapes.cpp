#include "cli/json_shapes.h"

#include "core/base/text.h"

#include <algorithm>

namespace sober::cli {

BytePath absolutePath(const Holding& holding, const std::vector<Volume>& volumes) {
    const auto volume = std::ranges::find(volumes, holding.volume, &Volume::id);
    return volume != volumes.end() ? joinPath(volume->root, holding.path) : holding.path;
}

bool isUndone(const LedgerEntry& entry) {
    return entry.carriedOut == 0 && entry.undone > 0;
}

Json withPath(const BytePath& path) {
    Json json;
    json["path"] = percentEncodeOffending(path);
    if (!isUtf8(path)) {
        json["path_encoding"] = "percent";
    }
    return json;
}

Json errorList(const std::vector<SurveyError>& errors) {
    Json list = Json::array();
    for (const auto& error : errors) {
        Json json = withPath(error.path);
        json["error"] = error.sentence;
        list.push_back(std::move(json));
    }
    return list;
}

Json surveyShape(const SurveyReport& report) {
    return {{"schema", "sober.survey/1"},
            {"volume", report.label},
            {"seen", report.seen},
            {"added", report.added},
            {"changed", report.changed},
            {"unchanged", report.unchanged},
            {"missing", report.missing},
            {"moved", report.moved},
            {"returned", report.returned},
            {"left_out", report.leftOut},
            {"away", report.away},
            {"not_audio", report.passedOver},
            {"bytes_read", report.bytesRead},
            {"seconds", report.seconds},
            {"interrupted", report.interrupted},
            {"errors", errorList(report.errors)}};
}

Json conditionShape(const Condition& condition) {
    Json volumes = Json::array();
    for (std::size_t i = 0; i < condition.volumes.size(); ++i) {
        const auto& volume = condition.volumes[i];
        const auto& figures = condition.figures[i];
        volumes.push_back({{"label", volume.label},
                           {"root", percentEncodeOffending(volume.root)},
                           {"at_hand", volume.atHand},
                           {"holdings", figures.holdings},
                           {"bytes", figures.bytes},
                           {"missing", figures.missing},
                           {"surveyed", volume.surveyedAt != 0 ? Json(isoUtc(volume.surveyedAt)) : Json()}});
    }
    Json findings = Json::object();
    for (const auto& [finding, count] : findingCounts(condition)) {
        findings[std::string(finding)] = count;
    }
    return {{"schema", "sober.condition/1"},         {"volumes", volumes},
            {"holdings", condition.total.holdings},  {"bytes", condition.total.bytes},
            {"duration", condition.total.duration},  {"findings", std::move(findings)},
            {"held_once", condition.total.heldOnce}, {"examined", condition.total.examined},
            {"unreadable", condition.errors},        {"reclaimable_bytes", condition.reclaimable}};
}

Json copiesShape(std::span<const SetDetail> sets, std::span<const SetDetail> alikeTags,
                 const std::vector<Volume>& volumes) {
    Json list = Json::array();
    for (const auto& shown : sets) {
        Json members = Json::array();
        for (std::size_t i = 0; i < shown.members.size(); ++i) {
            const auto& member = shown.members[i];
            Json json = withPath(absolutePath(member, volumes));
            json["suggestion"] = word(shown.advice[i].advice);
            json["reasons"] = shown.advice[i].reasons;
            json["links"] = member.links;
            json["bytes"] = member.size;
            json["references"] = shown.references[i].size();
            members.push_back(std::move(json));
        }
        list.push_back({{"sameness", word(shown.set.sameness)},
                        {"members", std::move(members)},
                        {"bytes_each", shown.set.size},
                        {"files", shown.set.files},
                        {"reclaimable_bytes", freedByAdvice(shown)}});
    }
    Json apart = Json::array();
    for (const auto& shown : alikeTags) {
        Json members = Json::array();
        for (const auto& member : shown.members) {
            members.push_back(withPath(absolutePath(member, volumes)));
        }
        apart.push_back({{"members", std::move(members)}});
    }
    return {{"schema", "sober.copies/1"}, {"sets", std::move(list)}, {"only_tags_alike", std::move(apart)}};
}

Json docketShape(const DocketReview& review) {
    Json actions = Json::array();
    for (const auto& planned : review.actions) {
        Json json;
        json["id"] = planned.action.id;
        json["kind"] = word(planned.action.kind);
        json.update(withPath(planned.path));
        json["target"] = planned.target.empty() ? Json() : Json(percentEncodeOffending(planned.target));
        json["references"] = planned.references;
        json["reason"] = planned.action.reason;
        json["refused"] = planned.refused ? Json(*planned.refused) : Json();
        json["loss"] = planned.loss != Loss::none ? Json(lossWord(planned.loss)) : Json();
        json["consented"] = planned.loss != Loss::none && !planned.awaitsConsent;
        actions.push_back(std::move(json));
    }
    return {{"schema", "sober.docket/1"},
            {"actions", std::move(actions)},
            {"frees_bytes", review.frees},
            {"references_touched", review.references}};
}

Json carriedOutShape(const CarriedOut& carried) {
    Json refused = Json::array();
    for (const auto& action : carried.refused) {
        Json json = withPath(action.path);
        json["error"] = action.sentence;
        refused.push_back(std::move(json));
    }
    return {{"schema", "sober.carried-out/1"},
            {"entry", carried.entry != 0 ? Json(std::to_string(carried.entry)) : Json()},
            {"done", carried.done},
            {"refused", std::move(refused)},
            {"interrupted", carried.interrupted},
            {"references_touched", carried.references},
            {"frees_bytes", carried.frees}};
}

Json ledgerShape(const std::vector<LedgerEntry>& entries) {
    Json list = Json::array();
    for (const auto& entry : entries) {
        list.push_back({{"entry", std::to_string(entry.id)},
                        {"time", isoUtc(entry.time)},
                        {"kind", entry.kind},
                        {"summary", inWords(entry)},
                        {"actions", entry.actions},
                        {"refused", entry.refused},
                        {"undoes", entry.undoes ? Json(std::to_string(*entry.undoes)) : Json()},
                        {"undone", isUndone(entry)}});
    }
    return {{"schema", "sober.ledger/1"}, {"entries", std::move(list)}};
}

} // namespace sober::cli
