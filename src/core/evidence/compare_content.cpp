#include "core/evidence/compare_content.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/evidence/worker/inside_reader.h"

#include <sys/stat.h>

#include <algorithm>
#include <vector>

namespace sober {
namespace {

Error changedMeanwhile(const BytePath& path) {
    return {Cause::changed, path, displayPath(path) + " was written to while it was compared."};
}

Outcome unchangedSince(const FileHandle& file, const BytePath& path, const FileStamp& before) {
    const auto after = stampOf(file, path);
    RETURN_IF_FAILED(after);
    return after->sameContentAs(before) ? done() : Outcome(changedMeanwhile(path));
}

} // namespace

Result<ContentComparison> compareContent(const BytePath& first, const BytePath& second, RunControl& control,
                                         const std::function<void(std::uint64_t)>& onBytes) {
    const auto fileA = openContent(first, control);
    RETURN_IF_FAILED(fileA);
    const auto fileB = openContent(second, control);
    RETURN_IF_FAILED(fileB);
    const auto stampA = stampOf(*fileA, first);
    const auto stampB = stampOf(*fileB, second);
    if (!stampA || !stampB) {
        return stampA ? stampB.error() : stampA.error();
    }
    ContentComparison comparison{false, {}, *stampA, *stampB};
    if (stampA->size != stampB->size) {
        return comparison;
    }
    const auto blockLength = std::min<std::uint64_t>(checksumBlock, stampA->size);
    std::vector<std::uint8_t> blockA(blockLength);
    std::vector<std::uint8_t> blockB(blockLength);
    ChecksumPass checksums(false);
    for (std::uint64_t at = 0; at < stampA->size; at += checksumBlock) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, first, "Stopped while comparing."};
        }
        const auto length =
            static_cast<std::size_t>(std::min<std::uint64_t>(checksumBlock, stampA->size - at));
        const auto gotA = readAt(*fileA, first, at, std::span(blockA).first(length));
        const auto gotB = readAt(*fileB, second, at, std::span(blockB).first(length));
        if (!gotA || !gotB) {
            return gotA ? gotB.error() : gotA.error();
        }
        if (*gotA != length || *gotB != length) {
            return changedMeanwhile(*gotA != length ? first : second);
        }
        if (!std::equal(blockA.begin(), blockA.begin() + static_cast<std::ptrdiff_t>(length),
                        blockB.begin())) {
            return comparison;
        }
        checksums.feed(std::span(blockA).first(length));
        onBytes(2 * length);
    }
    RETURN_IF_FAILED(unchangedSince(*fileA, first, *stampA));
    RETURN_IF_FAILED(unchangedSince(*fileB, second, *stampB));
    comparison.equal = true;
    comparison.checksum = checksums.finish().file;
    return comparison;
}

bool isSameEntry(const BytePath& first, const BytePath& second) {
    struct stat folderA {};
    struct stat folderB {};
    return nameOf(first) == nameOf(second) && stat(BytePath(parentOf(first)).c_str(), &folderA) == 0 &&
           stat(BytePath(parentOf(second)).c_str(), &folderB) == 0 && folderA.st_dev == folderB.st_dev &&
           folderA.st_ino == folderB.st_ino;
}

} // namespace sober
