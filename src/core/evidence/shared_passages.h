#pragma once

#include "core/evidence/fingerprint.h"

namespace sober {

/// How much of the shorter of two recordings is heard in the other, window by window of six seconds, wherever
/// it stands there.
struct SharedPassages {
    bool isKnown = false;   ///< else both are too short, or nothing moves in them
    double share = 0;       ///< of the windows in which something moves, 0 to 1
    bool isInOneRow = true; ///< all that is shared stands at one offset: nothing was cut out or put in
};

SharedPassages sharedPassages(const Fingerprint& first, const Fingerprint& second);

} // namespace sober
