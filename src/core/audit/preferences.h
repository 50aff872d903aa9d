#pragma once

#include "core/catalogue/policies.h"

#include <span>

namespace sober {

/// Negative where `a` is preferred to `b`, positive where `b` is, 0 where the preference tells nothing.
int compareBy(const Preference& preference, const Holding& a, const Holding& b);

/// The first of the policy's preferences that tells them apart; as compareBy.
int compareBy(const Policy& policy, const Holding& a, const Holding& b);

/// False where the preference asks for a place and the holding is elsewhere.
bool meets(const Preference& preference, const Holding& holding);

/// "on PETREL", "below Albums", "the better-named copy".
std::string preferenceWords(const Preference& preference, std::span<const Volume> volumes);

} // namespace sober
