#include "core/audit/sameness.h"
#include "core/base/text.h"
#include "core/report/report_forms.h"

#include <fmt/format.h>

namespace sober {
namespace {

std::string cell(std::string_view text) {
    if (text.find_first_of(",\"\r\n") == std::string_view::npos) {
        return std::string(text);
    }
    std::string quoted = "\"";
    for (const char c : text) {
        quoted += c == '"' ? "\"\"" : std::string(1, c);
    }
    return quoted + "\"";
}

/// One line of the table, by its columns.
struct Line {
    std::string_view finding;
    std::string group = {};
    const ReportedHolding& holding; ///< number 0: something else that is so placed
    std::string kind = {};
    std::string certainty = {};
    std::string advice = {};
    std::string when = {};
    std::string says = {};
};

std::string lineOf(const Line& line) {
    return fmt::format("{},{},{},{},{},{},{},{},{},{},{}\r\n", line.finding, line.group,
                       cell(percentEncodeOffending(line.holding.volume)),
                       line.holding.number > 0 ? std::to_string(line.holding.number) : std::string(),
                       cell(percentEncodeOffending(line.holding.path)),
                       line.holding.size > 0 ? std::to_string(line.holding.size) : std::string(),
                       cell(line.kind), line.certainty, line.advice, line.when,
                       cell(percentEncodeOffending(line.says)));
}

std::string whenOf(Nanoseconds time) {
    return time != 0 ? isoUtc(time) : std::string();
}

} // namespace

std::string reportTable(const Report& report) {
    std::string table = "finding,group,volume,holding,path,bytes,kind,certainty,advice,when,says\r\n";
    const auto& condition = report.condition;
    for (std::size_t i = 0;
         report.choices.parts.contains(ReportPart::condition) && i < condition.volumes.size(); ++i) {
        const auto& volume = condition.volumes[i];
        const auto& figures = condition.figures[i];
        table +=
            lineOf({.finding = "condition",
                    .holding = {0, volume.label, {}, figures.bytes},
                    .kind = volume.atHand ? "at-hand" : "away",
                    .when = whenOf(volume.surveyedAt),
                    .says = fmt::format("{}, {} held once, {} missing", counted(figures.holdings, "holding"),
                                        humanCount(figures.heldOnce), humanCount(figures.missing))});
    }
    for (std::size_t i = 0; i < report.sets.size(); ++i) {
        for (const auto& member : report.sets[i].members) {
            table += lineOf({.finding = "copies",
                             .group = std::to_string(i + 1),
                             .holding = member.holding,
                             .kind = std::string(word(report.sets[i].sameness)),
                             .advice = std::string(word(member.advice)),
                             .says = joined(member.reasons)});
        }
    }
    for (const auto& claim : report.claims) {
        table += lineOf({.finding = "claims",
                         .holding = claim.holding,
                         .kind = std::string(wordFor(claim.verdict.verdict)),
                         .certainty = fmt::format("{:.2f}", claim.verdict.confidence),
                         .advice = claim.accepted ? "accepted" : "",
                         .says = joined(claim.verdict.reasons)});
    }
    for (const auto& damage : report.damage) {
        const bool isOpened = !damage.problems.empty();
        table += lineOf({.finding = "damage",
                         .holding = damage.holding,
                         .kind = isOpened ? damage.problems.front().kind : "unreadable",
                         .says = isOpened ? fmt::format("at {:.1f} s: {}", damage.problems.front().at,
                                                        damage.problems.front().detail)
                                          : std::string()});
    }
    for (const auto& drift : report.drift) {
        table += lineOf({.finding = "fixity",
                         .holding = drift.holding,
                         .kind = std::string(driftWord(drift.kind)),
                         .when = whenOf(drift.found)});
    }
    for (const auto& missing : report.missing) {
        table += lineOf({.finding = "missing",
                         .holding = missing.holding,
                         .kind = missing.elsewhere > 0 ? "held-elsewhere" : "held-nowhere",
                         .when = whenOf(missing.lastSeen)});
    }
    for (const auto& proof : report.proofs) {
        table += lineOf({.finding = "proofs",
                         .group = std::to_string(proof.transfer),
                         .holding = {0, {}, proof.folder, 0},
                         .when = whenOf(proof.proven)});
    }
    return table;
}

} // namespace sober
