#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"
#include "core/transfer/target_rules.h"

namespace sober {

/// Where a transfer leads: a folder that is there or can be made.
struct TargetPlace {
    BytePath folder; ///< absolute, links resolved as far as it exists
    bool isThere = false;
    bool isRoot = false; ///< the topmost folder of its file system, or of a device that is described by hand
    std::optional<Volume> volume; ///< on which it lies; none: it becomes one when it is filled
    std::string filesystem;       ///< what tells its file system from others
    const TargetRules* rules = nullptr;
    std::uint64_t free = 0;           ///< bytes, or unknownRoom
    std::uint64_t allocationUnit = 1; ///< bytes

    /// The room that so many bytes take there.
    std::uint64_t roomFor(std::uint64_t bytes) const {
        return (bytes + allocationUnit - 1) / allocationUnit * allocationUnit;
    }
};

/// Looks at it. `rules` is "auto" or a word of target_rules.h; `room` says how many bytes are free on a
/// device that is described by hand. Cause::wrongKind for a file, Cause::refused for a trash, for a folder
/// around a volume, and for a volume's folder by another way, Cause::invalid for rules that there are not.
Result<TargetPlace> targetPlaceAt(const Catalogue& catalogue, const BytePath& folder,
                                  const std::string& rules, std::optional<std::uint64_t> room);

} // namespace sober
