#pragma once

#include "core/disc/disc_contents.h"
#include "core/evidence/worker/answers.h"

namespace sober {

// What a tray answers, and what a reading that is gone on with remembers.
Json shapeOf(const DiscContents& contents);
void takeFrom(const Json& json, DiscContents& contents);

} // namespace sober
