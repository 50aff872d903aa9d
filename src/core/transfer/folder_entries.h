#pragma once

#include "core/transfer/target_place.h"

#include <string>
#include <unordered_map>
#include <unordered_set>

namespace sober {

/// How many entries the folders of a target hold already and shall hold, where its file system limits that:
/// names that stand there, folders on the way and what is to come, each once.
class FolderEntries {
  public:
    /// `withStanding`: what stands in the target stays there.
    FolderEntries(const TargetPlace& place, bool withStanding) : place_(place), withStanding_(withStanding) {}

    /// Counts a path (relative to the target) with the folders on its way; false, and nothing is counted,
    /// where one of them would hold too many.
    bool take(const BytePath& path);

  private:
    struct Folder {
        std::uint64_t entries = 0;
        std::unordered_set<std::string> names; ///< as collisionKey
    };

    Folder& folderAt(const BytePath& path);
    std::uint64_t limitOf(const BytePath& folder) const;

    const TargetPlace& place_;
    bool withStanding_;
    std::unordered_map<BytePath, Folder> folders_; ///< relative to the target
};

} // namespace sober
