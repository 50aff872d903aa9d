#pragma once

#include "app/charts/salvage_strip.h"
#include "app/lists/columns.h"
#include "core/catalogue/action_kind.h"
#include "core/salvage/recogniser.h"

#include <functional>
#include <map>

namespace sober::app {

/// A line of the list of finds.
struct FindRow {
    Find find;
    KnownFind known;
    std::optional<ActionKind> waits; ///< for which it stands on the docket
};

/// What is chosen of what was found.
struct FindNarrowing {
    int standing = 0; ///< 0: all; else one more than FindStanding
    int whole = 0;    ///< 0: all, 1: whole, 2: not whole
    std::string format;
    bool isTogether = true; ///< what sounds or is called the same is one line
};

/// What the desk shows of a source.
struct SalvageSeen {
    std::vector<SalvageSource> images;
    std::optional<SalvageSource> source;
    SalvageStrip::Band band;
    std::vector<FindId> ids; ///< of the lines
    std::vector<std::string> formats;
    std::map<FindId, std::size_t> alike; ///< of a line that stands for several: how many more there are
    std::map<FindId, FindId> shownBy;    ///< of a find without a line: whose line stands for it
    BytePath near;                       ///< a folder near which images may lie
};
/// `source` is an image's path; "" is the trash.
Result<SalvageSeen> lookAtSalvage(const Catalogue& catalogue, const BytePath& source,
                                  const FindNarrowing& narrowing);

Result<std::vector<FindRow>> fetchFindRows(const Catalogue& catalogue, std::span<const std::int64_t> ids);
/// `othersLike` says how many more a line stands for.
std::vector<Column<FindRow>> findColumns(std::function<std::size_t(FindId)> othersLike);

} // namespace sober::app
