#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <memory>
#include <optional>
#include <span>
#include <string_view>
#include <unordered_map>

namespace sober {

/// A file that an earlier survey has seen at this path: a holding, or a file that was passed over.
struct RememberedFile {
    HoldingId id = 0; ///< 0: passed over
    BytePath path;
    HoldingState state = HoldingState::present;
    std::uint64_t size = 0;
    Nanoseconds mtime = 0;
    Nanoseconds ctime = 0;
    std::uint64_t inode = 0;
    std::uint32_t sentence = 0; ///< into RememberedFiles::sentences; 0: none
    bool examined = false;      ///< by the present method, so that full effort need not read it again
};

/// Everything known of a volume's files; holdings that are retired are not among them. There may be a
/// million: each takes some hundred bytes.
struct RememberedFiles {
    std::vector<RememberedFile> files;
    /// What a person should hear of a file again: why it is no audio, or what is wrong with it.
    std::vector<std::string> sentences{""};
    std::vector<std::uint32_t> byPath; ///< into `files`, in the order of their paths

    const RememberedFile& operator[](std::size_t at) const { return files[at]; }
    std::size_t size() const { return files.size(); }
    const std::string& sentenceOf(const RememberedFile& file) const { return sentences[file.sentence]; }
    /// Which of `files` was seen at this path.
    std::optional<std::size_t> at(std::string_view path) const;
    std::uint32_t keep(std::string sentence);
};

/// With excerpts, only what has one counts as examined (ExcerptStore, opened before).
Result<RememberedFiles> rememberedFiles(const Catalogue& catalogue, VolumeId volume, bool withExcerpts);

/// The recorded checksums of some holdings.
Result<std::unordered_map<HoldingId, Checksum128>> checksumsOf(const Catalogue& catalogue,
                                                               std::span<const HoldingId> ids);

struct SurveyError {
    BytePath path; ///< absolute
    std::string sentence;
};

/// What a survey writes down, in transactions that are committed about once a second, so that an
/// interrupted survey goes on where it was. The first failure is kept and returned by `commit`.
class HoldingWriter {
  public:
    HoldingWriter(Catalogue& catalogue, VolumeId volume, Nanoseconds surveyTime);
    ~HoldingWriter();
    HoldingWriter(const HoldingWriter&) = delete;
    HoldingWriter& operator=(const HoldingWriter&) = delete;

    /// Forgets the errors and changes that the last survey listed.
    void beginSurvey();
    /// A holding that was not there before. `noteChange` lists it among what changed.
    HoldingId add(const BytePath& path, const FileRecord& record, bool noteChange);
    /// The holding's content or stamp is another one now; it is present. Where it was "changed" or has
    /// "returned" as another, what was recorded before is kept as its baseline (FixityStore).
    void rewrite(HoldingId id, const FileRecord& record, std::string_view change, const BytePath& pathBefore);
    /// Only what the file system says is another: content as before, present at `path`.
    void restamp(HoldingId id, const BytePath& path, const FileStamp& stamp, std::string_view change,
                 const BytePath& pathBefore);
    /// What was measured of a holding whose content is as before.
    void giveEvidence(HoldingId id, const FileRecord& record);
    /// It had other content before it was first seen here: that is its baseline, unless it has one.
    void noteEarlier(HoldingId id, const FileRecord& before);
    void markMissing(HoldingId id, const BytePath& path, Nanoseconds lastSeen);
    /// What was decided or seen of it elsewhere: any state.
    void takeState(HoldingId id, HoldingState state, Nanoseconds lastSeen);
    /// The choices of the volume leave it out: it is not missed.
    void markLeftOut(HoldingId id);
    /// It is no audio any more, or never was: remembered so that it is not opened again.
    void passOver(const BytePath& path, const FileStamp& stamp, const std::string& sentence);
    void forgetPassedOver(const BytePath& path);
    void noteError(const SurveyError& error);

    Outcome commit();
    bool failed() const;

  private:
    struct State;
    /// Whether a piece of writing makes the findings stale.
    enum class Concerns {
        findings,
        notes,
    };
    template <typename Work>
    void attempt(Work work, Concerns concerns = Concerns::findings);
    std::unique_ptr<State> state_;
};

} // namespace sober
