#pragma once

#include "core/audit/relink_candidates.h"
#include "core/base/run_control.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/survey/walk.h"

#include <map>
#include <unordered_set>

namespace sober {

/// What is looked for in a folder.
struct WantedFiles {
    std::unordered_set<std::string> words;      ///< of names (`withoutZeros` of `plainWords`)
    std::unordered_set<std::string> wordsAlone; ///< of names whose numbers are not known (`withoutNumbers`)
    /// Contents by their size, and the places they were lost from.
    std::map<std::uint64_t, std::map<Checksum128, std::vector<BytePath>>> contents;
};

/// A folder in which what references lead to may lie, not catalogued, or not yet. It is listed once; files are opened only
/// as more is known of what is looked for.
class ShownFolder {
  public:
    ShownFolder(const BytePath& folder, RunControl& control);

    /// Opens files that are called like one of those that are looked for, for what they state of themselves,
    /// and reads those of the size of a lost one for their checksum: the nearest to where it was lost first,
    /// until every content of that size is found. Adds what is found; yields how many that were. What is
    /// catalogued, or was opened before, is not opened again.
    std::size_t open(RelinkCandidates& candidates, const WantedFiles& wanted, const ProgressSink& onProgress);

  private:
    struct Listed {
        BytePath path; ///< absolute
        std::uint64_t size;
        std::string words;
        std::string wordsAlone;
        std::optional<Checksum128> content; ///< where it was read
        bool opened = false;
        bool read = false;
    };

    /// Files of the sizes that are looked for, by size, the nearest to where one was lost first.
    std::map<std::uint64_t, std::vector<Listed*>> ofWantedSize(const RelinkCandidates& candidates,
                                                               const WantedFiles& wanted);
    std::size_t readBySize(RelinkCandidates& candidates, const WantedFiles& wanted,
                           const ProgressSink& onProgress);
    std::size_t openByName(RelinkCandidates& candidates, const WantedFiles& wanted,
                           const ProgressSink& onProgress);
    void read(Listed& file);
    bool probe(RelinkCandidates& candidates, Listed& file);
    void tell(const ProgressSink& onProgress, const Listed& file);

    RunControl& control_;
    std::vector<Listed> files_;
    EvidenceWorker worker_;
    Progress progress_;
};

} // namespace sober
