#include "core/remedy/actions/proving.h"

#include "core/audit/lay_over.h"
#include "core/audit/sameness.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/evidence/compare_content.h"
#include "core/evidence/file_content.h"
#include "core/evidence/fingerprint.h"
#include "core/evidence/worker/evidence_worker.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {

Result<Proven> Prover::retirable(const PlannedAction& planned) {
    std::string lastReason;
    auto carriers = planned.carriers;
    // What the references are to lead to comes first, within what loses as little.
    std::ranges::stable_sort(
        carriers, {}, [&](const Carrier& each) { return std::pair(each.loss, each.path != planned.target); });
    for (const auto& carrier : carriers) {
        if (carrier.loss != Loss::none && planned.action.consent != lossWord(carrier.loss)) {
            lastReason = fmt::format("{}, and nobody consented to that.", lossWords(carrier.loss));
            continue;
        }
        auto checked = carrier.sameBytes ? compare(planned, carrier) : standIn(planned, carrier);
        if (checked || checked.error().cause == Cause::interrupted || checked.error().path == planned.path) {
            return checked;
        }
        lastReason = checked.error().sentence;
    }
    return refusedError(planned.path, lastReason.empty()
                                          ? "No copy that stays is at hand; it stays."
                                          : "No copy that stays could be confirmed: " + lastReason);
}

Result<Proven> Prover::held(const PlannedAction& planned, const FileStamp& goes, const Carrier& carrier,
                            const FileStamp& stays) {
    if (auto why = whyNoCopy(carrier.path, stays, planned.path, goes, mounts_.now())) {
        return refusedError(carrier.path, std::move(*why));
    }
    return Proven{goes, Staying{carrier.path, stays}};
}

Result<Proven> Prover::compare(const PlannedAction& planned, const Carrier& carrier) {
    const auto compared = compareContent(planned.path, carrier.path, control_,
                                         [&](std::uint64_t bytes) { onBytes_(bytes, planned.path); });
    RETURN_IF_FAILED(compared);
    if (!compared->equal) {
        return refusedError(carrier.path, fmt::format("{} and {} differ by now; survey them again.",
                                                      displayPath(planned.path), displayPath(carrier.path)));
    }
    if (compared->checksum != planned.holding.checksum) {
        return refusedError(planned.path, displayPath(planned.path) +
                                              " and its copy are not what was recorded; survey them again.");
    }
    return held(planned, compared->first, carrier, compared->second);
}

Result<Proven> Prover::standIn(const PlannedAction& planned, const Carrier& carrier) {
    const auto goes = asRecorded(planned.path, planned.holding.checksum);
    RETURN_IF_FAILED(goes);
    const auto stays = asRecorded(carrier.path, carrier.holding.checksum);
    RETURN_IF_FAILED(stays);
    if (!carrier.pairwise) {
        RETURN_IF_FAILED(comparePair(planned, carrier));
    }
    return held(planned, *goes, carrier, *stays);
}

Outcome Prover::comparePair(const PlannedAction& planned, const Carrier& carrier) {
    const auto apart = [&](std::string_view why) {
        return Outcome(refusedError(carrier.path, displayPath(carrier.path) + std::string(why)));
    };
    const EvidenceStore store(catalogue_);
    const auto goes = store.of(planned.holding.id);
    const auto stays = store.of(carrier.holding.id);
    if (!goes || !stays || !*goes || !*stays) {
        return apart(" could not be compared with it: it was not examined.");
    }
    EvidenceWorker worker;
    const auto pair = layOver(worker, planned.path, **goes, carrier.path, **stays, control_);
    RETURN_IF_FAILED(pair);
    const auto sameness = samenessOf(*pair, (*goes)->seconds, (*stays)->seconds);
    return sameness && *sameness <= Sameness::lossyCopy ? done()
                                                        : apart(" turned out to be another recording.");
}

Result<FileStamp> Prover::mendable(const PlannedAction& planned, LedgerAction& action) {
    const auto content =
        readContent(planned.path, control_, [&](std::uint64_t bytes) { onBytes_(bytes, planned.path); });
    RETURN_IF_FAILED(content);
    const bool asItWas =
        content->stamp.size == planned.holding.size && content->stamp.mtime == planned.holding.mtime;
    if (!content->unreadable.empty() && asItWas) {
        action.checksum = content->checksums.file;
    } else if (content->checksums.file != planned.holding.checksum) {
        return refusedError(planned.path,
                            displayPath(planned.path) + " is not what was recorded; survey it again.");
    }
    return content->stamp;
}

Result<FileStamp> Prover::asRecorded(const BytePath& path, const Checksum128& recorded) {
    const auto read = readContent(path, control_, [&](std::uint64_t bytes) { onBytes_(bytes, path); });
    RETURN_IF_FAILED(read);
    if (read->checksums.file != recorded || !read->unreadable.empty()) {
        return refusedError(path, displayPath(path) + " is not what was recorded; survey it again.");
    }
    return read->stamp;
}

} // namespace sober
