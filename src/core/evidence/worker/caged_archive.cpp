#include "core/evidence/worker/caged_archive.h"

#include "core/base/scratch_file.h"
#include "core/base/text.h"
#include "core/evidence/worker/answers.h"

namespace sober {
namespace {

/// What went by in an archive says little of what comes next: one that is compressed as a whole is gone
/// through to a file near its end.
constexpr WorkerLimits unpackingLimits{2ULL << 30, 300, 2};

} // namespace

CagedArchive::CagedArchive(BytePath path, FileHandle file, std::unique_ptr<WorkerProcess> process)
    : path_(std::move(path)), file_(std::move(file)), process_(std::move(process)) {}

Result<std::unique_ptr<InsideReader>> CagedArchive::open(const BytePath& path) {
    auto file = openForReading(realPathOf(path).value_or(path)); // by a link too
    RETURN_IF_FAILED(file);
    auto opened = std::unique_ptr<CagedArchive>(
        new CagedArchive(path, std::move(*file), std::make_unique<WorkerProcess>(unpackingLimits)));
    RunControl control;
    const int descriptor = opened->file_.get();
    const auto answer = opened->ask(archiveQuestion, std::span(&descriptor, 1), control);
    const auto begun = answer ? unpackAnswer<Nothing>(*answer, path) : Outcome(answer.error());
    RETURN_IF_FAILED(begun);
    return std::unique_ptr<InsideReader>(std::move(opened));
}

Result<std::string> CagedArchive::ask(char letter, std::span<const int> files, RunControl& control) {
    const auto stamp = stampOf(file_, path_);
    RETURN_IF_FAILED(stamp);
    if (!process_->ask(letter, path_, files, stamp->size)) {
        return Error{Cause::busy, path_,
                     "No process could be started to look into " + displayPath(path_) + "."};
    }
    auto answer = process_->await(control, [](std::uint64_t) {});
    switch (answer.came) {
    case WorkerProcess::Came::answer:
        return std::move(answer.bytes);
    case WorkerProcess::Came::cancelled:
        return Error{Cause::interrupted, path_, "Stopped while " + displayPath(path_) + " was unpacked."};
    case WorkerProcess::Came::ended:
    case WorkerProcess::Came::silent:
        break;
    }
    return Error{process_->wasEndedFromOutside() ? Cause::interrupted : Cause::damaged, path_,
                 displayPath(path_) + " could not be unpacked: " + process_->howItEnded() + "."};
}

Result<std::optional<ArchivedFile>> CagedArchive::next() {
    RunControl control;
    const auto answer = ask(archiveNextQuestion, {}, control);
    RETURN_IF_FAILED(answer);
    auto file = unpackAnswer<ArchivedFile>(*answer, path_);
    RETURN_IF_FAILED(file);
    current_ = *file;
    return file->path.empty() ? std::optional<ArchivedFile>() : std::optional(std::move(*file));
}

Result<FileHandle> CagedArchive::unpack(RunControl& control) {
    auto scratch = openScratchFile(current_.size);
    if (!scratch) {
        return scratch;
    }
    const int descriptor = scratch->get();
    const auto answer = ask(archiveUnpackQuestion, std::span(&descriptor, 1), control);
    const auto unpacked = answer ? unpackAnswer<Nothing>(*answer, path_) : Outcome(answer.error());
    RETURN_IF_FAILED(unpacked);
    stampScratch(*scratch, file_, current_.mtime);
    return scratch;
}

} // namespace sober
