#pragma once

#include "core/exchange/checksum_list.h"

namespace sober {

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

/// Names of the files that a fetch.txt wants to be fetched.
std::vector<BytePath> parseBagFetch(std::string_view text);

} // namespace sober
