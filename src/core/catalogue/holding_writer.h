#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <memory>
#include <span>
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
    std::string
        sentence; ///< what a person should hear of it again: why it is no audio, or what is wrong with it
    bool examined = false; ///< by the present method, so that full effort need not read it again
};

/// Everything known of a volume's files; holdings that are retired are not among them.
struct RememberedFiles {
    std::vector<RememberedFile> files;
    std::unordered_map<std::string_view, std::size_t> byPath; ///< into `files`

    RememberedFiles() = default;
    RememberedFiles(RememberedFiles&&) = default;
    RememberedFiles& operator=(RememberedFiles&&) = default;
    RememberedFiles(const RememberedFiles&) = delete; // the paths are looked up where they stand
    RememberedFiles& operator=(const RememberedFiles&) = delete;
};

Result<RememberedFiles> rememberedFiles(const Catalogue& catalogue, VolumeId volume);

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
    void markMissing(HoldingId id, const BytePath& path, Nanoseconds lastSeen);
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
