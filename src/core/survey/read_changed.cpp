#include "core/survey/read_changed.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/evidence/file_content.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/survey/look_inside.h"
#include "core/survey/volume_identity.h"

#include <tbb/enumerable_thread_specific.h>
#include <tbb/parallel_pipeline.h>
#include <tbb/task_arena.h>

#include <algorithm>
#include <array>
#include <chrono>
#include <deque>
#include <map>
#include <thread>
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

/// One file to be read, and what was remembered at its path.
struct Job {
    WalkedFile file;
    const RememberedFile* before = nullptr;
    bool isArchive = false; ///< looked into
};

/// The same while it waits, where there may be a million.
struct Waiting {
    WalkedFile* file; ///< as it was walked
    const RememberedFile* before = nullptr;
    bool isArchive = false;
};

/// At which effort what is read.
struct Efforts {
    Effort usual = Effort::index;
    std::vector<BytePath> inFull; ///< relative folders
    bool keepExcerpts = false;    ///< of what is examined

    bool isFull(const BytePath& path) const {
        return usual == Effort::full ||
               std::ranges::any_of(inFull, [&](const BytePath& folder) { return isWithin(path, folder); });
    }
};

struct Read {
    Job job;
    Result<FileRecord> record;
    /// It is one of the files in an archive, or, after them, that archive: then `record` tells how that
    /// ended.
    bool isInside = false;
};

/// How an archive ended that was gone through to its end: no failure, and no record either.
Error wholeArchive(const BytePath& archive) {
    return {Cause::notAudio, archive, {}};
}

/// Reads jobs on all processors and hands the outcomes, in any order, to the one thread that writes.
/// At most `inFlight` files are held in memory at once, so that it does not grow with the collection.
class ReadingPool {
  public:
    ReadingPool(const Volume& volume, const Efforts& efforts, std::vector<Waiting> jobs, RunControl& control)
        : root_(volume.root),
          efforts_(efforts),
          choices_(volume.choices),
          jobs_(std::move(jobs)),
          control_(control) {
        pipeline_ = std::jthread([this] { work(); });
    }

    std::uint64_t bytesRead() const { return bytes_; }

    /// The next outcome; nothing after `patience` without one, or once all are done (`finished`).
    std::optional<Read> next(std::chrono::milliseconds patience) {
        std::unique_lock lock(mutex_);
        arrived_.wait_for(lock, patience, [this] { return !outcomes_.empty() || done_; });
        if (outcomes_.empty()) {
            return std::nullopt;
        }
        Read read = std::move(outcomes_.front());
        outcomes_.pop_front();
        lock.unlock();
        taken_.notify_one();
        return read;
    }

    bool finished() {
        const std::lock_guard lock(mutex_);
        return done_ && outcomes_.empty();
    }

  private:
    static constexpr std::size_t inFlight = 64;

    /// Files in flight: many small readings hide the disk's waiting, an examination fills a processor. Each
    /// has a process of its own, which to start takes as long as to read some files, or to examine one.
    std::size_t tokens() const {
        const std::size_t processors = std::clamp(std::thread::hardware_concurrency(), 1U, 32U);
        const auto files = jobs_.size();
        const bool anyInFull =
            std::ranges::any_of(jobs_, [&](const Waiting& job) { return efforts_.isFull(job.file->path); });
        return anyInFull ? std::min(processors, 1 + files / 2)
                         : std::min({processors, std::size_t{8}, 1 + files / 16});
    }

    void work() {
        tbb::task_arena arena(static_cast<int>(tokens()));
        arena.execute([this] {
            tbb::parallel_pipeline(
                tokens(),
                tbb::make_filter<void, Waiting*>(tbb::filter_mode::serial_in_order,
                                                 [this](tbb::flow_control& flow) -> Waiting* {
                                                     if (next_ == jobs_.size() || !control_.proceed()) {
                                                         flow.stop();
                                                         return nullptr;
                                                     }
                                                     return &jobs_[next_++];
                                                 }) &
                    tbb::make_filter<Waiting*, void>(tbb::filter_mode::parallel, [this](Waiting* waiting) {
                        Job job{std::move(*waiting->file), waiting->before, waiting->isArchive};
                        if (job.isArchive) {
                            readArchive(job);
                            return;
                        }
                        auto record = read(job);
                        hand({std::move(job), std::move(record)});
                    }));
        });
        const std::lock_guard lock(mutex_);
        done_ = true;
        arrived_.notify_one();
    }

    Result<FileRecord> read(const Job& job) {
        const auto path = placeOf(job);
        const auto onBytes = [this](std::uint64_t bytes) { bytes_ += bytes; };
        auto record = efforts_.isFull(job.file.path)
                          ? workers_.local().examine(path, control_, onBytes, efforts_.keepExcerpts)
                          : workers_.local().passOver(path, control_, onBytes);
        // A holding whose beginning is destroyed is still the holding: it has drifted.
        const bool isHolding =
            job.before != nullptr && job.before->id != 0 && job.before->state == HoldingState::present;
        return !record && record.error().cause == Cause::notAudio && isHolding
                   ? recordOfBytes(path, control_, onBytes)
                   : record;
    }

    /// What is reached by a link is opened where it is.
    BytePath placeOf(const Job& job) const {
        auto path = joinPath(root_, job.file.path);
        return choices_.followLinks ? realPathOf(path).value_or(path) : path;
    }

    void readArchive(Job& job) {
        const auto& relative = job.file.path;
        const LookInside asked{placeOf(job), relative, choices_,
                               efforts_.isFull(relative) ? Effort::full : Effort::index,
                               efforts_.keepExcerpts};
        const auto looked = lookInside(
            asked, workers_.local(), control_, [this](std::uint64_t bytes) { bytes_ += bytes; },
            [&](const BytePath& path, Result<FileRecord> record) {
                WalkedFile file{path, job.file.stamp};
                file.stamp.size = record ? record->stamp.size : 0;
                hand({{std::move(file), nullptr, false}, std::move(record), true});
            });
        if (!looked && looked.error().cause == Cause::unreadable) {
            if (auto record = read(job); record) { // audio under a strange name
                job.isArchive = false;
                hand({std::move(job), std::move(record)});
                return;
            }
        }
        hand({std::move(job), looked ? wholeArchive(asked.archive) : looked.error(), true});
    }

    void hand(Read read) {
        std::unique_lock lock(mutex_);
        taken_.wait(lock, [this] { return outcomes_.size() < inFlight; });
        outcomes_.push_back(std::move(read));
        lock.unlock();
        arrived_.notify_one();
    }

    const BytePath& root_;
    const Efforts& efforts_;
    const SurveyChoices& choices_;
    std::vector<Waiting> jobs_;
    RunControl& control_;
    std::size_t next_ = 0;
    std::atomic<std::uint64_t> bytes_ = 0;
    tbb::enumerable_thread_specific<EvidenceWorker> workers_;
    std::mutex mutex_;
    std::condition_variable arrived_;
    std::condition_variable taken_;
    std::deque<Read> outcomes_;
    bool done_ = false;
    std::jthread pipeline_;
};

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

    void takeInside(Read& read) {
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
        if (read.record) {
            take(read);
        } else {
            report_.seen +=
                read.job.before != nullptr && read.job.before->state == HoldingState::present ? 1 : 0;
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
        auto [isWhole, sentences] = std::exchange(ended_[archive], {});
        if (how.cause != Cause::notAudio && how.cause != Cause::unreadable) {
            walk_.unlisted.push_back(archive + "!"); // what was not come to is not missing
        }
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

    void take(Read& read) {
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

    void takeFailure(const Read& read) {
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
    std::vector<Waiting> jobs_;
    std::vector<std::size_t> gone_;
    /// Of an archive that is being gone through: what was wrong, and whether nothing of it has to be done
    /// again.
    struct Ended {
        bool isWhole = true;
        std::string sentences;
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
