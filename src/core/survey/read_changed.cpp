#include "core/survey/read_changed.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/evidence/file_content.h"
#include "core/survey/reading_pool.h"
#include "core/survey/volume_identity.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <map>
#include <unordered_map>

namespace sober {
namespace {

using Clock = std::chrono::steady_clock;

/// Endings under which a person expects audio: only used to tell them that it is not.
bool namedLikeAudio(const BytePath& path) {
    constexpr std::array<std::string_view, 19> endings{"wav",  "flac", "mp3",  "m4a", "aac", "ogg", "oga",
                                                       "opus", "aif",  "aiff", "wma", "wv",  "ape", "alac",
                                                       "mka",  "mp2",  "ac3",  "caf", "m4b"};
    return std::ranges::find(endings, endingOf(path)) != endings.end();
}

class ChangedReader {
  public:
    ChangedReader(Catalogue& catalogue, const Volume& volume, Walk walk, RememberedFiles remembered,
                  std::vector<BytePath> inFull, RunControl& control, const ProgressSink& onProgress,
                  SurveyReport& report)
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

    Outcome run() {
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

  private:
    bool unchanged(const FileStamp& now, const RememberedFile& before) const {
        return now.size == before.size && now.mtime == before.mtime &&
               (!lastingInodes_ || (now.ctime == before.ctime && now.inode == before.inode));
    }

    bool wantsEvidence(const RememberedFile& before) const {
        return efforts_.isFull(before.path) && !before.examined;
    }

    /// Divides what was walked into unchanged, moved by inode and to be read.
    void sortOut() {
        met_.assign(remembered_.size(), false);
        std::vector<WalkedFile*> fresh;
        rememberInside();
        for (auto& file : walk_.files) {
            if (isInsideArchive(file.path)) {
                const auto path = joinPath(volume_.root, file.path);
                addError(path, displayPath(path) +
                                   " is in a folder that is called like the inside of an archive, "
                                   "and was not read. Rename the folder.");
                walk_.unlisted.push_back(file.path);
                continue;
            }
            const auto found = remembered_.at(file.path);
            if (volume_.choices.lookInside && isArchiveName(file.path) &&
                (!found || remembered_[*found].id == 0)) {
                sortOutArchive(file);
                continue;
            }
            if (!found) {
                fresh.push_back(&file);
                continue;
            }
            met_[*found] = true;
            const auto& before = remembered_[*found];
            if (before.id == 0 && unchanged(file.stamp, before)) {
                notePassedOver(before.path, remembered_.sentenceOf(before));
            } else if (before.id != 0 &&
                       (before.state == HoldingState::present || before.state == HoldingState::leftOut) &&
                       unchanged(file.stamp, before) && !wantsEvidence(before)) {
                ++report_.seen;
                ++report_.unchanged;
                if (before.state == HoldingState::leftOut) {
                    writer_.restamp(before.id, before.path, file.stamp, {}, {});
                }
                if (before.sentence != 0) {
                    addError(joinPath(volume_.root, before.path), remembered_.sentenceOf(before));
                }
            } else {
                jobs_.push_back({&file, &before});
            }
        }
        findGone();
        for (auto* file : fresh) {
            if (!takeAsMovedByInode(*file)) {
                jobs_.push_back({file, nullptr});
            }
        }
        if (jobs_.empty()) {
            walk_.files = {};
        }
    }

    void rememberInside() {
        for (std::size_t i = 0; volume_.choices.lookInside && i < remembered_.size(); ++i) {
            if (auto inner = innerPathOf(remembered_[i].path)) {
                inside_[std::move(inner->archive)].push_back(i);
            }
        }
    }

    /// An archive that was gone through and is unchanged holds what it held.
    void sortOutArchive(WalkedFile& file) {
        const auto whole = remembered_.at(innerPath(file.path, {}));
        const auto& held = inside_[file.path];
        const bool isKnown = whole && unchanged(file.stamp, remembered_[*whole]);
        const bool isWanted = std::ranges::any_of(held, [&](std::size_t i) {
            const auto& before = remembered_[i];
            return before.id != 0 && before.state == HoldingState::present && wantsEvidence(before);
        });
        if (const auto plain = remembered_.at(file.path)) {
            met_[*plain] = isKnown; // passed over as a file once
        }
        if (!isKnown || isWanted) {
            if (whole) {
                met_[*whole] = true;
            }
            lookedInto_.insert(file.path);
            jobs_.push_back({&file, nullptr, true});
            return;
        }
        for (const auto i : held) { // `whole` is one of them
            const auto& before = remembered_[i];
            met_[i] = true;
            if (before.id == 0) {
                notePassedOver(before.path, remembered_.sentenceOf(before));
            } else if (before.state == HoldingState::present || before.state == HoldingState::leftOut) {
                ++report_.seen;
                ++report_.unchanged;
                if (before.state == HoldingState::leftOut) {
                    auto stamp = file.stamp;
                    stamp.links = 0;
                    writer_.restamp(before.id, before.path, stamp, {}, {});
                }
            }
        }
    }

    /// Holdings that were present (or missing already) and were not met, outside of what could not be listed.
    void findGone() {
        for (std::size_t i = 0; i < remembered_.size(); ++i) {
            const auto& before = remembered_[i];
            if (!met_[i] && before.id != 0 && before.state != HoldingState::leftOut &&
                !couldNotBeSeen(before.path)) {
                const auto inner = innerPathOf(before.path);
                if (!inner) {
                    goneByInode_.emplace(before.inode, i); // else it is its archive's
                }
                if (!inner || !lookedInto_.contains(inner->archive)) {
                    gone_.push_back(i);
                }
            }
        }
    }

    bool couldNotBeSeen(const BytePath& path) const {
        return std::ranges::any_of(
            walk_.unlisted, [&](const BytePath& folder) { return folder.empty() || isWithin(path, folder); });
    }

    bool takeAsMovedByInode(const WalkedFile& file) {
        if (!lastingInodes_) {
            return false;
        }
        const auto [first, last] = goneByInode_.equal_range(file.stamp.inode);
        for (auto it = first; it != last; ++it) {
            const auto& before = remembered_[it->second];
            if (before.size == file.stamp.size && before.mtime == file.stamp.mtime &&
                !wantsEvidence(before)) {
                writer_.restamp(before.id, file.path, file.stamp, "moved", before.path);
                met_[it->second] = true;
                goneByInode_.erase(it);
                ++report_.moved;
                ++report_.seen;
                return true;
            }
        }
        return false;
    }

    Outcome readAll() {
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

    /// Checksums of what is gone, so that a file found elsewhere can be recognised.
    Outcome loadGoneChecksums();

    void takeInside(FileRead& read) {
        const auto& path = read.job.file.path;
        if (read.job.isArchive) {
            endArchive(path, read.job.file.stamp, read.record.error());
            return;
        }
        const auto archive = innerPathOf(path)->archive;
        const bool isNone = !read.record && read.record.error().cause == Cause::notAudio;
        if (!read.record && (!isNone || namedLikeAudio(path))) {
            auto& ended = ended_[archive];
            ended.isWhole &= isLasting(read.record.error());
            ended.sentences += (ended.sentences.empty() ? "" : " ") + read.record.error().sentence;
        }
        if (isNone) {
            return; // one that was a holding is missing then
        }
        if (const auto found = remembered_.at(path)) {
            read.job.before = &remembered_[*found];
            met_[*found] = true;
        }
        if (read.record && read.job.before == nullptr && isLikeOneToCome(archive, *read.record)) {
            ended_[archive].waiting.push_back(std::move(read));
        } else if (read.record) {
            take(read);
        } else {
            report_.seen +=
                read.job.before != nullptr && read.job.before->state == HoldingState::present ? 1 : 0;
        }
    }

    /// Whether the archive held the same under another name, which was not met in it so far.
    bool isLikeOneToCome(const BytePath& archive, const FileRecord& record) {
        return std::ranges::any_of(inside_[archive], [&](std::size_t i) {
            return !met_[i] && remembered_[i].id != 0 &&
                   checksumOfHolding(remembered_[i].id) == record.checksums.file;
        });
    }

    /// What an archive holds no more under its name may have another by now, there or in the next one.
    void takeRenamed(const BytePath& archive, std::vector<FileRead>& waiting, bool isWhole) {
        for (const auto i : inside_[archive]) {
            const auto checksum = checksumOfHolding(remembered_[i].id);
            if (isWhole && !met_[i] && remembered_[i].id != 0 &&
                remembered_[i].state != HoldingState::leftOut && checksum != Checksum128{}) {
                goneByChecksum_.emplace(checksum, i);
            }
        }
        for (auto& read : waiting) {
            take(read);
        }
    }

    /// Whether it would end like this again, as long as the archive is what it is.
    static bool isLasting(const Error& error) {
        return error.cause == Cause::notAudio || error.cause == Cause::unreadable ||
               error.cause == Cause::damaged || error.cause == Cause::refused;
    }

    /// What was wrong in an archive is told once, of all of it, and again by each survey that finds it
    /// unchanged. One that was not gone through for reasons of the day is come back to.
    void endArchive(const BytePath& archive, const FileStamp& stamp, const Error& how) {
        auto [isWhole, sentences, waiting] = std::exchange(ended_[archive], {});
        const bool wasAllMet = how.cause == Cause::notAudio || how.cause == Cause::unreadable;
        if (!wasAllMet) {
            walk_.unlisted.push_back(archive + "!"); // what was not come to is not missing
        }
        takeRenamed(archive, waiting, wasAllMet && !control_.isCancelled());
        if (control_.isCancelled()) {
            return;
        }
        sentences = how.sentence + (how.sentence.empty() || sentences.empty() ? "" : " ") + sentences;
        if (isWhole && isLasting(how)) {
            const auto whole = innerPath(archive, {});
            writer_.passOver(whole, stamp, sentences);
            notePassedOver(whole, sentences);
        } else {
            addError(joinPath(volume_.root, archive), sentences);
        }
    }

    void take(FileRead& read) {
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

    void takeKnown(const RememberedFile& before, const FileRecord& record) {
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

    void takeFailure(const FileRead& read) {
        const auto& path = read.job.file.path;
        const auto& error = read.record.error();
        const auto* before = read.job.before;
        const bool wasHolding = before != nullptr && before->id != 0;
        switch (error.cause) {
        case Cause::interrupted:
            // Not by us: it is as it was known, and is come back to.
            if (!control_.isCancelled()) {
                report_.seen += wasHolding && before->state == HoldingState::present ? 1 : 0;
                addError(joinPath(volume_.root, path), error.sentence);
            }
            return;
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

    bool takeAsMovedByContent(const BytePath& path, const FileRecord& record) {
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

    void markGone() {
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

    void notePassedOver(const BytePath& path, const std::string& sentence) {
        ++report_.passedOver;
        if (!sentence.empty()) {
            const auto inner = innerPathOf(path);
            addError(joinPath(volume_.root, inner && inner->inside.empty() ? inner->archive : path),
                     sentence);
        }
    }

    void addError(const BytePath& path, const std::string& sentence) {
        report_.errors.push_back({path, sentence});
        writer_.noteError(report_.errors.back());
    }

    Checksum128 checksumOfHolding(HoldingId id) const {
        const auto found = checksums_.find(id);
        return found != checksums_.end() ? found->second : Checksum128{};
    }

    Catalogue& catalogue_;
    const Volume& volume_;
    Walk walk_;
    RememberedFiles remembered_;
    Efforts efforts_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    SurveyReport& report_;
    bool lastingInodes_;
    HoldingWriter writer_;
    std::vector<bool> met_;
    std::vector<WaitingFile> jobs_;
    std::vector<std::size_t> gone_;
    /// Of an archive that is being gone through: what was wrong, and whether nothing of it has to be done
    /// again.
    struct Ended {
        bool isWhole = true;
        std::string sentences;
        std::vector<FileRead> waiting; ///< for whether what they are like is met under its name
    };
    std::unordered_map<BytePath, Ended> ended_;
    std::unordered_map<BytePath, std::vector<std::size_t>> inside_; ///< what is remembered of each archive
    std::unordered_set<BytePath> lookedInto_;
    std::unordered_multimap<std::uint64_t, std::size_t> goneByInode_;
    std::multimap<Checksum128, std::size_t> goneByChecksum_;
    std::unordered_map<HoldingId, Checksum128> checksums_;
};

Outcome ChangedReader::loadGoneChecksums() {
    std::vector<HoldingId> wanted;
    for (const auto index : gone_) {
        wanted.push_back(remembered_[index].id);
    }
    for (const auto& job : jobs_) {
        if (job.before != nullptr && job.before->id != 0) {
            wanted.push_back(job.before->id);
        }
        if (job.isArchive) {
            for (const auto index : inside_[job.file->path]) {
                wanted.push_back(remembered_[index].id);
            }
        }
    }
    const auto known = checksumsOf(catalogue_, wanted);
    RETURN_IF_FAILED(known);
    checksums_ = *known;
    for (const auto index : gone_) {
        if (met_[index]) {
            continue; // moved by inode
        }
        if (const auto found = checksums_.find(remembered_[index].id); found != checksums_.end()) {
            goneByChecksum_.emplace(found->second, index);
        }
    }
    return done();
}

} // namespace

Outcome readChanged(Catalogue& catalogue, const Volume& volume, Walk walk, RememberedFiles remembered,
                    std::vector<BytePath> inFull, RunControl& control, const ProgressSink& onProgress,
                    SurveyReport& report) {
    return ChangedReader(catalogue, volume, std::move(walk), std::move(remembered), std::move(inFull),
                         control, onProgress, report)
        .run();
}

} // namespace sober
