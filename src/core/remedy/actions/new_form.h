#pragma once

#include "core/evidence/file_pass.h"
#include "core/media/encode.h"
#include "core/media/tag_fields.h"

namespace sober {

class EvidenceWorker;

/// Writes tags into what was made, open for writing; where its form cannot hold a field, only those that
/// every form can.
Outcome writeWhatItHolds(EvidenceWorker& worker, const FileHandle& made, const BytePath& path,
                         TagChange change);

/// Decodes what was made in another form, and what it was made of: one recording, of one length, that decodes
/// whole. `place`: where it is to stand, for sentences.
Outcome isMadeOf(EvidenceWorker& worker, const BytePath& source, const Encoded& encoded, const BytePath& made,
                 const FileRecord& record, const BytePath& place, RunControl& control);

} // namespace sober
