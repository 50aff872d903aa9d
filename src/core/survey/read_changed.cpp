#include "core/survey/read_changed.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/evidence/file_content.h"
#include "core/survey/changed_reader.h"
#include "core/survey/volume_identity.h"

#include <algorithm>
#include <array>
#include <chrono>

namespace sober {
namespace {

using Clock = std::chrono::steady_clock;

} // namespace

bool namedLikeAudio(const BytePath& path) {
    constexpr std::array<std::string_view, 19> endings{"wav",  "flac", "mp3",  "m4a", "aac", "ogg", "oga",
                                                       "opus", "aif",  "aiff", "wma", "wv",  "ape", "alac",
                                                       "mka",  "mp2",  "ac3",  "caf", "m4b"};
    return std::ranges::find(endings, endingOf(path)) != endings.end();
}

ChangedReader::ChangedReader(Catalogue& catalogue, const Volume& volume, Walk walk,
                             RememberedFiles remembered, std::vector<BytePath> inFull, RunControl& control,
                             const ProgressSink& onProgress, SurveyReport& report)
    : catalogue_(catalogue),
      volume_(volume),
      walk_(std::move(walk)),
      remembered_(std::move(remembered)),
      efforts_{volume.effort, std::move(inFull),
               volume.effort == Effort::full && volume.choices.keepExcerpts},
      control_(control),
      onProgress_(onProgress),
      report_(report),
      lastingInodes_(hasLastingInodes(volume.identity.filesystemType)),
      writer_(catalogue, volume.id, timeNow()) {}

Outcome ChangedReader::run() {
    if (control_.isCancelled()) {
        report_.interrupted = true;
        return done();
    }
    writer_.beginSurvey();
    for (const auto& error : walk_.errors) {
        addError(error.path, error.sentence);
    }
    sortOut();
    if (const auto read = readAll(); !read) {
        return read;
    }
    if (control_.isCancelled()) {
        report_.interrupted = true;
        return writer_.commit();
    }
    if (!isAtHand(catalogue_, volume_, mountsNow())) {
        writer_.commit().ok();
        return Error{Cause::notFound, volume_.root,
                     "The volume " + volume_.label +
                         " vanished while it was read. What was read is kept; nothing "
                         "was taken for missing."};
    }
    markGone();
    return writer_.commit();
}

Outcome ChangedReader::readAll() {
    Progress progress;
    progress.totalFiles = jobs_.size();
    for (const auto& job : jobs_) {
        progress.totalBytes += job.file->stamp.size;
    }
    if (const auto loaded = loadGoneChecksums(); !loaded) {
        return loaded;
    }
    const auto began = Clock::now();
    auto committed = began;
    double paused = 0;
    auto last = began;
    ReadingPool pool(volume_, efforts_, std::move(jobs_), control_);
    jobs_.clear();
    const auto tell = [&](const std::string& at) {
        const auto now = Clock::now();
        if (control_.isPaused()) {
            paused += std::chrono::duration<double>(now - last).count();
        }
        last = now;
        progress.bytes = pool.bytesRead();
        progress.errors = report_.errors.size();
        progress.elapsed = std::chrono::duration<double>(now - began).count() - paused;
        progress.at = at;
        onProgress_(progress);
    };
    while (!pool.finished()) {
        auto read = pool.next(std::chrono::milliseconds(100));
        if (read) {
            ++progress.files;
            progress.totalFiles += read->isInside && !read->job.isArchive ? 1 : 0; // nobody knew how many
            read->isInside ? takeInside(*read) : take(*read);
        }
        if (writer_.failed()) {
            control_.cancel();
        }
        tell(read ? displayPath(read->job.file.path) : progress.at);
        if (Clock::now() - committed > std::chrono::seconds(1)) {
            if (const auto outcome = writer_.commit(); !outcome) {
                control_.cancel();
            }
            committed = Clock::now();
        }
    }
    report_.bytesRead = pool.bytesRead();
    tell({});
    return writer_.failed() ? writer_.commit() : done();
}

void ChangedReader::take(FileRead& read) {
    const auto& path = read.job.file.path;
    const auto* before = read.job.before;
    if (!read.record) {
        takeFailure(read);
        return;
    }
    const auto& record = *read.record;
    ++report_.seen;
    if (!record.problem.empty()) {
        addError(joinPath(volume_.root, path), record.problem);
    }
    if (before != nullptr && before->id != 0) {
        takeKnown(*before, record);
        return;
    }
    if (before != nullptr) {
        writer_.forgetPassedOver(path);
    }
    if (takeAsMovedByContent(path, record)) {
        return;
    }
    ++report_.added;
    writer_.add(path, record, volume_.surveyedAt != 0);
}

void ChangedReader::takeKnown(const RememberedFile& before, const FileRecord& record) {
    const bool same = checksumOfHolding(before.id) == record.checksums.file;
    if (before.state != HoldingState::present) {
        ++report_.returned;
        writer_.rewrite(before.id, record, "returned", before.path);
    } else if (same) {
        ++report_.unchanged;
        writer_.restamp(before.id, before.path, record.stamp, {}, {});
        if (record.evidence || !record.problem.empty()) {
            writer_.giveEvidence(before.id, record);
        }
    } else {
        ++report_.changed;
        writer_.rewrite(before.id, record, "changed", before.path);
    }
}

void ChangedReader::takeFailure(const FileRead& read) {
    const auto& path = read.job.file.path;
    const auto& error = read.record.error();
    const auto* before = read.job.before;
    const bool wasHolding = before != nullptr && before->id != 0;
    switch (error.cause) {
    case Cause::interrupted:
        return; // it is as it was known, and is come back to
    case Cause::notAudio: {
        const std::string sentence = namedLikeAudio(path) ? error.sentence : std::string();
        writer_.passOver(path, read.job.file.stamp, sentence);
        notePassedOver(path, sentence);
        return;
    }
    case Cause::notFound:
        if (wasHolding) {
            met_[static_cast<std::size_t>(before - remembered_.files.data())] = false;
        }
        return;
    default:
        if (wasHolding && before->state == HoldingState::present) {
            ++report_.seen;
        }
        addError(joinPath(volume_.root, path), error.sentence);
    }
}

bool ChangedReader::takeAsMovedByContent(const BytePath& path, const FileRecord& record) {
    const auto [first, last] = goneByChecksum_.equal_range(record.checksums.file);
    auto best = last;
    for (auto it = first; it != last; ++it) {
        const bool isAlike =
            isInsideArchive(remembered_[it->second].path) == isInsideArchive(path); // one file, or none
        if (isAlike && !met_[it->second] &&
            (best == last || nameOf(remembered_[it->second].path) == nameOf(path))) {
            best = it;
        }
    }
    if (best == last) {
        return false;
    }
    const auto& before = remembered_[best->second];
    met_[best->second] = true;
    ++report_.moved;
    writer_.restamp(before.id, path, record.stamp, "moved", before.path);
    if (record.evidence) {
        writer_.giveEvidence(before.id, record);
    }
    goneByChecksum_.erase(best);
    return true;
}

void ChangedReader::markGone() {
    for (std::size_t i = 0; i < remembered_.size(); ++i) {
        const auto& before = remembered_[i];
        if (met_[i] || couldNotBeSeen(before.path)) {
            report_.away += !met_[i] && before.id != 0 && before.state == HoldingState::present &&
                                    !volume_.reaches(before.path)
                                ? 1
                                : 0;
            continue;
        }
        if (before.id != 0 && before.state < HoldingState::writtenOff &&
            isLeftOut(volume_.choices, volume_.root, before.path, before.size)) {
            ++report_.leftOut;
            writer_.markLeftOut(before.id);
        } else if (before.id == 0) {
            writer_.forgetPassedOver(before.path);
        } else if (before.state == HoldingState::present) {
            ++report_.missing;
            writer_.markMissing(before.id, before.path, volume_.surveyedAt);
        }
    }
}

void ChangedReader::notePassedOver(const BytePath& path, const std::string& sentence) {
    ++report_.passedOver;
    if (!sentence.empty()) {
        const auto inner = innerPathOf(path);
        addError(joinPath(volume_.root, inner && inner->inside.empty() ? inner->archive : path), sentence);
    }
}

void ChangedReader::addError(const BytePath& path, const std::string& sentence) {
    report_.errors.push_back({path, sentence});
    writer_.noteError(report_.errors.back());
}

Checksum128 ChangedReader::checksumOfHolding(HoldingId id) const {
    const auto found = checksums_.find(id);
    return found != checksums_.end() ? found->second : Checksum128{};
}

Outcome readChanged(Catalogue& catalogue, const Volume& volume, Walk walk, RememberedFiles remembered,
                    std::vector<BytePath> inFull, RunControl& control, const ProgressSink& onProgress,
                    SurveyReport& report) {
    return ChangedReader(catalogue, volume, std::move(walk), std::move(remembered), std::move(inFull),
                         control, onProgress, report)
        .run();
}

} // namespace sober
