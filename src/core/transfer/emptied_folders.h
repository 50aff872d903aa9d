#pragma once

#include "core/catalogue/transfer_store.h"

#include <span>
#include <vector>

namespace sober {

/// What of a volume's folders files leave behind when they are put in another order.
struct FilesMoving {
    std::vector<BytePath> from; ///< absolute: where they are, or have been already
    std::vector<BytePath> to;   ///< absolute
};

/// The folders below `within` that hold no file once those have moved, sorted; of folders within one another
/// the topmost alone. None of `kept` is among them or in one of them. A folder that cannot be listed, and
/// one on which another file system is mounted, counts as holding something.
std::vector<BytePath> emptiedFolders(const FilesMoving& files, const BytePath& within,
                                     std::span<const BytePath> kept);

/// The same of a transfer's renames, those that wait and those that are done. What stays, empty or not: its
/// own folder, the roots of volumes, and where players look.
Result<std::vector<BytePath>> foldersLeftEmpty(const Catalogue& catalogue, const Transfer& transfer,
                                               std::span<const TransferItem> items);

} // namespace sober
