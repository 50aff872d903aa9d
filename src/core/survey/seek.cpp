#include "core/survey/seek.h"

#include "core/base/text.h"
#include "core/catalogue/fixity_store.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/survey/walk.h"

#include <algorithm>

namespace sober {
namespace {

/// Every regular file below the folder, absolute.
std::vector<std::pair<BytePath, std::uint64_t>> filesBelow(const BytePath& folder, SeekReport& report,
                                                           RunControl& control) {
    auto walk = walkVolume(folder, {}, {}, control);
    std::ranges::move(walk.errors, std::back_inserter(report.errors));
    std::vector<std::pair<BytePath, std::uint64_t>> files;
    for (const auto& file : walk.files) {
        files.emplace_back(joinPath(folder, file.path), file.stamp.size);
    }
    return files;
}

} // namespace

Result<SeekReport> seekHealthyCopies(const Catalogue& catalogue, std::span<const BytePath> folders,
                                     RunControl& control, const ProgressSink& onProgress) {
    const FixityStore store(catalogue);
    const auto lost = store.lost();
    RETURN_IF_FAILED(lost);
    SeekReport report;
    Progress progress;
    std::vector<std::pair<BytePath, std::uint64_t>> candidates;
    for (const auto& given : folders) {
        const auto folder = realPathOf(given);
        if (!folder) {
            return Error{Cause::notFound, given, displayPath(given) + " is not there."};
        }
        for (auto& [path, size] : filesBelow(*folder, report, control)) {
            ++report.files;
            if (lost->contains(size)) {
                progress.totalBytes += size;
                candidates.emplace_back(std::move(path), size);
            }
        }
    }
    progress.totalFiles = candidates.size();
    EvidenceWorker worker;
    for (const auto& [path, size] : candidates) {
        progress.at = displayPath(path);
        const auto record = worker.passOver(path, control, [&](std::uint64_t bytes) {
            progress.bytes += bytes;
            onProgress(progress);
        });
        if (!record && control.isCancelled()) {
            break;
        }
        ++progress.files;
        ++report.read;
        if (!record) {
            if (record.error().cause != Cause::notAudio) {
                report.errors.push_back({path, record.error().sentence});
            }
            continue;
        }
        const auto& content = record->checksums.file;
        if (std::ranges::find(lost->at(size), content) != lost->at(size).end()) {
            RETURN_IF_FAILED(store.noteOutside(path, content));
            report.found.push_back({path, content});
        }
    }
    report.interrupted = control.isCancelled();
    return report;
}

} // namespace sober
