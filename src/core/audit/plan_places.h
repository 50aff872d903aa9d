#pragma once

#include "core/catalogue/action_kind.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>

namespace sober {

// Decisions about places, put on the docket. Nothing on a volume changes.

/// Every reference that leads to `place` is to lead to `target`. Cause::invalid where none does.
Outcome planRepoint(const Catalogue& catalogue, const BytePath& place, const BytePath& target,
                    const std::string& reason);

/// A holding, or all below a folder, is to be moved (or copied): into `target` where that is a folder or ends
/// in a slash, else to that name. Cause::invalid where it is there already, or would go into itself.
Outcome planMove(const Catalogue& catalogue, const BytePath& path, const BytePath& target,
                 const std::string& reason, ActionKind kind = ActionKind::move);

/// The same, to just that path whatever stands there: what a folder of that name holds stays beside it.
Outcome planMoveAs(const Catalogue& catalogue, const BytePath& path, const BytePath& target,
                   const std::string& reason, ActionKind kind = ActionKind::move);

/// Holdings are to be moved, each to an absolute path of its own; what lies inside an archive is to be copied.
Outcome planMovesTo(const Catalogue& catalogue, std::span<const std::pair<HoldingId, BytePath>> targets,
                    const std::string& reason);

/// Holdings are to be moved into a folder (what lies inside an archive is to be copied out of it), absolute,
/// there or to be made, each under its own name. Those that lie in it already stay. Cause::invalid where
/// nothing is left to move.
Outcome planMoveInto(const Catalogue& catalogue, std::span<const HoldingId> holdings, const BytePath& folder,
                     const std::string& reason);

/// References that lead nowhere are not missed. Cause::invalid where none leads to `place`.
Outcome planWriteOffPlace(const Catalogue& catalogue, const BytePath& place, const std::string& reason);

} // namespace sober
