#include "core/survey/look_inside.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/evidence/worker/inside_reader.h"
#include "core/survey/walk.h"

#include <unordered_set>

namespace sober {
namespace {

Error changedMeanwhile(const BytePath& archive) {
    return {Cause::changed, archive, displayPath(archive) + " was written to while it was looked into."};
}

} // namespace

Outcome lookInside(const LookInside& asked, EvidenceWorker& worker, RunControl& control,
                   const std::function<void(std::uint64_t)>& onBytes,
                   const std::function<void(const BytePath&, Result<FileRecord>)>& take) {
    const auto before = stampAt(asked.archive);
    RETURN_IF_FAILED(before);
    const auto opened = openInside(asked.archive);
    RETURN_IF_FAILED(opened);
    auto& archive = **opened;
    std::unordered_set<BytePath> met;
    std::uint64_t told = 0;
    const auto tell = [&](std::uint64_t packed) {
        const auto until = std::clamp(packed, told, before->size);
        onBytes(until - told);
        told = until;
    };
    while (control.proceed()) {
        const auto file = archive.next();
        RETURN_IF_FAILED(file);
        if (!*file) {
            tell(before->size);
            const auto after = stampAt(asked.archive);
            return after && after->sameContentAs(*before) ? done() : Outcome(changedMeanwhile(asked.archive));
        }
        tell((*file)->packed);
        const auto relative = innerPath(asked.relative, (*file)->path);
        const auto path = innerPath(asked.archive, (*file)->path);
        if (!takesIn(asked.choices, relative, (*file)->size)) {
            continue;
        }
        if (!met.insert((*file)->path).second) {
            take(relative,
                 Error{Cause::refused, path,
                       displayPath(path) + " is in its archive twice; only the first is looked at."});
            continue;
        }
        if (isArchiveName((*file)->path)) {
            take(relative,
                 Error{Cause::refused, path,
                       displayPath(path) + " is an archive within an archive, and was not looked into."});
            continue;
        }
        const auto unpacked = archive.unpack(control);
        if (!unpacked && unpacked.error().path == asked.archive) {
            return unpacked.error(); // of all of it
        }
        take(relative, !unpacked ? Result<FileRecord>(unpacked.error())
                       : asked.effort == Effort::full
                           ? worker.examine(
                                 *unpacked, path, control, [](std::uint64_t) {}, asked.withExcerpts)
                           : worker.passOver(*unpacked, path, control, [](std::uint64_t) {}));
    }
    return Error{Cause::interrupted, asked.archive,
                 "Stopped while " + displayPath(asked.archive) + " was looked into."};
}

} // namespace sober
