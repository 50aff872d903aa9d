#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/holding_writer.h"

#include <span>

namespace sober {

struct FoundCopy {
    BytePath path; ///< absolute
    Checksum128 content;
};

struct SeekReport {
    std::uint64_t files = 0; ///< that were met
    std::uint64_t read = 0;  ///< of a size that is looked for
    std::vector<FoundCopy> found;
    std::vector<SurveyError> errors;
    bool interrupted = false;
};

/// Looks in folders that need be no volumes, a backup, a bag, another player's folder, for what has drifted
/// or is missing. Only files of a size that is looked for are read; what is found is noted, so that it can be
/// restored from there. Writes nothing into the folders.
Result<SeekReport> seekHealthyCopies(const Catalogue& catalogue, std::span<const BytePath> folders,
                                     RunControl& control, const ProgressSink& onProgress);

} // namespace sober
