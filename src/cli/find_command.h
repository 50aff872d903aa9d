#pragma once

#include "cli/commands.h"
#include "core/catalogue/holding_filter.h"

namespace sober::cli {

struct FindOptions {
    std::vector<std::string> words;
    std::string volume; ///< label; "" for all
    std::string verdict;
    std::string bitrate;   ///< kbit/s, "FROM-TO" with either left out
    std::string length;    ///< seconds, likewise
    std::string years;     ///< likewise
    std::string keepAs;    ///< a standing list's name
    std::size_t limit = 0; ///< 0: all
    HoldingFilter filter;
};

/// Each prints its result to standard output and yields the exit code.
int runFind(const CommonOptions& common, const FindOptions& options, RunControl& control);
/// `place` is "VOLUME" or "VOLUME/FOLDER".
int runBrowse(const CommonOptions& common, const BytePath& place);

} // namespace sober::cli
