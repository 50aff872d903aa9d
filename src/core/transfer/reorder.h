#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

namespace sober {

/// One file that a new order puts elsewhere.
struct Reordered {
    HoldingId holding = 0;
    BytePath from; ///< absolute
    BytePath to;
    std::string altered; ///< why its name or a folder's is not what the layout says; "" where it is
};

/// The present holdings of a folder in the order that a layout gives them, below that folder; those that stay
/// where they are are left out. Names are what the file system can hold; what would be one file is told
/// apart, and nothing comes to stand where something else does. A disc counts only where its album has
/// several; an album of several artists that names none of its own is filed under "Various Artists".
/// `layout` is "keep", "flat" or in the language of layout.h. Cause::notFound where nothing of the folder is
/// catalogued and at hand.
Result<std::vector<Reordered>> reorder(const Catalogue& catalogue, const BytePath& folder,
                                       const std::string& layout);

} // namespace sober
