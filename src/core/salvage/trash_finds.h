#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/salvage_store.h"

namespace sober {

struct TrashListing {
    std::vector<Find> finds; ///< newest first
    std::vector<BytePath> loneNotes;
    std::vector<Error> unread;
};

/// What audio lies in the trash folders now, recognised against the catalogue. What was looked at before
/// keeps its number and is not read again; what is no audio is left out. Of one volume only where `volume`
/// says so.
Result<TrashListing> listTrash(const Catalogue& catalogue, VolumeId volume, RunControl& control,
                               const ProgressSink& onProgress);

/// The note about a file in a trash, where one stands there.
BytePath noteOfTrashed(const BytePath& file);

} // namespace sober
