#include "cli/verify_command.h"

#include "cli/answers.h"
#include "cli/notify.h"
#include "core/audit/refresh_findings.h"
#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober::cli {
namespace {

Json verifyShape(const VerifyReport& report) {
    Json drift = Json::array();
    for (const auto& found : report.drift) {
        Json json = withPath(found.path);
        json["kind"] = driftWord(found.kind);
        json["blocks"] = Json::array();
        for (const auto& [first, last] : found.blocks) {
            json["blocks"].push_back({first, last});
        }
        json["healthy_copies"] = Json::array();
        for (const auto& path : found.healthy) {
            json["healthy_copies"].push_back(percentEncodeOffending(path));
        }
        drift.push_back(std::move(json));
    }
    return {{"schema", "sober.verify/1"},       {"checked", report.checked},
            {"unchanged", report.unchanged},    {"bytes_read", report.bytesRead},
            {"drift", std::move(drift)},        {"errors", errorList(report.errors)},
            {"interrupted", report.interrupted}};
}

void tellDesktop(const VerifyReport& report) {
    // What was known before and waits for a decision is not told again.
    std::vector<FoundDrift> fresh;
    std::ranges::copy_if(report.drift, std::back_inserter(fresh),
                         [](const FoundDrift& found) { return !found.known; });
    if (fresh.empty() && report.errors.empty()) {
        return;
    }
    const auto summary =
        counted(fresh.size(), "holding is not what was recorded", "holdings are not what was recorded");
    std::string body = fmt::format("{} read.", counted(report.checked, "holding"));
    if (!report.errors.empty()) {
        body += fmt::format(" {} could not be read.", humanCount(report.errors.size()));
    }
    if (!fresh.empty()) {
        body += fmt::format(" {}: {}.", displayPath(fresh.front().path), driftWord(fresh.front().kind));
    }
    if (const auto told = notifyDesktop(summary, body + " The desk Fixity shows all of it."); !told) {
        sayOn(stderr, "{}\n", told.error().sentence);
    }
}

} // namespace

int runVerify(const CommonOptions& common, const VerifyRequest& request, bool notify, RunControl& control) {
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    Result<VerifyReport> report = VerifyReport{};
    {
        ProgressLine line(common.quiet);
        report =
            verifyHoldings(*catalogue, request, control, [&](const Progress& progress) { line(progress); });
    }
    if (!report) {
        return fail(report.error());
    }
    if (const auto refreshed = refreshFindings(*catalogue); !refreshed) {
        return fail(refreshed.error());
    }
    if (notify) {
        tellDesktop(*report);
    }
    if (common.json) {
        printJson(verifyShape(*report));
    } else {
        for (const auto& found : report->drift) {
            say("{:<14} {}\n", driftWord(found.kind), displayPath(found.path));
            for (const auto& path : found.healthy) {
                say("{:<14} healthy copy: {}\n", "", displayPath(path));
            }
        }
        say("{} read ({}), {} as recorded, {} drifted; {} missing, {} that could not be read\n",
            counted(report->checked, "holding"), humanBytes(report->bytesRead), humanCount(report->unchanged),
            humanCount(report->drifted()), humanCount(report->missing()), humanCount(report->errors.size()));
    }
    printErrors(report->errors);
    return report->interrupted ? exitInterrupted : report->errors.empty() ? exitDone : exitSomeUnread;
}

} // namespace sober::cli
