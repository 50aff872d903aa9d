#pragma once

#include "app/lists/columns.h"
#include "core/work/replace_holding.h"

namespace sober::app {

/// A line of what could be better.
struct WantedLine {
    WantedRow row;
    bool waits = false; ///< it stands on the docket to be replaced
};
std::vector<Column<WantedLine>> wantedColumns();
std::vector<Column<Candidate>> candidateColumns();

Mark markOfWanted(WantedFor why);
QString wantedWord(WantedFor why);
QString unfitWord(Unfit unfit);
/// Where a candidate is to be had: "at hand", "away", "on offer".
QString sourceWord(const Candidate& candidate);
/// For it, or against it.
QString reasonsOf(const Candidate& candidate);

} // namespace sober::app
