#pragma once

#include "app/theme/marks.h"
#include "core/audit/set_choice.h"

namespace sober::app {

/// What is decided, or else advised, for one member of a set.
Mark markFor(const SetDetail& detail, std::size_t member);

/// The same in a word, telling decided from advised.
QString decisionText(const SetDetail& detail, std::size_t member);

/// True where the set is left alone or some of it waits on the docket. A keeper alone decides nothing:
/// it stays remembered when its docket was cleared or taken back.
bool isDecided(const SetDecision& decision);

/// In two words, for a list.
QString samenessShort(Sameness sameness);

} // namespace sober::app
