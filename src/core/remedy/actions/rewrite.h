#pragma once

#include "core/evidence/file_pass.h"
#include "core/remedy/actions/action_type.h"

namespace sober {

class EvidenceWorker;

/// True where a file's junk can be left out without touching its audio: MP3 and Ogg, with junk known.
bool canBeRewritten(const Claims& claims, const Evidence& evidence);

/// Makes a copy of a file at `to` without the bytes that belong neither to the audio nor to a tag, nothing
/// decoded, and reads it back from the medium. Refuses where the audio data are not the same in both.
Result<FileRecord> makeRewritten(EvidenceWorker& worker, const BytePath& from, const BytePath& to,
                                 RunControl& control);

/// An MP3 or Ogg file is made anew without the bytes that belong neither to its audio nor to its tags.
ActionType rewriteType();

} // namespace sober
