#include "core/remedy/actions/new_form.h"

#include "core/base/text.h"
#include "core/evidence/worker/evidence_worker.h"

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

/// What every form can say of a recording.
bool isCommonField(const std::string& field) {
    constexpr std::array<std::string_view, 10> common{"TITLE",    "ARTIST",      "ALBUM",      "ALBUMARTIST",
                                                      "COMPOSER", "TRACKNUMBER", "DISCNUMBER", "DATE",
                                                      "GENRE",    "COMMENT"};
    return std::ranges::find(common, field) != common.end();
}

} // namespace

Outcome writeWhatItHolds(EvidenceWorker& worker, const FileHandle& made, const BytePath& path,
                         TagChange change) {
    auto written = change.isEmpty() ? done() : worker.writeTags(made, path, change);
    if (!written && written.error().cause != Cause::full) {
        std::erase_if(change.fields, [](const auto& field) { return !isCommonField(field.first); });
        written = change.isEmpty() ? done() : worker.writeTags(made, path, change);
    }
    return written;
}

Outcome isMadeOf(EvidenceWorker& worker, const BytePath& source, const Encoded& encoded, const BytePath& made,
                 const FileRecord& record, const BytePath& place, RunControl& control) {
    const auto wrong = [&](const std::string& how) {
        return Error{Cause::damaged, place,
                     fmt::format("What was made of {} {}; it is not kept.", displayPath(source), how)};
    };
    if (!record.evidence || !record.evidence->sound()) {
        return wrong("does not decode whole");
    }
    if (std::abs(record.evidence->seconds - encoded.seconds) > sameLength) {
        return wrong(
            fmt::format("is {:.2f} s long and not {:.2f} s", record.evidence->seconds, encoded.seconds));
    }
    const auto compared = worker.compare(source, made, encoded.begins, control);
    RETURN_IF_FAILED(compared);
    const bool isHeard = compared->compared >= leastCompared;
    return isHeard && compared->agreeing < leastAgreeing ? Outcome(wrong("does not sound like it")) : done();
}

} // namespace sober
