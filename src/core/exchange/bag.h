#pragma once

#include "core/base/result.h"
#include "core/base/run_control.h"
#include "core/exchange/bag_text.h"

namespace sober {

// Bags by RFC 8493: a folder of payload (data/), manifests of its checksums, and tag files about it.

struct BagProblem {
    BytePath path; ///< relative to the bag, "" for the whole
    std::string sentence;
};

/// What a look at a bag has found. Complete: everything that is listed is there, everything that is there is
/// listed. Valid: complete, and every checksum holds.
struct BagReport {
    std::string version;
    std::vector<std::pair<std::string, std::string>> info;
    std::vector<std::string> algorithms; ///< of its payload manifests
    std::uint64_t files = 0;             ///< of the payload
    std::uint64_t bytes = 0;
    bool complete = false;
    bool valid = false;
    bool interrupted = false;
    std::vector<BagProblem> problems;
};

/// Reads the whole bag and changes nothing. What fetch.txt names is not fetched: it counts as missing.
/// Cause::invalid where the folder is no bag.
Result<BagReport> checkBag(const BytePath& bag, RunControl& control, const ProgressSink& onProgress);

} // namespace sober
