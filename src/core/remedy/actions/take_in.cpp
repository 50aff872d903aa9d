#include "core/remedy/actions/take_in.h"

#include "core/base/text.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/holdings.h"
#include "core/evidence/file_content.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/action_type.h"
#include "core/remedy/actions/planned_action.h"
#include "core/remedy/changes/file_changes.h"

#include <array>

namespace sober {
namespace {

Error anotherFile(const BytePath& path) {
    return {Cause::changed, path, displayPath(path) + " is another file than was put there."};
}

} // namespace

Result<FileRecord> readBack(EvidenceWorker& worker, const BytePath& path, RunControl& control) {
    RETURN_IF_FAILED(flushFile(path));
    return worker.examine(path, control, [](std::uint64_t) {});
}

Result<FileRecord> readAsItIs(EvidenceWorker& worker, const BytePath& path, RunControl& control) {
    auto record = readBack(worker, path, control);
    return !record && (record.error().cause == Cause::notAudio || record.error().cause == Cause::unreadable)
               ? recordOfBytes(path, control)
               : record;
}

Outcome holds(const BytePath& path, const Checksum128& checksum) {
    RunControl control;
    const auto content = readContent(path, control);
    return !content                              ? Outcome(content.error())
           : content->checksums.file == checksum ? done()
                                                 : Outcome(anotherFile(path));
}

Outcome holdsWhatWentAside(const BytePath& path, const LedgerAction& action) {
    if (const auto own = typeOf(action.kind).holds; own != nullptr) {
        return own(path);
    }
    // A rename leaves these alone, whatever the file's bytes have become; by them it was moved, too.
    if (const auto now = stampAt(path); action.kind == ActionKind::move && now &&
                                        CataloguedFile{now->size, now->mtime} == action.catalogued) {
        return done();
    }
    RunControl control;
    const auto content = readContent(path, control);
    RETURN_IF_FAILED(content);
    const auto& now = content->checksums.file;
    const bool mayBeMade = isMended(action.kind) || typeOf(action.kind).adds();
    return now == action.checksum || (mayBeMade && now == action.madeChecksum) ? done()
                                                                               : Outcome(anotherFile(path));
}

Outcome takeIn(Catalogue& catalogue, const LedgerAction& action, const FileRecord& record) {
    const auto holdings = Holdings(catalogue).byIds(std::array{action.holding});
    RETURN_IF_FAILED(holdings);
    if (holdings->empty()) {
        return done();
    }
    HoldingWriter writer(catalogue, holdings->front().volume, timeNow());
    // What was mended is its baseline again; what is given back after that is not.
    const bool concernsFixity = isMended(action.kind) || action.kind == ActionKind::bringBack;
    writer.rewrite(action.holding, record, concernsFixity ? "changed" : word(action.kind),
                   holdings->front().path);
    return writer.commit();
}

} // namespace sober
