#pragma once

#include "core/survey/read_changed.h"
#include "core/survey/reading_pool.h"

#include <map>
#include <unordered_map>
#include <unordered_set>

namespace sober {

/// Whether a name has an ending under which a person expects audio: only used to tell them that it is none.
bool namedLikeAudio(const BytePath& path);

/// The work of `readChanged`: read_changed.cpp goes through it, changed_reader_sorting.cpp divides what was
/// walked, changed_reader_archives.cpp takes what lies in archives.
class ChangedReader {
  public:
    ChangedReader(Catalogue& catalogue, const Volume& volume, Walk walk, RememberedFiles remembered,
                  std::vector<BytePath> inFull, RunControl& control, const ProgressSink& onProgress,
                  SurveyReport& report);
    Outcome run();

  private:
    bool unchanged(const FileStamp& now, const RememberedFile& before) const;
    bool wantsEvidence(const RememberedFile& before) const;
    /// Divides what was walked into unchanged, moved by inode and to be read.
    void sortOut();
    void rememberInside();
    /// An archive that was gone through and is unchanged holds what it held.
    void sortOutArchive(WalkedFile& file);
    /// Holdings that were present (or missing already) and were not met, outside of what could not be listed.
    void findGone();
    bool couldNotBeSeen(const BytePath& path) const;
    bool takeAsMovedByInode(const WalkedFile& file);
    Outcome readAll();
    /// Checksums of what is gone, so that a file found elsewhere can be recognised.
    Outcome loadGoneChecksums();
    void takeInside(FileRead& read);
    /// Whether the archive held the same under another name, which was not met in it so far.
    bool isLikeOneToCome(const BytePath& archive, const FileRecord& record);
    /// What an archive holds no more under its name may have another by now, there or in the next one.
    void takeRenamed(const BytePath& archive, std::vector<FileRead>& waiting, bool isWhole);
    /// Whether it would end like this again, as long as the archive is what it is.
    static bool isLasting(const Error& error);
    /// What was wrong in an archive is told once, of all of it, and again by each survey that finds it
    /// unchanged. One that was not gone through for reasons of the day is come back to.
    void endArchive(const BytePath& archive, const FileStamp& stamp, const Error& how);
    void take(FileRead& read);
    void takeKnown(const RememberedFile& before, const FileRecord& record);
    void takeFailure(const FileRead& read);
    bool takeAsMovedByContent(const BytePath& path, const FileRecord& record);
    void markGone();
    void notePassedOver(const BytePath& path, const std::string& sentence);
    void addError(const BytePath& path, const std::string& sentence);
    Checksum128 checksumOfHolding(HoldingId id) const;

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

} // namespace sober
