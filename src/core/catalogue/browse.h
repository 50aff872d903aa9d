#pragma once

#include "core/catalogue/findings.h"

namespace sober {

/// One folder with all below it.
struct BrowsedFolder {
    FolderFigures figures; ///< by its path; its depth is not given
    double seconds = 0;    ///< of the present
};

/// What a folder of a volume holds, as catalogued.
struct Browsed {
    std::vector<BrowsedFolder> folders; ///< those directly within, by path
    std::vector<HoldingId> holdings;    ///< directly within, those missed and left out too, by path
};

/// `folder` is relative to the volume's root, "" for the root. Looks at everything below it once.
Result<Browsed> browse(const Catalogue& catalogue, VolumeId volume, const BytePath& folder);

} // namespace sober
