#include "core/evidence/worker/caged_archive.h"

#include "core/base/inner_path.h"
#include "core/base/scratch_file.h"
#include "core/base/text.h"
#include "core/evidence/worker/answers.h"

#include <sys/stat.h>

#include <array>

namespace sober {
namespace {

/// What went by in an archive says little of what comes next: one that is compressed as a whole is gone
/// through to a file near its end.
constexpr WorkerLimits unpackingLimits{2ULL << 30, 300, 2};

} // namespace

CagedArchive::CagedArchive(BytePath path, FileHandle file, std::unique_ptr<WorkerProcess> process)
    : path_(std::move(path)), file_(std::move(file)), process_(std::move(process)) {}

Result<CagedArchive> CagedArchive::open(const BytePath& path) {
    auto file = openForReading(path);
    if (!file) {
        return file.error();
    }
    CagedArchive opened(path, std::move(*file), std::make_unique<WorkerProcess>(unpackingLimits));
    RunControl control;
    const int descriptor = opened.file_.get();
    const auto answer = opened.ask(archiveQuestion, std::span(&descriptor, 1), control);
    if (!answer) {
        return answer.error();
    }
    const auto begun = unpackAnswer<Nothing>(*answer, path);
    return begun ? Result(std::move(opened)) : Result<CagedArchive>(begun.error());
}

Result<std::string> CagedArchive::ask(char letter, std::span<const int> files, RunControl& control) {
    const auto stamp = stampOf(file_, path_);
    if (!stamp) {
        return stamp.error();
    }
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
    if (!answer) {
        return answer.error();
    }
    auto file = unpackAnswer<ArchivedFile>(*answer, path_);
    if (!file) {
        return file.error();
    }
    current_ = *file;
    return file->path.empty() ? std::optional<ArchivedFile>() : std::optional(std::move(*file));
}

Result<FileHandle> CagedArchive::unpack(RunControl& control) {
    auto scratch = openScratchFile();
    if (!scratch) {
        return scratch;
    }
    const int descriptor = scratch->get();
    const auto answer = ask(archiveUnpackQuestion, std::span(&descriptor, 1), control);
    const auto unpacked = answer ? unpackAnswer<Nothing>(*answer, path_) : Outcome(answer.error());
    if (!unpacked) {
        return unpacked.error();
    }
    struct stat status {};
    if (fstat(file_.get(), &status) == 0) {
        fchmod(scratch->get(), status.st_mode & 0666);
    }
    if (current_.mtime > 0) {
        const timespec changed{current_.mtime / 1'000'000'000, current_.mtime % 1'000'000'000};
        const std::array<timespec, 2> times{changed, changed};
        futimens(scratch->get(), times.data());
    }
    return scratch;
}

Result<FileHandle> openContent(const BytePath& path) {
    RunControl control;
    return openContent(path, control);
}

Result<FileHandle> openContent(const BytePath& path, RunControl& control) {
    const auto inner = innerPathOf(path);
    if (!inner) {
        return openForReading(path);
    }
    auto opened = CagedArchive::open(inner->archive);
    if (!opened) {
        return opened.error();
    }
    while (control.proceed()) {
        const auto file = opened->next();
        if (!file) {
            return file.error();
        }
        if (!*file) {
            return Error{Cause::notFound, path,
                         fmt::format("{} holds no {} any more.", displayPath(inner->archive),
                                     displayPath(inner->inside))};
        }
        if ((*file)->path == inner->inside) {
            return opened->unpack(control);
        }
    }
    return Error{Cause::interrupted, path, "Stopped while " + displayPath(path) + " was looked for."};
}

} // namespace sober
