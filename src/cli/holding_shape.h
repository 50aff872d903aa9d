#pragma once

#include "cli/json_shapes.h"
#include "core/evidence/evidence.h"
#include "core/media/probe.h"

namespace sober::cli {

/// A holding with its evidence and verdict, as `examine` and `claims` print it.
Json holdingShape(const BytePath& path, const Claims& claims, const Tags& tags, const Checksum128& file,
                  const std::optional<Sha256>& sha256, const Evidence& evidence);

/// The same for a person, in a few lines.
void printHolding(const Json& holding);

} // namespace sober::cli
