#pragma once

#include "core/catalogue/catalogue.h"

#include <vector>

namespace sober {

struct OpenedForWork {
    Catalogue catalogue;
    std::vector<std::string> recovered; ///< what an earlier interruption left and how it was ended
};

/// Takes the writer's lock and ends what an interruption left half-way.
Result<OpenedForWork> openAndRecover(const BytePath& cataloguePath);

/// The same, then looks which volumes are at hand and brings the findings up to date.
Result<OpenedForWork> openForWork(const BytePath& cataloguePath);

/// Looks for volumes that came or went and brings the findings up to date; true where volumes did.
Result<bool> lookAgain(const Catalogue& catalogue);

} // namespace sober
