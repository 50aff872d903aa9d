#include "cli/examine_command.h"

#include "cli/answers.h"
#include "cli/holding_shape.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober::cli {

int runExamine(const CommonOptions& common, const std::vector<BytePath>& files, RunControl& control) {
    Json holdings = Json::array();
    std::vector<SurveyError> errors;
    EvidenceWorker worker;
    for (const auto& file : files) {
        const auto record = worker.examine(file, control, [](std::uint64_t) {});
        if (control.isCancelled()) {
            break;
        }
        if (record && record->evidence) {
            holdings.push_back(holdingShape(file, record->claims, record->tags, record->checksums.file,
                                            record->checksums.sha256, *record->evidence));
        } else {
            errors.push_back({file, record ? record->problem : record.error().sentence});
        }
    }
    if (common.json) {
        printJson({{"schema", "sober.examine/1"}, {"holdings", holdings}, {"errors", errorList(errors)}});
    } else {
        std::ranges::for_each(holdings, printHolding);
    }
    printErrors(errors);
    if (control.isCancelled()) {
        return exitInterrupted;
    }
    return errors.empty() ? exitDone : holdings.empty() ? exitCouldNot : exitSomeUnread;
}

int runClaims(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const EvidenceStore store(*catalogue);
    HoldingFilter contradicted;
    contradicted.verdicts = {VerdictClass::doubtful, VerdictClass::transcoded};
    const auto points = store.points(contradicted);
    const auto volumes = Volumes(*catalogue).all();
    if (!points || !volumes) {
        return fail(points ? volumes.error() : points.error());
    }
    Json list = Json::array();
    for (const auto& point : *points) {
        const auto holdings = Holdings(*catalogue).byIds(std::span(&point.holding, 1));
        const auto evidence = store.of(point.holding);
        if (!holdings || !evidence) {
            return fail(holdings ? evidence.error() : holdings.error());
        }
        if (!holdings->empty() && *evidence) {
            const auto& holding = holdings->front();
            list.push_back(holdingShape(absolutePath(holding, *volumes), holding.claims, holding.tags,
                                        holding.checksum, holding.sha256, **evidence));
        }
    }
    if (common.json) {
        printJson({{"schema", "sober.claims/1"}, {"holdings", std::move(list)}});
        return exitDone;
    }
    std::ranges::for_each(list, printHolding);
    say("{} whose evidence contradicts the claim\n", counted(list.size(), "holding"));
    return exitDone;
}

} // namespace sober::cli
