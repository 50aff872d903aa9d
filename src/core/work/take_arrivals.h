#pragma once

#include "core/intake/arrivals.h"
#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/hooks.h"

namespace sober {

/// Surveys all inboxes at full effort, each as a volume of its own or with the volume in which it lies, and
/// takes in what that shows.
Outcome surveyInboxes(Catalogue& catalogue, RunControl& control, const ProgressSink& onProgress);

struct IntakeRequest {
    std::vector<BytePath> arrivals; ///< absolute; those that are advised to be filed or retired if none
    bool advised = false;
    bool withProposals = false; ///< their tags are mended first, as proposed
    std::string layout = {};    ///< in place of the inboxes' own; "" leaves them
};

/// Does with each arrival what is advised, or files it where somebody names it although it is to be left.
/// Through the docket: tags are mended first; then it is moved to its place or, on another file system,
/// copied there and read back; players that point at it follow; then what was copied, what a better arrival
/// replaces, and what is held already is retired, once what stays is proven. Whatever is refused on the way
/// keeps what comes after it from happening. Last the lists of the latest arrivals are renewed.
Result<CarriedOut> takeArrivals(Catalogue& catalogue, const IntakeRequest& request, RunControl& control,
                                const CarryOutHooks& hooks);

} // namespace sober
