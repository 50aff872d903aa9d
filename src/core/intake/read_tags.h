#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"
#include "core/intake/tag_proposals.h"

namespace sober {

/// Files with their tags, and what is proposed for them.
struct ProposedTags {
    std::vector<TaggedFile> files;                   ///< without any fields where they cannot be read
    std::vector<std::vector<TagProposal>> proposals; ///< in the order of the files
};

/// Reads the tags of files, in their order, and holds them against how the collection outside its inboxes
/// calls and files its artists, and against the pictures that lie beside them.
Result<ProposedTags> readAndPropose(const Catalogue& catalogue, std::span<const BytePath> paths,
                                    RunControl& control);

} // namespace sober
