#pragma once

#include "core/base/result.h"
#include "core/base/run_control.h"
#include "core/exchange/checksum_list.h"

#include <map>

namespace sober {

// Bags by RFC 8493: a folder of payload (data/), manifests of its checksums, and tag files about it.

/// One manifest of a bag, as its text says it. Names have their percent-encoded line breaks and percent signs
/// undone.
struct BagManifest {
    std::vector<ListedFile> files;
    std::vector<ListProblem> problems; ///< absolute or leaving paths, names twice, lines that make no sense
};

/// `payload`: names must lie below data/; else they are tag files and must not.
BagManifest parseBagManifest(std::string_view text, bool payload);
/// A line for each file, by RFC 8493 section 2.1.3.
std::string bagManifestText(std::span<const ListedFile> files);

/// Labels and values of bag-info.txt or bagit.txt, folded lines joined.
std::vector<std::pair<std::string, std::string>> parseBagInfo(std::string_view text);

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
