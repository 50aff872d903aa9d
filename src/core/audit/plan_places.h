#pragma once

#include "core/catalogue/catalogue.h"

namespace sober {

// Decisions about places, put on the docket. Nothing on a volume changes.

/// Every reference that leads to `place` is to lead to `target`. Cause::invalid where none does.
Outcome planRepoint(const Catalogue& catalogue, const BytePath& place, const BytePath& target,
                    const std::string& reason);

/// A holding, or all below a folder, is to be moved: into `target` where that is a folder or ends in
/// a slash, else to that name.
Outcome planMove(const Catalogue& catalogue, const BytePath& path, const BytePath& target,
                 const std::string& reason);

/// References that lead nowhere are not missed. Cause::invalid where none leads to `place`.
Outcome planWriteOffPlace(const Catalogue& catalogue, const BytePath& place, const std::string& reason);

} // namespace sober
