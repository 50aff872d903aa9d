#pragma once

#include "core/catalogue/holding_writer.h"
#include "core/exchange/checksum_list.h"

namespace sober {

/// What taking a list for the baseline has found.
struct ListedBaseline {
    std::uint64_t asListed = 0;
    std::vector<BytePath> drifted;      ///< absolute: its content is another than the list says
    std::vector<BytePath> missing;      ///< absolute: catalogued, and no longer there
    std::vector<BytePath> uncatalogued; ///< as listed: no holding stands there
    std::vector<SurveyError> errors;
    bool interrupted = false;
};

/// Holds the holdings below `folder` against a list that was made earlier, and takes it for what they should
/// be. What is another has drifted since: silently where it was not written to since the list was. Of SHA-256
/// nothing is read that was read already. Until it is accepted or mended, such drift stays open; nothing is
/// accepted.
Result<ListedBaseline> takeListedBaseline(const Catalogue& catalogue, const ChecksumList& list,
                                          const BytePath& folder, Nanoseconds listed, RunControl& control,
                                          const ProgressSink& onProgress);

} // namespace sober
