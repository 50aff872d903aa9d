#pragma once

#include "core/catalogue/records.h"
#include "core/evidence/worker/evidence_worker.h"

#include <functional>

namespace sober {

/// What to look into, and how.
struct LookInside {
    BytePath archive;  ///< absolute
    BytePath relative; ///< to its volume's root
    const SurveyChoices& choices;
    Effort effort = Effort::index;
    bool withExcerpts = false;
};

/// Reads the audio that an archive holds as if it lay beside it, one file after the other. `take` hears of
/// each that the choices take in, by its path relative to the volume's root (inner_path.h), with its record
/// or why there is none; its stamp is the archive's but for the size, and 0 links. `onBytes` hears how many
/// more bytes of the archive have gone by. Archives within are not opened: `take` hears a sentence.
/// Cause::unreadable where it is no archive, Cause::damaged or Cause::refused where it could not be gone
/// through to its end, Cause::changed where it was written to meanwhile, Cause::interrupted where the run was
/// cancelled.
Outcome lookInside(const LookInside& asked, EvidenceWorker& worker, RunControl& control,
                   const std::function<void(std::uint64_t)>& onBytes,
                   const std::function<void(const BytePath&, Result<FileRecord>)>& take);

} // namespace sober
