#include "core/remedy/retagging.h"

#include "core/base/text.h"
#include "core/evidence/evidence_worker.h"
#include "core/remedy/file_changes.h"
#include "core/remedy/take_in.h"
#include "core/remedy/write_tags.h"

#include <algorithm>

namespace sober {
namespace {

Error refused(const BytePath& path, std::string_view why) {
    return {Cause::refused, path, displayPath(path) + std::string(why)};
}

/// Some formats keep of a picture only its bytes.
bool sameTags(const TagFields& a, const TagFields& b) {
    const auto sameBytes = [](const Picture& one, const Picture& other) { return one.bytes == other.bytes; };
    return a.fields == b.fields && std::ranges::is_permutation(a.pictures, b.pictures, sameBytes);
}

} // namespace

Result<FileRecord> makeRetagged(const BytePath& from, const BytePath& to, const TagChange& change,
                                RunControl& control) {
    const auto tagsBefore = readTagFields(from);
    if (!tagsBefore) {
        return tagsBefore.error();
    }
    const auto before = EvidenceWorker().examine(from, control, [](std::uint64_t) {});
    if (!before) {
        return before.error();
    }
    if (!before->evidence) {
        return refused(from, " does not decode: its audio data could not be proven unchanged.");
    }
    if (const auto copied = copyToNew(from, to); !copied) {
        return copied.error();
    }
    if (const auto written = writeTagFields(to, change); !written) {
        return written.error();
    }
    auto made = readBack(to, control);
    if (!made) {
        return made.error();
    }
    if (!made->evidence || made->evidence->payload != before->evidence->payload ||
        made->evidence->samplesMd5 != before->evidence->samplesMd5 ||
        made->evidence->problems.size() > before->evidence->problems.size()) {
        return refused(from, ": with the new tags its audio data would not be the same; it stays as it is.");
    }
    const auto tagsNow = readTagFields(to);
    if (!tagsNow) {
        return tagsNow.error();
    }
    if (!sameTags(*tagsNow, changed(*tagsBefore, change))) {
        return refused(from,
                       ": its kind of tags cannot take this without changing others; it stays as it is.");
    }
    return made;
}

} // namespace sober
