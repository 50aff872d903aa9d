#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/salvage_store.h"
#include "core/media/carve/scanner.h"

namespace sober {

struct ScanChoices {
    BytePath image; ///< absolute: an image or a drive
    PieceKinds kinds = PieceKinds::all();
    bool everywhere = false; ///< where files stand that a file system gives out, too
    bool anew = false;       ///< even where an earlier scan could go on
};

/// Looks through an image for audio: what its file systems still name, what formats' rules show where nobody
/// names it, and what the catalogue remembers of missing holdings' blocks; examines each find, and recognises
/// it. Kept in the catalogue as it goes: stopped, it goes on there when it is called again; of an image that
/// was changed meanwhile it begins anew. `onFound` hears when there is more to be shown. What is held of the
/// image does not grow with it.
Result<SalvageSource> scanForAudio(
    const Catalogue& catalogue, const ScanChoices& choices, RunControl& control,
    const ProgressSink& onProgress, const std::function<void()>& onFound = [] {});

} // namespace sober
