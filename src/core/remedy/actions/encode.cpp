#include "core/remedy/actions/encode.h"

#include "core/base/text.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/copy.h"
#include "core/remedy/changes/file_changes.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace sober {
namespace {

constexpr double sameLength =
    0.1; // seconds, by which a form may start or end otherwise (common practice, no source)
constexpr double leastAgreeing =
    0.8; // of the blocks that sound; far below what any form here yields, far above another take
constexpr double leastCompared = 0.5; // seconds that sound: with less nothing can be said

Result<Proven> proveEncodable(DoingContext& context, const PlannedAction& planned, LedgerAction& action) {
    const auto stamp = context.prover.asRecorded(planned.path, planned.holding.checksum);
    if (!stamp) {
        return stamp.error();
    }
    const auto begun = beginAtTarget(planned, action, action.size);
    return begun ? Result<Proven>(Proven{}) : Result<Proven>(begun.error());
}

/// What every form can say of a recording.
bool isCommonField(const std::string& field) {
    constexpr std::array<std::string_view, 10> common{"TITLE",    "ARTIST",      "ALBUM",      "ALBUMARTIST",
                                                      "COMPOSER", "TRACKNUMBER", "DISCNUMBER", "DATE",
                                                      "GENRE",    "COMMENT"};
    return std::ranges::find(common, field) != common.end();
}

/// Tags and the front picture; where the new form cannot hold a field, only those that every form can. What
/// speaks of the former encoder does not come.
Outcome bringTags(EvidenceWorker& worker, const BytePath& from, const FileHandle& made, const BytePath& to) {
    const auto tags = worker.readTags(from);
    if (!tags) {
        return done(); // it has none that we know
    }
    TagChange change;
    change.fields = tags->fields;
    std::erase_if(change.fields, [](const auto& field) { return field.first.starts_with("ENCODE"); });
    for (const auto& picture : tags->pictures) {
        change.picture = !change.picture || picture.kind == 3 ? picture : *change.picture;
    }
    auto written = change.isEmpty() ? done() : worker.writeTags(made, to, change);
    if (!written && written.error().cause != Cause::full) {
        std::erase_if(change.fields, [](const auto& field) { return !isCommonField(field.first); });
        written = change.isEmpty() ? done() : worker.writeTags(made, to, change);
    }
    return written;
}

/// Decodes both: one recording, of one length.
Outcome isTheSame(EvidenceWorker& worker, const BytePath& source, const LedgerAction& action,
                  const Encoded& encoded, const FileRecord& made, RunControl& control) {
    const auto wrong = [&](const std::string& how) {
        return Error{Cause::damaged, action.place,
                     fmt::format("What was made of {} {}; it is not kept.", displayPath(source), how)};
    };
    if (!made.evidence || !made.evidence->sound()) {
        return wrong("does not decode whole");
    }
    if (std::abs(made.evidence->seconds - encoded.seconds) > sameLength) {
        return wrong(
            fmt::format("is {:.2f} s long and not {:.2f} s", made.evidence->seconds, encoded.seconds));
    }
    const auto compared = worker.compare(source, action.made, encoded.begins, control);
    if (!compared) {
        return compared.error();
    }
    const bool isHeard = compared->compared >= leastCompared;
    return isHeard && compared->agreeing < leastAgreeing ? Outcome(wrong("does not sound like it")) : done();
}

Result<FileRecord> makeEncoded(DoingContext& context, const PlannedAction& planned,
                               const LedgerAction& action) {
    Unflushed unflushed; // what is made is known once it has its place
    if (const auto begun = writeNewFile(action.made, {}, unflushed); !begun) {
        return begun.error();
    }
    const auto target = openForChanging(action.made);
    if (!target) {
        return target.error();
    }
    WorkerLimits limits;
    limits.secondsPerMegabyte = 60; // encoders take longer than decoders
    EvidenceWorker worker(limits);
    const auto encoded = worker.encode(planned.path, *target, planned.action.change, context.control);
    if (!encoded) {
        return encoded.error();
    }
    context.onBytes(planned.holding.size, planned.path);
    if (const auto tagged = bringTags(worker, planned.path, *target, action.made); !tagged) {
        return tagged.error();
    }
    auto made = worker.examine(action.made, context.control, [](std::uint64_t) {});
    const auto same = made ? isTheSame(worker, planned.path, action, *encoded, *made, context.control)
                           : Outcome(made.error());
    return same ? made : Result<FileRecord>(same.error());
}

} // namespace

ActionType encodeType() {
    auto type = copyType();
    type.prove = proveEncodable;
    type.make = makeEncoded;
    type.madeBesideEachOther = true;
    type.takeIn = nullptr; // what was made was read
    return type;
}

} // namespace sober
