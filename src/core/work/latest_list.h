#pragma once

#include "core/catalogue/docket_store.h"
#include "core/catalogue/inbox_store.h"

#include <optional>

namespace sober {

/// The action that writes or renews the list of the latest arrivals of an inbox: the hundred that were filed
/// last into its folder, the newest first, in the form that the list's ending names. Nothing where the list
/// says that already. Cause::invalid where the ending names no form; what others wrote is never written over.
Result<std::optional<DocketAction>> latestListAction(const Catalogue& catalogue, const Inbox& inbox);

/// Whether a path's ending names a form in which lists are written.
bool isListPath(const BytePath& path);

} // namespace sober
