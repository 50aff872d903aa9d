#pragma once

#include "core/evidence/file_pass.h"
#include "core/media/tag_fields.h"
#include "core/remedy/actions/action_type.h"

namespace sober {

class EvidenceWorker;

/// Makes a copy of a file at `to`, with its tags changed, and reads it back from the medium. Refuses where
/// the audio data are not the same in both, or where any field but those of the change became another.
Result<FileRecord> makeRetagged(EvidenceWorker& worker, const BytePath& from, const BytePath& to,
                                const TagChange& change, RunControl& control);

/// Fields that other copies know are written into the tags, the audio data untouched.
ActionType retagType();

} // namespace sober
