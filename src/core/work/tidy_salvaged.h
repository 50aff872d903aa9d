#pragma once

#include "core/catalogue/salvage_store.h"

namespace sober {

/// One thing that salvage has left lying about, and where it is held as well.
struct LeftAbout {
    BytePath path; ///< absolute: in the trash, or where it was taken to
    BytePath heldAt;
    std::uint64_t bytes = 0;
    bool isInTrash = false;
};

/// What was salvaged and is held elsewhere by now, byte for byte: entries of the trash, and what was taken
/// into a folder to be looked at and stands at its own place too. What is in the trash leaves it for good
/// (but for what a docket has set aside: undo rests on that), the others are retired; all of that is put on
/// the docket, and nothing changes before it is carried out.
Result<std::vector<LeftAbout>> planTidying(const Catalogue& catalogue);

} // namespace sober
