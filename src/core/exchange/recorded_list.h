#pragma once

#include "core/catalogue/catalogue.h"
#include "core/exchange/checksum_list.h"

namespace sober {

/// The present holdings below a folder of a volume, by path relative to it, with their checksums: SHA-256 as
/// recorded where it was, everything else read now. Cause::notFound where the folder is on no volume at hand.
Result<std::vector<ListedFile>> recordedList(const Catalogue& catalogue, const BytePath& folder,
                                             ListedChecksum kind, RunControl& control);

} // namespace sober
